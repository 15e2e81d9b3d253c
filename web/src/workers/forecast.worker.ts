import {
  actsFor,
  factsAt,
  forecastLot,
  pastForecasts,
  releaseChoice,
  ribbonDays,
  standingOf,
  warmthOf,
  weatherOutlook,
  type Act,
  type EpochDay,
  type Held,
  type HomeSpell,
  type LotFacts,
  type LotForecast,
  type Outlook,
  type RibbonDay,
  type Site,
  type Standing,
  type Warmth,
  type WeatherSeries,
} from '@kauri/core';
import { expose } from 'comlink';

/** One lot on the date looked at. */
export interface LotView {
  forecast: LotForecast;
  standing: Standing;
  acts: Act[];
}

const HORIZON_DAYS = 460;
/** Dates of recent forecasts whose weather is kept at hand while the ribbon is dragged. */
const KEPT_OUTLOOKS = 24;

let series: WeatherSeries;
let site: Site;
let facts: LotFacts[] = [];
const outlooks = new Map<EpochDay, { outlook: Outlook; warmth: Warmth }>();

function outlookAt(asOf: EpochDay) {
  let kept = outlooks.get(asOf);
  if (!kept) {
    const outlook = weatherOutlook(series, site, asOf, { horizonDays: HORIZON_DAYS });
    kept = { outlook, warmth: warmthOf(outlook) };
    if (outlooks.size >= KEPT_OUTLOOKS) outlooks.delete(outlooks.keys().next().value!);
    outlooks.set(asOf, kept);
  }
  return kept;
}

const api = {
  setWeather(weather: WeatherSeries, where: Site) {
    series = weather;
    site = where;
    outlooks.clear();
  },

  setLots(lots: LotFacts[]) {
    facts = lots;
  },

  /** Every lot sown by the date looked at, as known on that date or today, whichever is earlier. */
  all(view: EpochDay, today: EpochDay): LotView[] {
    const { outlook, warmth } = outlookAt(Math.min(view, today));
    const views: LotView[] = [];
    for (const lot of facts) {
      if (lot.sownOn > view) continue;
      const forecast = forecastLot(lot, outlook, warmth, { view });
      const known = factsAt(lot, outlook.asOf);
      const standing = standingOf(known, forecast);
      if (standing)
        views.push({ forecast, standing, acts: actsFor(known, forecast, standing, site.latitudeDeg) });
    }
    return views;
  },

  /** One lot with its course and the working behind it. */
  one(lotId: string, view: EpochDay, today: EpochDay): LotForecast | null {
    const lot = facts.find((candidate) => candidate.id === lotId);
    if (!lot || lot.sownOn > view) return null;
    const { outlook, warmth } = outlookAt(Math.min(view, today));
    const from = lot.sownOn;
    const to = Math.min(outlook.asOf + HORIZON_DAYS - 5, Math.max(view, outlook.asOf) + 240);
    return forecastLot(lot, outlook, warmth, { view, course: { from, to }, explain: true });
  },

  /** One lot as it is, and as it would be in another home from a day on; both as known today. */
  moved(lotId: string, move: HomeSpell, today: EpochDay): { stays: LotForecast; moves: LotForecast } | null {
    const lot = facts.find((candidate) => candidate.id === lotId);
    if (!lot) return null;
    const { outlook, warmth } = outlookAt(today);
    const view = Math.max(today, move.from);
    return {
      stays: forecastLot(lot, outlook, warmth, { view }),
      moves: forecastLot(lot, outlook, warmth, { view, move }),
    };
  },

  /** A lot that might be, as forecast today. */
  suppose(lot: LotFacts, today: EpochDay): LotForecast {
    const { outlook, warmth } = outlookAt(today);
    return forecastLot(lot, outlook, warmth, { view: today, draws: 16 });
  },

  /** What past forecasts said of every later measurement up to today, lot by lot. */
  held(today: EpochDay): Held[] {
    const known = (day: EpochDay) => day <= today;
    return facts.flatMap((lot) =>
      pastForecasts(
        {
          ...lot,
          sizes: lot.sizes.filter((s) => known(s.day)),
          pulls: lot.pulls.filter((p) => known(p.day)),
        },
        outlookAt,
      ),
    );
  },

  /** What is left of each rating of feed mixed in on a day and wanted until another. */
  feed(today: EpochDay, from: EpochDay, until: EpochDay, warmerByC: number) {
    return releaseChoice(outlookAt(today).outlook, from, until, undefined, warmerByC);
  },

  /** Warmth, chill and frost along a strip, as known today. */
  ribbon(today: EpochDay, start: EpochDay, end: EpochDay): RibbonDay[] {
    return ribbonDays(outlookAt(today).outlook, start, end);
  },
};

export type ForecastWorker = typeof api;
expose(api);
