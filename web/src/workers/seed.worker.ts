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
import { exposeSpeaking } from './speaking';

let series: WeatherSeries;
let site: Site;
const kept = new LastFew<EpochDay, KnownWeather>(4);

/** Questions whose answers are kept, of each kind. */
const KEPT = 400;
const forgetful: (() => void)[] = [];

/** A question asked again just as it was is answered from what was worked out then: records come one by one, and all is asked anew. */
function remembered<Q, A>(answer: (question: Q, asOf: EpochDay) => A): (question: Q, asOf: EpochDay) => A {
  const answers = new LastFew<string, { answer: A }>(KEPT);
  forgetful.push(() => answers.clear());
  return (question, asOf) => {
    const key = `${asOf} ${JSON.stringify(question)}`;
    return (answers.get(key) ?? answers.set(key, { answer: answer(question, asOf) })).answer;
  };
}
const viabilityOn = remembered((lot: StoredLot, day) => viabilityOutlook(lot, day));
const clockOn = remembered((facts: TreatmentFacts, asOf) => treatmentClock(facts, outlookAt(asOf).outlook));
const emergenceOn = remembered(
  (
    { counts, sown, of, prior }: { counts: UpBy[]; sown: number; of: LotFacts; prior: EmergencePrior },
    asOf,
  ) => {
    const { warmth } = outlookAt(asOf);
    return emergenceOutlook(counts, sown, emergenceClock(of, warmth), prior, warmth);
  },
);

const outlookAt = (asOf: EpochDay) => kept.get(asOf) ?? kept.set(asOf, knownWeather(series, site, asOf));

const api = {
  setWeather(weather: WeatherSeries, where: Site) {
    series = weather;
    site = where;
    kept.clear();
    for (const forget of forgetful) forget();
  },

  viability: viabilityOn,

  /** Viability on a run of days, to draw. */
  life: (lot: StoredLot, days: EpochDay[]) => viabilityCurve(lot, days),

  /** Batches under treatment, as known on a date. */
  clocks: (batches: TreatmentFacts[], asOf: EpochDay) => batches.map((facts) => clockOn(facts, asOf)),

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
  ) => lots.map((lot) => emergenceOn(lot, asOf)),
};

export type SeedWorker = typeof api;
exposeSpeaking(api);
