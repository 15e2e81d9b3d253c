import { mondayOf, type EpochDay } from '../calendar/day';
import { airAtMidday, dryingMinutes } from '../weather/vapour';
import type { LiftingDay } from './liftingSchedule';

/** People there are for lifting. */
export interface Hands {
  people: number;
  hoursADay: number;
  /** Monday 0 to Sunday 6. */
  weekdays: readonly number[];
}

/** Days of one way the weather may go on. */
export interface DaysAhead {
  tMinC: ArrayLike<number>;
  tMaxC: ArrayLike<number>;
  /** NaN or left out where nobody knows. */
  rainMm?: ArrayLike<number>;
}

/** The medium of a bed is taken to be frozen after so many days whose mean lies below 0 °C together; a rule of thumb. */
export const FROZEN_AFTER_DAYS = 3;
/** Rain of a day from which nobody lifts, mm; a rule of thumb. */
export const DOWNPOUR_MM = 20;
/** Where bare roots stand less than this at midday, lifting is for the morning and the evening; a rule of thumb. */
export const DRYING_MINUTES = 10;
/** Share of a day that is left then. */
const DRY_DAY_SHARE = 0.5;

/** What keeps from lifting on a day. */
export const unfitFor = ['frozen', 'downpour', 'drying'] as const;
export type UnfitFor = (typeof unfitFor)[number];

/** Monday 0 to Sunday 6. */
const weekdayOf = (day: EpochDay): number => day - mondayOf(day);

/** What keeps from lifting on a day of those ahead; null where nothing does. Frost and downpours stop it, drying air halves it. */
function hindrance({ tMinC, tMaxC, rainMm }: DaysAhead, i: number): UnfitFor | null {
  const first = Math.max(0, i - FROZEN_AFTER_DAYS + 1);
  let sum = 0;
  for (let k = first; k <= i; k++) sum += (tMinC[k] + tMaxC[k]) / 2;
  if (sum / (i - first + 1) < 0) return 'frozen';
  if (rainMm && rainMm[i] >= DOWNPOUR_MM) return 'downpour';
  const air = airAtMidday({ tMinC: Math.min(tMinC[i], tMaxC[i]), tMaxC: tMaxC[i] });
  return dryingMinutes(air) < DRYING_MINUTES ? 'drying' : null;
}

/**
 * Hours of each day from a day on in one weather year: none on days off, while the medium is frozen or in a downpour, half where
 * the air dries bare roots too fast at midday.
 * @param ahead the day after `asOf` and the days that follow
 */
export function liftingDays(
  ahead: DaysAhead,
  asOf: EpochDay,
  count: number,
  { people, hoursADay, weekdays }: Hands,
): (LiftingDay & { unfit: UnfitFor | null })[] {
  const share = { frozen: 0, downpour: 0, drying: DRY_DAY_SHARE } satisfies Record<UnfitFor, number>;
  return Array.from({ length: Math.min(count, ahead.tMinC.length) }, (_, i) => {
    const day = asOf + 1 + i;
    if (!weekdays.includes(weekdayOf(day))) return { day, hours: 0, unfit: null };
    const unfit = hindrance(ahead, i);
    return { day, hours: people * hoursADay * (unfit ? share[unfit] : 1), unfit };
  });
}
