import type { EpochDay } from '../calendar/day';
import { liftedOf, tallyAt, type Tally } from '../ledger/ledger';
import type { LotForecast } from './forecast';
import type { LotFacts } from './lotFacts';

/** What a lot is, in a word. Always shown as a shape and a word together. */
export type Status =
  'waiting' | 'failed' | 'filling' | 'ready' | 'holding' | 'bound' | 'growing' | 'lift' | 'lifted' | 'ended';

/** What to do about it. Words are the screen's; days and odds are here. */
export type Decision =
  /** From the day on that one in ten would have it up, it is looked for. */
  | { kind: 'await-emergence'; from: EpochDay; around: EpochDay; by: EpochDay }
  | { kind: 'write-off'; since: EpochDay }
  /** `bound` is the day by which one forecast in ten is root-bound. */
  | { kind: 'let-fill'; readyAround: EpochDay; chanceReady: number; bound: EpochDay }
  | { kind: 'await-leaves'; from: EpochDay; by: EpochDay }
  | { kind: 'prick-out'; from: EpochDay; by: EpochDay }
  /** `by` before `holdsSince`: no day has half the plugs held and fewer than one in ten root-bound. */
  | { kind: 'move-by'; holdsSince: EpochDay; by: EpochDay; half: EpochDay }
  | { kind: 'move-now'; boundSince: EpochDay; chanceBound: number }
  | { kind: 'raise-lid'; reached: EpochDay }
  /** `missed` is the close of the winter's window before, where it stood through it. */
  | { kind: 'grow-on'; liftFrom: EpochDay; liftUntil: EpochDay; rests: boolean; missed: EpochDay | null }
  | { kind: 'lift'; from: EpochDay; bestBefore: EpochDay; until: EpochDay }
  | { kind: 'done' };

export interface Standing {
  status: Status;
  decision: Decision;
  tally: Tally;
  /** Act now: what waits costs trees. */
  urgent: boolean;
}

/** Within this many days of the hold date a lot is holding rather than ready. */
export const HOLDING_DAYS = 28;
/** After the date by which nine runs in ten are up, a lot with none is given this long. */
export const EMERGENCE_GRACE_DAYS = 45;

/** Judges a lot on the date its forecast looks at; null before it was sown. */
export function standingOf(facts: LotFacts, forecast: LotForecast): Standing | null {
  const view = forecast.state.day;
  if (view < facts.sownOn) return null;
  const tally = tallyAt(facts.movements, view);
  const standing = (status: Status, decision: Decision, urgent = false): Standing => ({
    status,
    decision,
    tally,
    urgent,
  });
  if (tally.standing === 0 && tally.sown === 0) {
    return standing(liftedOf(tally) > 0 ? 'lifted' : 'ended', { kind: 'done' });
  }
  if (tally.standing === 0 && forecast.emergence.seen === null)
    return beforeEmergence(facts, forecast, standing);
  if (tally.standing === 0) return standing(liftedOf(tally) > 0 ? 'lifted' : 'ended', { kind: 'done' });
  return facts.home.kind === 'container' ? inContainer(forecast, standing) : inBed(forecast, standing);
}

type Make = (status: Status, decision: Decision, urgent?: boolean) => Standing;

function beforeEmergence(facts: LotFacts, forecast: LotForecast, make: Make): Standing {
  const { band } = forecast.emergence;
  const zeroCounts = facts.counts.filter((c) => c.count === 0 && c.day <= forecast.asOf).map((c) => c.day);
  const lastZero = Math.max(-Infinity, ...zeroCounts);
  const firstZero = Math.min(Infinity, ...zeroCounts);
  // A count of none, repeated for weeks after it was first looked for, tells more than the forecast.
  // Not before nine in ten lots of its kind would be up: fresh seed that has had no winter yet is not late.
  const due = forecast.emergence.usual.p90 + EMERGENCE_GRACE_DAYS;
  if (lastZero - firstZero >= EMERGENCE_GRACE_DAYS && lastZero >= due) {
    return make('failed', { kind: 'write-off', since: lastZero }, true);
  }
  return make('waiting', { kind: 'await-emergence', from: band.p10, around: band.p50, by: band.p90 });
}

function inContainer(forecast: LotForecast, make: Make): Standing {
  const { state, ready, bound, prick } = forecast;
  // Seedlings in an open flat have no plug to fill: they are pricked out.
  if (prick) {
    const [from, by] = [Math.round(prick.from.p50), Math.round(prick.by.p50)];
    return state.day < from
      ? make('filling', { kind: 'await-leaves', from, by })
      : make(state.day > by ? 'holding' : 'ready', { kind: 'prick-out', from, by }, state.day > by - 7);
  }
  if (state.chanceBound >= 0.5) {
    return make(
      'bound',
      { kind: 'move-now', boundSince: Math.min(bound.p50, state.day), chanceBound: state.chanceBound },
      true,
    );
  }
  if (state.chanceReady >= 0.5) {
    const holding = bound.p10 - state.day <= HOLDING_DAYS;
    return make(
      holding ? 'holding' : 'ready',
      { kind: 'move-by', holdsSince: ready.p50, by: bound.p10, half: bound.p50 },
      holding,
    );
  }
  return make('filling', {
    kind: 'let-fill',
    readyAround: ready.p50,
    chanceReady: state.chanceReady,
    bound: bound.p10,
  });
}

function inBed(forecast: LotForecast, make: Make): Standing {
  const { state, lifting, lid } = forecast;
  if (forecast.rests && state.day >= lifting.from && state.day <= lifting.until) {
    const { from, bestBefore, until } = lifting;
    return make('lift', { kind: 'lift', from, bestBefore, until }, state.day > bestBefore - HOLDING_DAYS);
  }
  if (lid !== null && lid.p50 <= state.day)
    return make('growing', { kind: 'raise-lid', reached: lid.p50 }, true);
  const { rests, missedLift } = forecast;
  return make('growing', {
    kind: 'grow-on',
    liftFrom: lifting.from,
    liftUntil: lifting.until,
    rests,
    missed: missedLift,
  });
}
