import { dayOf, type EpochDay } from '@kauri/core';
import { several } from '../../words/numbers';

/** How long ago a day was: “today”, “1 day”, “12 days”. */
export function daysBetweenWords(since: string, today: EpochDay): string {
  const days = today - dayOf(since);
  return days <= 0 ? 'today' : `${several(days, 'day')} ago`;
}
