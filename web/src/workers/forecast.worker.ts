import {
  evaporationAhead,
  actsFor,
  factsAt,
  forecastLot,
  gradesAhead,
  HORIZON_DAYS,
  knownWeather,
  LastFew,
  keepsUntil,
  liesIn,
  liftingOdds,
  pastForecasts,
  pastWeather,
  pointOf,
  promisable,
  promisableParcel,
  releaseChoice,
  ribbonDays,
  sowRoute,
  standingOf,
  teachingOf,
  feltWeather,
  type Act,
  type EpochDay,
  type EvaporationAhead,
  type GradeAsk,
  type GradeOutlook,
  type Hands,
  type Held,
  type HomeSpell,
  type LotFacts,
  type LotForecast,
  type LiftingOdds,
  type LotToLift,
  type Keeps,
  type LyingParcel,
  type Worked,
  type FeltWeather,
  type PromisableLot,
  type PromiseAsk,
  type RibbonDay,
  type RouteLot,
  type RoutePoint,
  type Site,
  type SpeciesValues,
  type Standing,
  type Teaching,
  type TreesWanted,
  type WeatherSeries,
} from '@kauri/core';
import { exposeSpeaking } from './speaking';

/** One lot on the date looked at. */
export interface LotView {
  forecast: LotForecast;
  standing: Standing;
  acts: Act[];
}

/** Dates of recent forecasts whose weather is kept at hand while the ribbon is dragged. */
const KEPT_OUTLOOKS = 24;

let series: WeatherSeries;
let site: Site;
/** The nursery's lots by id, in the order they came. */
const lots = new Map<string, LotFacts>();
/** What was last answered of each lot, with the facts it was worked out from, for one date and weather. */
const answered = new Map<string, { facts: LotFacts; view: LotView | null; fault: string | null }>();
let answeredFor = '';
/** Views worked out and not fetched yet. */
let ready: LotView[] = [];
/** Longest the worker works before it looks whether something shorter was asked, ms. */
const SLICE_MS = 30;
const weathers = new LastFew<EpochDay, FeltWeather>(KEPT_OUTLOOKS);
const weatherOn = (asOf: EpochDay): FeltWeather =>
  weathers.get(asOf) ?? weathers.set(asOf, feltWeather(knownWeather(series, site, asOf)));
/** The weather of the open. */
const outlookAt = (asOf: EpochDay) => weatherOn(asOf).open;

/** The weather a lot feels where it stands, or would stand. */
const weatherFor = (lot: LotFacts, asOf: EpochDay, move: HomeSpell | null = null) =>
  weatherOn(asOf).felt(lot, move);

function viewOf(
  lot: LotFacts,
  view: EpochDay,
  asOf: EpochDay,
): { view: LotView | null; fault: string | null } {
  try {
    const known = factsAt(lot, asOf);
    const { outlook, warmth } = weatherFor(known, asOf);
    const forecast = forecastLot(lot, outlook, warmth, { view });
    const standing = standingOf(known, forecast);
    return {
      view: standing && { forecast, standing, acts: actsFor(known, forecast, standing, site.latitudeDeg) },
      fault: null,
    };
  } catch (error) {
    console.error(error);
    return { view: null, fault: error instanceof Error ? error.message : String(error) };
  }
}

const api = {
  setWeather(weather: WeatherSeries, where: Site) {
    series = weather;
    site = where;
    weathers.clear();
    answeredFor = '';
  },

  /** Takes lots in, new and changed, and lets go of some. */
  putLots(changed: LotFacts[], gone: string[]) {
    for (const lot of changed) lots.set(lot.id, lot);
    for (const id of gone) lots.delete(id);
  },

  /**
   * Every lot sown by the date looked at, as known on that date or today, whichever is earlier: all ids, and those views
   * that are not as last answered, to be fetched with `more`. A lot whose forecast fails says so, and the rest go on.
   * Between lots, shorter questions are answered.
   */
  async all(
    view: EpochDay,
    today: EpochDay,
  ): Promise<{ ids: string[]; changed: number; faults: { lotId: string; fault: string }[] }> {
    const asOf = Math.min(view, today);
    const of = `${view} ${asOf}`;
    if (answeredFor !== of) answered.clear();
    answeredFor = of;
    const ids: string[] = [];
    const changed: LotView[] = [];
    const faults: { lotId: string; fault: string }[] = [];
    let begun = performance.now();
    for (const lot of lots.values()) {
      if (performance.now() - begun > SLICE_MS) {
        await new Promise((resolve) => setTimeout(resolve));
        begun = performance.now();
      }
      if (lot.sownOn > view) continue;
      let known = answered.get(lot.id);
      if (known?.facts !== lot) {
        known = { facts: lot, ...viewOf(lot, view, asOf) };
        answered.set(lot.id, known);
        if (known.view) changed.push(known.view);
      }
      if (known.view) ids.push(lot.id);
      if (known.fault !== null) faults.push({ lotId: lot.id, fault: known.fault });
    }
    ready = changed;
    return { ids, changed: changed.length, faults };
  },

  /** The next so many views of those last worked out. */
  more(count: number): LotView[] {
    return ready.splice(0, count);
  },

  /** One lot with its course and the working behind it. */
  one(lotId: string, view: EpochDay, today: EpochDay): LotForecast | null {
    const lot = lots.get(lotId);
    if (!lot || lot.sownOn > view) return null;
    const { outlook, warmth } = weatherFor(factsAt(lot, Math.min(view, today)), Math.min(view, today));
    const from = lot.sownOn;
    const to = Math.min(outlook.asOf + HORIZON_DAYS - 5, Math.max(view, outlook.asOf) + 240);
    return forecastLot(lot, outlook, warmth, { view, course: { from, to }, explain: true });
  },

  /** What a lot would give by grade on the date looked at. */
  grades(lotId: string, ask: GradeAsk, view: EpochDay, today: EpochDay): Worked<GradeOutlook> | null {
    const lot = lots.get(lotId);
    if (!lot || lot.sownOn > view) return null;
    const { outlook, warmth } = weatherFor(factsAt(lot, Math.min(view, today)), Math.min(view, today));
    return gradesAhead(lot, outlook, warmth, view, ask);
  },

  /** What some lots can be promised for on some days, as known today. */
  promisable(
    lotIds: readonly string[],
    ask: Omit<PromiseAsk, 'on'>,
    days: readonly EpochDay[],
    today: EpochDay,
    { parcels, species }: { parcels: readonly LyingParcel[]; species: SpeciesValues },
  ): PromisableLot[][] {
    const { warmth } = outlookAt(today);
    const lying = parcels.flatMap((parcel) => {
      const { until } = keepsUntil(species, site.latitudeDeg, warmth, liesIn(parcel)).value;
      return promisableParcel(parcel, ask, today, until) ?? [];
    });
    return days.map((on) => [
      ...lying,
      ...lotIds.flatMap((id) => {
        const lot = lots.get(id);
        if (!lot || lot.sownOn > today) return [];
        const known = factsAt(lot, today);
        const { outlook, warmth } = weatherFor(known, today);
        const forecast = forecastLot(lot, outlook, warmth, { view: Math.max(today, on), sizes: ask });
        const standing = standingOf(known, forecast);
        const some = standing && promisable(known, forecast, standing, { ...ask, on });
        return some ? [some] : [];
      }),
    ]);
  },

  /** Until when lifted trees keep where they lie, as known today; what lies of species that are gone is left out. */
  keeps(
    parcels: readonly LyingParcel[],
    species: ReadonlyMap<string, SpeciesValues>,
    today: EpochDay,
  ): ReadonlyMap<string, Worked<Keeps>> {
    const { warmth } = outlookAt(today);
    return new Map(
      parcels.flatMap((parcel) => {
        const values = species.get(parcel.speciesId);
        return values ? [[parcel.id, keepsUntil(values, site.latitudeDeg, warmth, liesIn(parcel))]] : [];
      }),
    );
  },

  /** Bed lots lifted in turn through every weather year, as known today. */
  lifting: (lots: readonly LotToLift[], hands: Hands, today: EpochDay): LiftingOdds =>
    liftingOdds(lots, hands, outlookAt(today).outlook.years, today),

  /** Evapotranspiration to be expected in the open from today on. */
  evaporation: (today: EpochDay): EvaporationAhead => evaporationAhead(outlookAt(today).outlook),

  /** One lot as it is, and as it would be in another home from a day on; both as known today. */
  moved(lotId: string, move: HomeSpell, today: EpochDay): { stays: LotForecast; moves: LotForecast } | null {
    const lot = lots.get(lotId);
    if (!lot) return null;
    const stays = weatherFor(lot, today);
    const moves = weatherFor(lot, today, move);
    const view = Math.max(today, move.from);
    return {
      stays: forecastLot(lot, stays.outlook, stays.warmth, { view }),
      moves: forecastLot(lot, moves.outlook, moves.warmth, { view, move }),
    };
  },

  /** One lot over the seasons ahead where it stands, and moved on today; both as known today. */
  seasons(
    lotId: string,
    move: HomeSpell | null,
    today: EpochDay,
  ): { stays: LotForecast; moves: LotForecast | null } | null {
    const lot = lots.get(lotId);
    if (!lot) return null;
    const stays = weatherFor(lot, today);
    const moves = move && weatherFor(lot, today, move);
    return {
      stays: forecastLot(lot, stays.outlook, stays.warmth, { view: today, seasons: true }),
      moves: moves && forecastLot(lot, moves.outlook, moves.warmth, { view: today, move, seasons: true }),
    };
  },

  /** One lot as it stands, and with its cells set apart to so many times their room. */
  spread(lotId: string, apart: number, today: EpochDay): { stays: LotForecast; moves: LotForecast } | null {
    const lot = lots.get(lotId);
    if (!lot) return null;
    const { outlook, warmth } = weatherFor(lot, today);
    return {
      stays: forecastLot(lot, outlook, warmth, { view: today }),
      moves: forecastLot(lot, outlook, warmth, { view: today, apart }),
    };
  },

  /** What each lot teaches of its species by a day; read with the species’ own values. */
  teaching(today: EpochDay): { lotId: string; teaching: Teaching }[] {
    return [...lots.values()].map((lot) => {
      const { outlook, warmth } = weatherFor(lot, today);
      const { seen } = forecastLot(lot, outlook, warmth, { view: today, draws: 4 }).emergence;
      return { lotId: lot.id, teaching: teachingOf(lot, { outlook, warmth }, seen) };
    });
  },

  /** What sowings of a route on some days come to, as known today. */
  sowings(route: RouteLot, days: readonly EpochDay[], wanted: TreesWanted, today: EpochDay): RoutePoint[] {
    const weather = weatherOn(today);
    return days.map((on) => pointOf(sowRoute(route, on, wanted, weather), wanted));
  },

  /** A lot that might be, as forecast today. */
  suppose(lot: LotFacts, today: EpochDay): LotForecast {
    const { outlook, warmth } = weatherFor(lot, today);
    return forecastLot(lot, outlook, warmth, { view: today, draws: 16 });
  },

  /** What past forecasts said of every later measurement up to today, lot by lot. */
  held(today: EpochDay, lotId: string | null = null): Held[] {
    const known = (day: EpochDay) => day <= today;
    const then = pastWeather(series, site);
    const asked = lotId === null ? [...lots.values()] : [lots.get(lotId)].filter((lot) => lot !== undefined);
    return asked.flatMap((lot) =>
      pastForecasts(
        {
          ...lot,
          sizes: lot.sizes.filter((s) => known(s.day)),
          pulls: lot.pulls.filter((p) => known(p.day)),
        },
        then,
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
exposeSpeaking(api);
