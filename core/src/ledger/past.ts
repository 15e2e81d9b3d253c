import type { EpochDay } from '../calendar/day';

/** Days after its last tree left until a lot is of the past: a year and a season’s end, so that last year’s is at hand. */
export const PAST_AFTER_DAYS = 400;

/**
 * Whether a lot is of the past on a day: nothing of it is here, and its last movement lies so long back that neither what
 * is to be done nor last season’s figures ask for its records.
 * @param closedOn day of its last movement; null while anything of it is here
 */
export const isPast = (closedOn: EpochDay | null, day: EpochDay): boolean =>
  closedOn !== null && day - closedOn > PAST_AFTER_DAYS;
