import { percent, surely } from '../words/numbers';
import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { meanTempOn, type BatchStore } from './storeTemperature';
import type { EpochDay } from '../calendar/day';
import { bandOf, type Band } from '../chance/quantile';
import type { KnownWaking } from '../species/waking';
import type { Outlook } from '../weather/ensemble';
import type { Worked } from '../working/working';
import { mustRun, type Phase, type PhaseKind } from '../species/protocol';
import { dayCounts, OUTDOOR_SWING_C, runClock, type ClockRun } from './treatmentClock';
import { OUT_MOST, READY_SHARE, WakingLot } from './wakingLot';

export interface TreatmentPlan {
  /** Latest day to begin and be ready in time. */
  begin: EpochDay;
  /** Earliest day to begin and not have come too far. */
  notBefore: EpochDay;
  /** Whether no day keeps both: it must then be looked at. */
  crosses: boolean;
  phases: { kind: PhaseKind; start: Band }[];
  /** Chances, begun on the latest day: to be ready by the sowing day, and not to have come too far. */
  chance: number;
  chanceNotTooFar: number;
}

/** Never looks further back than this, days. */
const FURTHEST_DAYS = 760;

/**
 * Backwards from a sowing day: between which days to begin, so that the batch is ready by then and not too far on, each
 * with the chance wanted, over the weather years and over what lots of its kind are like.
 * @throws Unfit with a sentence when a store never counts for one of the phases, or no start is ready in time
 */
export function planTreatment(
  phases: readonly Phase[],
  store: BatchStore,
  sowOn: EpochDay,
  outlook: Outlook,
  { waking, taproot }: { waking: KnownWaking; taproot: boolean },
  chance = 0.8,
): Worked<TreatmentPlan> {
  mustRun(phases);
  const years = store.kind === 'fixed' ? 1 : outlook.years.length;
  if (store.kind === 'fixed')
    for (const { kind } of phases)
      if (dayCounts(kind, kind === 'warm' ? store.warmC : store.coldC) === 0)
        throw new Unfit(say`At that temperature no day counts for the ${kind} phase.`);
  const most = taproot ? OUT_MOST.tap : OUT_MOST.other;
  const known = new Map<EpochDay, { ready: number; notTooFar: number; runs: ClockRun[] }>();
  const begun = (begin: EpochDay) => {
    let at = known.get(begin);
    if (!at) {
      const runs = Array.from({ length: years }, (_, year) =>
        runClock(
          { phases, startedOn: begin },
          (day, kind) => meanTempOn(store, kind, outlook, year, day),
          sowOn,
          sowOn - begin + 1,
        ),
      );
      const lot = new WakingLot(
        { phases, startedOn: begin, waking, alive: { alpha: 8, beta: 2 }, before: [] },
        runs.map((run) => run.meanC),
        store.kind === 'fixed' ? 0 : OUTDOOR_SWING_C,
      );
      at = {
        ready: lot.chanceOf('ready', sowOn, READY_SHARE),
        notTooFar: 1 - lot.chanceOf('out', sowOn, most),
        runs,
      };
      known.set(begin, at);
    }
    return at;
  };
  const furthest = sowOn - FURTHEST_DAYS;
  // Earlier begun, more is ready and more has come too far: each side is closed in on by halves.
  const latest = (holds: (begin: EpochDay) => boolean): EpochDay | null => {
    let step = 28;
    let low = sowOn;
    while (!holds(low)) {
      low -= step;
      step = Math.min(84, step + 14);
      if (low < furthest) return null;
    }
    let high = Math.min(sowOn, low + step);
    while (high - low > 1) {
      const middle = Math.floor((low + high) / 2);
      if (holds(middle)) low = middle;
      else high = middle;
    }
    return low;
  };
  const needsNothing = phases.length === 0;
  // Where its phases leave deep lots asleep whenever they begin, the best that can be had is asked for, and said.
  let begin = needsNothing ? sowOn : null;
  for (let wanted = chance; begin === null && wanted > 0.15; wanted -= 0.2)
    begin = latest((day) => begun(day).ready >= wanted - 1e-9);
  if (begin === null) throw new Unfit(say`No start within two years is ready by that day in this store.`);
  const tooFar = needsNothing ? null : latest((day) => begun(day).notTooFar < chance - 1e-9);
  const notBefore = tooFar === null ? furthest : tooFar + 1;
  const { ready, notTooFar, runs } = begun(begin);
  const value: TreatmentPlan = {
    begin,
    notBefore,
    crosses: notBefore > begin,
    phases: phases.map(({ kind }, i) => ({
      kind,
      start: bandOf(Float64Array.from(runs, (run) => run.starts[i])),
    })),
    chance: ready,
    chanceNotTooFar: notTooFar,
  };
  return {
    value,
    working: [
      {
        what: say`Begin at the latest`,
        how: say`Eight in ten of the living would then come up soon after sowing, in ${surely(value.chance)} of lots of its kind${years > 1 ? say` and of ${years} weather years` : ''}.`,
        result: begin,
        unit: 'date',
        inputs: [
          {
            name: say`wakes as`,
            value: `${waking.group}${waking.near ? say` (the nearest kind)` : ''}`,
            origin: 'starting',
          },
          {
            name: say`cold days of the middle seed`,
            value: waking.waking.chillDays,
            unit: 'd',
            origin: 'starting',
          },
        ],
      },
      {
        what: say`Begin at the earliest`,
        how: say`Begun before, more than ${percent(most)} of radicles are out by the sowing day in over ${percent(1 - chance)} of lots and years.`,
        result: notBefore,
        unit: 'date',
      },
    ],
  };
}
