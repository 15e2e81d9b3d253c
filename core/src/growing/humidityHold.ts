import { say } from '../speech/say';
import type { EpochDay } from '../calendar/day';
import { Unfit } from '../working/unfit';

/**
 * Plants with leaves on and too few roots, held in humid air until new leaves show that roots feed them, then opened by steps
 * and led to the light. Gates and steps are the practice of growers, not a model.
 */
export const holdCauses = [
  'severed layer',
  'dug in summer',
  'pricked out',
  'soft cuttings',
  'bare-rooted in leaf',
] as const;
export type HoldCause = (typeof holdCauses)[number];

export const holdCovers = ['bag', 'dome', 'tent'] as const;
export type HoldCover = (typeof holdCovers)[number];

/** What may be seen or done on a day of a hold. */
export const holdNoteNames = ['flush', 'opened', 'light', 'wilted'] as const;
export type HoldNote = (typeof holdNoteNames)[number];

/** It is opened after two flushes, or after one and so many days. */
const GATE_FLUSHES = 2;
const GATE_DAYS = 21;
/** Daily steps from shut to off, and steps from shade to sun with the days between them. */
export const OPENINGS = 7;
export const LIGHT_STEPS = 3;
const LIGHT_DAYS = 3;
/** While it is shut it is looked into so often, days. */
const LOOK_DAYS = 4;

export interface HoldStep {
  on: EpochDay;
  what: HoldNote;
}

/** How far a hold has come on a day. */
export interface HoldState {
  phase: 'shut' | 'opening' | 'light' | 'through';
  flushes: number;
  /** Openings made, 0 … {@link OPENINGS}, and light steps, 0 … {@link LIGHT_STEPS}: less what wilting took back. */
  opened: number;
  light: number;
  /** What comes next, and from which day on. */
  next: { what: 'look' | 'open' | 'light' | 'end'; on: EpochDay };
  /** Whether the last thing noted is that they wilted. */
  wilted: boolean;
}

/**
 * Follows a hold through what was seen and done: shut until two flushes, or one and three weeks; then seven daily openings; then
 * shade to sun in three steps, three days apart. Wilting goes back a step, of the light first.
 * @param steps in any order; those after the day are left out
 * @throws Unfit for a step before it began
 */
export function holdState(begunOn: EpochDay, steps: readonly HoldStep[], day: EpochDay): HoldState {
  if (steps.some(({ on }) => on < begunOn))
    throw new Unfit(say`Nothing is noted of a day before the hold began.`);
  const known = steps.filter(({ on }) => on <= day).sort((a, b) => a.on - b.on);
  let [flushes, opened, light] = [0, 0, 0];
  for (const { what } of known) {
    if (what === 'flush') flushes++;
    else if (what === 'opened') opened = Math.min(OPENINGS, opened + 1);
    else if (what === 'light') light = Math.min(LIGHT_STEPS, light + 1);
    else if (light > 0) light--;
    else opened = Math.max(0, opened - 1);
  }
  const last = known[known.length - 1] ?? null;
  const wilted = last?.what === 'wilted';
  const since = last?.on ?? begunOn;
  // Leaves that are seen meanwhile do not put the next step off.
  const moved = known.findLast(({ what }) => what !== 'flush')?.on ?? begunOn;
  const of = { flushes, opened, light, wilted };
  if (opened >= OPENINGS && light >= LIGHT_STEPS)
    return { ...of, phase: 'through', next: { what: 'end', on: since } };
  if (opened >= OPENINGS) return { ...of, phase: 'light', next: { what: 'light', on: moved + LIGHT_DAYS } };
  const gate = flushes >= GATE_FLUSHES ? begunOn : flushes >= 1 ? begunOn + GATE_DAYS : null;
  if (opened > 0 || (gate !== null && gate <= day))
    // After wilting it rests a day longer.
    return {
      ...of,
      phase: 'opening',
      next: { what: 'open', on: opened > 0 || wilted ? moved + (wilted ? 2 : 1) : day },
    };
  return { ...of, phase: 'shut', next: { what: 'look', on: since + LOOK_DAYS } };
}

/**
 * Whether a step may be noted on a day.
 * @throws Unfit with a sentence where it may not: opened before the gate, to the light before it is open, twice a day
 */
export function mustBeStep(begunOn: EpochDay, steps: readonly HoldStep[], step: HoldStep): void {
  if (step.on < begunOn) throw new Unfit(say`Nothing is noted of a day before the hold began.`, 'on');
  const { phase } = holdState(begunOn, steps, step.on);
  if (step.what === 'opened' && phase === 'shut')
    throw new Unfit(
      say`It is opened once two flushes of leaves were seen, or one and three weeks have gone by.`,
      'what',
    );
  if (step.what === 'opened' && phase !== 'opening') throw new Unfit(say`It is quite open already.`, 'what');
  if (step.what === 'light' && phase !== 'light')
    throw new Unfit(say`It goes to more light once it is quite open.`, 'what');
  if (
    (step.what === 'opened' || step.what === 'light') &&
    steps.some(({ on, what }) => on === step.on && what === step.what)
  )
    throw new Unfit(say`One step a day: that day’s is written down already.`, 'what');
}
