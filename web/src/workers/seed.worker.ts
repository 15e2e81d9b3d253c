import {
  layerOutlook,
  planTreatment,
  rootingForecast,
  seedsPerCellTable,
  sowingPlan,
  treatmentClock,
  viabilityOutlook,
  warmthOf,
  weatherOutlook,
  type BatchStore,
  type CellCosts,
  type EpochDay,
  type Outlook,
  type Phase,
  type Site,
  type SowingAsk,
  type SpeciesValues,
  type Spread,
  type StoredLot,
  type TreatmentFacts,
  type Warmth,
  type WeatherSeries,
} from '@kauri/core';
import { expose } from 'comlink';

const HORIZON_DAYS = 460;

let series: WeatherSeries;
let site: Site;
let kept: { asOf: EpochDay; outlook: Outlook; warmth: Warmth } | null = null;

function outlookAt(asOf: EpochDay) {
  if (kept?.asOf !== asOf) {
    const outlook = weatherOutlook(series, site, asOf, { horizonDays: HORIZON_DAYS });
    kept = { asOf, outlook, warmth: warmthOf(outlook) };
  }
  return kept;
}

const api = {
  setWeather(weather: WeatherSeries, where: Site) {
    series = weather;
    site = where;
    kept = null;
  },

  viability: (lot: StoredLot, day: EpochDay) => viabilityOutlook(lot, day),

  /** Batches under treatment, as known on a date. */
  clocks: (batches: TreatmentFacts[], asOf: EpochDay) =>
    batches.map((facts) => treatmentClock(facts, outlookAt(asOf).outlook)),

  plan: (phases: Phase[], store: BatchStore, sowOn: EpochDay, asOf: EpochDay, chance: number) =>
    planTreatment(phases, store, sowOn, outlookAt(asOf).outlook, chance),

  sowing: (ask: SowingAsk) => sowingPlan(ask),

  cells: (emergence: number, cells: number, costs: CellCosts, transplant: boolean) =>
    seedsPerCellTable(emergence, cells, costs, transplant),

  layer: (
    species: Pick<SpeciesValues, 'budburst'>,
    rootDd: Spread,
    branchMm: number,
    madeOn: EpochDay,
    asOf: EpochDay,
  ) => {
    const { outlook, warmth } = outlookAt(asOf);
    return layerOutlook(species, rootDd, branchMm, madeOn, outlook, warmth);
  },

  rooting: (madeOn: EpochDay, rootDd: Spread, asOf: EpochDay, bottomHeatC: number) =>
    rootingForecast(madeOn, rootDd, outlookAt(asOf).warmth, bottomHeatC),

  /** Warmth above 5 °C since a day, at each day asked for; days ahead are of the middle of the years. */
  warmthSince(since: EpochDay, days: EpochDay[], asOf: EpochDay): number[] {
    const { warmth } = outlookAt(asOf);
    return days.map((day) => {
      let sum = 0;
      for (let d = Math.max(since, warmth.pastStart); d <= Math.min(day, asOf); d++)
        sum += warmth.past[d - warmth.pastStart];
      for (let d = Math.max(asOf + 1, since); d <= day; d++)
        sum += warmth.years.reduce((t, year) => t + (year[d - asOf - 1] ?? 0), 0) / warmth.years.length;
      return sum;
    });
  },
};

export type SeedWorker = typeof api;
expose(api);
