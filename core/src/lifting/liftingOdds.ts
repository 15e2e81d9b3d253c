import type { EpochDay } from '../calendar/day';
import { bandOf, type Band } from '../chance/quantile';
import { liftingDays, unfitFor, type DaysAhead, type Hands, type UnfitFor } from './liftingDays';
import { liftingSchedule, type LiftingSchedule, type LotToLift } from './liftingSchedule';

/** What comes of lifting over the weather years. */
export interface LiftingOdds {
  /** Share of years in which all are done in time. */
  through: number;
  /** The same with one more pair of hands. */
  withOneMore: number;
  /** The same in the best order, with nothing moved by hand. */
  atBest: number;
  /** Share of days with people on which that keeps from lifting, over the years. */
  unfit: Record<UnfitFor, number>;
  lots: { id: string; chance: number; done: Band }[];
  /** What is done on which of the next days, if all of them are fit. */
  blocks: LiftingSchedule['blocks'];
  /** The days shown, with the hours people have. */
  days: { day: EpochDay; hours: number }[];
}

/** Days of work shown ahead. */
const SHOWN_DAYS = 14;
/** Days beyond the last lot's that are looked at, so that it is known how late one is. */
const BEYOND_DAYS = 60;

/**
 * Runs the lifting through every weather year: in how many all lots, and each, are done by their day.
 * @param years days after `asOf`
 */
export function liftingOdds(
  lots: readonly LotToLift[],
  hands: Hands,
  years: readonly DaysAhead[],
  asOf: EpochDay,
): LiftingOdds {
  const count = Math.max(1, Math.max(...lots.map(({ by }) => by), asOf + 1) - asOf + BEYOND_DAYS);
  const run = (some: Hands, list: readonly LotToLift[]) =>
    years.map((year) => liftingSchedule({ days: liftingDays(year, asOf, count, some), lots: list }));
  const inTime = (of: readonly LiftingSchedule[]) =>
    of.length ? of.filter(({ maxLateness }) => maxLateness <= 0).length / of.length : 0;
  const runs = run(hands, lots);
  const through = inTime(runs);
  const isMoved = lots.some(({ moved }) => moved !== undefined);
  const unmoved = () => lots.map((lot) => ({ ...lot, moved: undefined }));
  const worked = years.flatMap((year) =>
    liftingDays(year, asOf, count, { ...hands, people: 1, hoursADay: 1 }),
  );
  const withPeople = worked.filter(({ hours, unfit }) => hours > 0 || unfit);
  const unfitShare = (why: UnfitFor) =>
    withPeople.length ? withPeople.filter(({ unfit }) => unfit === why).length / withPeople.length : 0;
  const days = openDays(asOf, hands);
  return {
    through,
    withOneMore: inTime(run({ ...hands, people: hands.people + 1 }, lots)),
    atBest: isMoved ? inTime(run(hands, unmoved())) : through,
    unfit: Object.fromEntries(unfitFor.map((why) => [why, unfitShare(why)])) as Record<UnfitFor, number>,
    lots: lots.map(({ id, by }) => {
      const done = Float64Array.from(runs, ({ finishedOn }) => finishedOn[id] ?? Infinity);
      return {
        id,
        chance: done.length ? done.filter((day) => day <= by).length / done.length : 0,
        done: bandOf(done),
      };
    }),
    blocks: liftingSchedule({ days, lots }).blocks,
    days,
  };
}

/** The next days, all of them fit. */
function openDays(asOf: EpochDay, hands: Hands): { day: EpochDay; hours: number }[] {
  const mild = { tMinC: new Float64Array(SHOWN_DAYS).fill(5), tMaxC: new Float64Array(SHOWN_DAYS).fill(5) };
  return liftingDays(mild, asOf, SHOWN_DAYS, hands).map(({ day, hours }) => ({ day, hours }));
}
