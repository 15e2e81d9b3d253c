import {
  emergenceClock,
  emergenceOutlook,
  knownWeather,
  LastFew,
  layerOutlook,
  planTreatment,
  seedsToSow,
  rootingForecast,
  seedsPerCellTable,
  sowingPlan,
  treatmentClock,
  viabilityCurve,
  viabilityOutlook,
  type BatchStore,
  type CellCosts,
  type EmergencePrior,
  type EpochDay,
  type KnownWaking,
  type KnownWeather,
  type LotFacts,
  type Phase,
  type Site,
  type SowingAsk,
  type SowingQuestion,
  type SpeciesValues,
  type Spread,
  type StoredLot,
  type TreatmentFacts,
  type UpBy,
  type WeatherSeries,
} from '@kauri/core';
import { expose } from 'comlink';

let series: WeatherSeries;
let site: Site;
const kept = new LastFew<EpochDay, KnownWeather>(4);

const outlookAt = (asOf: EpochDay) => kept.get(asOf) ?? kept.set(asOf, knownWeather(series, site, asOf));

const api = {
  setWeather(weather: WeatherSeries, where: Site) {
    series = weather;
    site = where;
    kept.clear();
  },

  viability: (lot: StoredLot, day: EpochDay) => viabilityOutlook(lot, day),

  /** Viability on a run of days, to draw. */
  life: (lot: StoredLot, days: EpochDay[]) => viabilityCurve(lot, days),

  /** Batches under treatment, as known on a date. */
  clocks: (batches: TreatmentFacts[], asOf: EpochDay) =>
    batches.map((facts) => treatmentClock(facts, outlookAt(asOf).outlook)),

  plan: (
    phases: Phase[],
    store: BatchStore,
    sowOn: EpochDay,
    asOf: EpochDay,
    kind: { waking: KnownWaking; taproot: boolean },
    chance: number,
  ) => planTreatment(phases, store, sowOn, outlookAt(asOf).outlook, kind, chance),

  sowing: (ask: SowingAsk) => sowingPlan(ask),

  /** Seeds to sow so that so many stand up, with the chance. */
  seeds: (question: SowingQuestion) => seedsToSow(question).value,

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

  /** How lots come up, as known on a date. */
  emergence: (
    lots: { counts: UpBy[]; sown: number; of: LotFacts; prior: EmergencePrior }[],
    asOf: EpochDay,
  ) =>
    lots.map(({ counts, sown, of, prior }) => {
      const { warmth } = outlookAt(asOf);
      return emergenceOutlook(counts, sown, emergenceClock(of, warmth), prior, warmth);
    }),
};

export type SeedWorker = typeof api;
expose(api);
