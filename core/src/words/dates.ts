import { mondayOf, partsOf, type EpochDay } from '../calendar/day';

const weekdays = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
export const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** "Tue 24 Nov", with the year where it is not the one given. */
export function longDate(day: EpochDay, thisYear?: number): string {
  if (!Number.isFinite(day)) return 'beyond the forecast';
  const whole = Math.round(day);
  return `${weekdays[whole - mondayOf(whole)]} ${shortDate(whole, thisYear)}`;
}

/** "24 Nov", with the year where it is not the one given. */
export function shortDate(day: EpochDay, thisYear?: number): string {
  if (!Number.isFinite(day)) return 'beyond the forecast';
  const { year, month, day: date } = partsOf(day);
  return `${date} ${months[month - 1]}${thisYear !== undefined && year !== thisYear ? ` ${year}` : ''}`;
}

/** "Nov 2026". */
export function monthWords(day: EpochDay): string {
  const { year, month } = partsOf(day);
  return `${months[month - 1]} ${year}`;
}

export function yearOf(day: EpochDay): number {
  return partsOf(day).year;
}

/** An ISO date as words; the date itself if it cannot be read. */
export function dateWords(iso: string): string {
  const [year, month, day] = iso.split('-').map(Number);
  return months[month - 1] ? `${day} ${months[month - 1]} ${year}` : iso;
}
