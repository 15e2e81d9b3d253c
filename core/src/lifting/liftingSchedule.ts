import { say } from '../speech/say';
import { mondayOf, type EpochDay } from '../calendar/day';
import { bandOf, type Band } from '../chance/quantile';
import { Unfit } from '../working/unfit';

/** Hours of work that a day has for lifting. */
export interface LiftingDay {
  day: EpochDay;
  hours: number;
}

/** A lot to be lifted: its work, and the first and the last day on which it may be. */
export interface LotToLift {
  id: string;
  hours: number;
  from: EpochDay;
  by: EpochDay;
}

/** In what order lots are lifted. */
export interface LiftingSchedule {
  /** Day each is done; missing where the days do not reach. */
  finishedOn: Record<string, EpochDay>;
  /** Days by which the latest is done too late; below 0 where all are in time, Infinity where one is never done. */
  maxLateness: number;
  /** What is done on which day. */
  blocks: { day: EpochDay; id: string; hours: number }[];
}

/** Monday 0 to Sunday 6. */
const weekdayOf = (day: EpochDay): number => day - mondayOf(day);

/** Hours smaller than this are none. */
const NONE = 1e-9;

/**
 * Lots lifted day by day: of those that may be lifted, the one that must be done first; work may be divided over days. No other
 * order has a smaller greatest lateness (Horn 1974, Naval Research Logistics Quarterly 21:177).
 * @param days in their order
 * @throws Unfit for work or a day of hours below 0
 */
export function liftingSchedule({
  days,
  lots,
}: {
  days: readonly LiftingDay[];
  lots: readonly LotToLift[];
}): LiftingSchedule {
  if (lots.some(({ hours }) => !(hours >= 0)) || days.some(({ hours }) => !(hours >= 0)))
    throw new Unfit(say`Work and the hours of a day are 0 or more.`);
  const left = lots.map((lot) => ({ ...lot })).sort((a, b) => a.by - b.by || a.from - b.from);
  const finishedOn: Record<string, EpochDay> = {};
  const blocks: LiftingSchedule['blocks'] = [];
  for (const { day, hours } of days) {
    let free = hours;
    for (const lot of left) {
      if (free <= NONE) break;
      if (lot.id in finishedOn || lot.from > day) continue;
      const done = Math.min(free, lot.hours);
      free -= done;
      lot.hours -= done;
      blocks.push({ day, id: lot.id, hours: done });
      if (lot.hours <= NONE) finishedOn[lot.id] = day;
    }
  }
  const lateness = lots.map(({ id, by }) => (finishedOn[id] ?? Infinity) - by);
  return { finishedOn, maxLateness: Math.max(...lateness), blocks };
}

/** People there are for lifting. */
export interface Hands {
  people: number;
  hoursADay: number;
  /** Monday 0 to Sunday 6. */
  weekdays: readonly number[];
}

/** The medium of a bed is taken to be frozen after so many days whose mean lies below 0 °C together; a rule of thumb. */
export const FROZEN_AFTER_DAYS = 3;

/**
 * Hours of each day from a day on in one weather year: none on days off, and none while the medium is frozen.
 * @param tMinC of the day after `asOf` and the days that follow; likewise tMaxC, °C
 */
export function liftingDays(
  { tMinC, tMaxC }: { tMinC: ArrayLike<number>; tMaxC: ArrayLike<number> },
  asOf: EpochDay,
  count: number,
  { people, hoursADay, weekdays }: Hands,
): LiftingDay[] {
  const mean = (i: number) => (tMinC[i] + tMaxC[i]) / 2;
  return Array.from({ length: Math.min(count, tMinC.length) }, (_, i): LiftingDay => {
    const day = asOf + 1 + i;
    const first = Math.max(0, i - FROZEN_AFTER_DAYS + 1);
    let sum = 0;
    for (let k = first; k <= i; k++) sum += mean(k);
    const isFrozen = sum / (i - first + 1) < 0;
    return { day, hours: isFrozen || !weekdays.includes(weekdayOf(day)) ? 0 : people * hoursADay };
  });
}

/** What comes of lifting over the weather years. */
export interface LiftingOdds {
  /** Share of years in which all are done in time. */
  through: number;
  /** The same with one more pair of hands. */
  withOneMore: number;
  /** Share of days with people on which the medium is frozen, over the years. */
  frozen: number;
  lots: { id: string; chance: number; done: Band }[];
  /** What is done on which of the next days, if none of them is frozen. */
  blocks: LiftingSchedule['blocks'];
}

/** Days of work shown ahead. */
const SHOWN_DAYS = 14;

/**
 * Runs the lifting through every weather year: in how many all lots, and each, are done by their day.
 * @param years days after `asOf`
 */
export function liftingOdds(
  lots: readonly LotToLift[],
  hands: Hands,
  years: readonly { tMinC: ArrayLike<number>; tMaxC: ArrayLike<number> }[],
  asOf: EpochDay,
): LiftingOdds {
  const count = Math.max(1, Math.max(...lots.map(({ by }) => by), asOf + 1) - asOf + 60);
  const run = (some: Hands) =>
    years.map((year) => liftingSchedule({ days: liftingDays(year, asOf, count, some), lots }));
  const runs = run(hands);
  const inTime = (of: readonly LiftingSchedule[]) =>
    of.length ? of.filter(({ maxLateness }) => maxLateness <= 0).length / of.length : 0;
  const open = liftingDays(
    { tMinC: new Float64Array(SHOWN_DAYS).fill(5), tMaxC: new Float64Array(SHOWN_DAYS).fill(5) },
    asOf,
    SHOWN_DAYS,
    hands,
  );
  const worked = years.flatMap((year) =>
    liftingDays(year, asOf, count, hands).filter(({ day }) => hands.weekdays.includes(weekdayOf(day))),
  );
  return {
    through: inTime(runs),
    withOneMore: inTime(run({ ...hands, people: hands.people + 1 })),
    frozen: worked.length ? worked.filter(({ hours }) => hours === 0).length / worked.length : 0,
    lots: lots.map(({ id, by }) => {
      const done = Float64Array.from(runs, ({ finishedOn }) => finishedOn[id] ?? Infinity);
      return {
        id,
        chance: done.length ? done.filter((day) => day <= by).length / done.length : 0,
        done: bandOf(done),
      };
    }),
    blocks: liftingSchedule({ days: open, lots }).blocks,
  };
}
