import type { EpochDay } from './day';

/** When an act is due. */
export type When = 'now' | 'week' | 'weeks' | 'watch';

/** How pressing a last day is, seen from a date. */
export function whenFor(by: EpochDay, today: EpochDay): When {
  if (by <= today) return 'now';
  if (by <= today + 7) return 'week';
  if (by <= today + 28) return 'weeks';
  return 'watch';
}
