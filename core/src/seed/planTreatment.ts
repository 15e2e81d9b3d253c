import { Unfit } from '../working/unfit';
import { meanTempOn, type BatchStore } from './storeTemperature';
import type { EpochDay } from '../calendar/day';
import { bandOf, type Band } from '../chance/quantile';
import type { Outlook } from '../weather/ensemble';
import type { Worked } from '../working/working';
import { mustRun, type Phase, type PhaseKind } from '../species/protocol';
import { dayCounts, runClock } from './treatmentClock';

export interface TreatmentPlan {
  /** Latest day to begin. */
  begin: EpochDay;
  phases: { kind: PhaseKind; start: Band }[];
  ready: Band;
  /** Share of weather years in which it is ready by the sowing day. */
  chance: number;
}

/** Never looks further back than this, days. */
const FURTHEST_DAYS = 1000;

/**
 * Backwards from a sowing day: the latest day on which to begin so that the batch is ready by then with the
 * chance wanted, and the day each phase starts. Fixed rooms are a sum; out of doors every weather year is run.
 * @throws Unfit with a sentence when a store never counts for one of the phases
 */
export function planTreatment(
  phases: readonly Phase[],
  store: BatchStore,
  sowOn: EpochDay,
  outlook: Outlook,
  chance = 0.8,
): Worked<TreatmentPlan> {
  mustRun(phases);
  const years = store.kind === 'fixed' ? 1 : outlook.years.length;
  const temperature = (year: number) => (day: EpochDay, kind: PhaseKind | null) =>
    meanTempOn(store, kind, outlook, year, day);
  if (store.kind === 'fixed')
    for (const { kind } of phases)
      if (dayCounts(kind, kind === 'warm' ? store.warmC : store.coldC) === 0)
        throw new Unfit(`At that temperature no day counts for the ${kind} phase.`);
  const shareReady = (begin: EpochDay) => {
    let ready = 0;
    for (let y = 0; y < years; y++)
      if (runClock({ phases, startedOn: begin }, temperature(y), sowOn, sowOn - begin + 1).ready <= sowOn)
        ready++;
    return ready / years;
  };
  const least = phases.reduce((t, p) => t + p.days, 0);
  let begin = sowOn - Math.ceil(least) + (phases.length ? 1 : 0);
  while (shareReady(begin) < chance - 1e-9) {
    begin -= 7;
    if (begin < sowOn - FURTHEST_DAYS)
      throw new Unfit('No start within three years is ready by that day in this store.');
  }
  for (let later = 0; later < 6 && shareReady(begin + 1) >= chance - 1e-9; later++) begin++;
  const runs = Array.from({ length: years }, (_, y) =>
    runClock({ phases, startedOn: begin }, temperature(y), sowOn),
  );
  const value: TreatmentPlan = {
    begin,
    phases: phases.map(({ kind }, i) => ({
      kind,
      start: bandOf(Float64Array.from(runs, (run) => run.starts[i])),
    })),
    ready: bandOf(Float64Array.from(runs, (run) => run.ready)),
    chance: shareReady(begin),
  };
  return {
    value,
    working: [
      {
        what: 'Days the phases need at the least',
        expression: phases.map((p) => String(p.days)).join(' + ') || '0',
        result: least,
        unit: 'd',
      },
      {
        what: 'Begin',
        how:
          store.kind === 'fixed'
            ? 'Each day counts by the room’s temperature; counted back from the sowing day.'
            : `The latest day from which ${Math.round(value.chance * 100)} % of ${years} weather years are ready in time.`,
        result: begin,
        unit: 'date',
      },
    ],
  };
}
