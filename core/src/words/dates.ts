import { dayOf, mondayOf, partsOf, type EpochDay } from '../calendar/day';
import { say, speech, type Speech } from '../speech/say';

/*
 * British English is set as Kauri always set it; every other language as CLDR has it.
 */
const weekdays = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const MS_A_DAY = 86_400_000;

type Pattern = 'long' | 'longWithYear' | 'short' | 'shortWithYear' | 'monthAndYear' | 'month';
const date = { day: 'numeric', month: 'short' } as const;
const year = { year: 'numeric' } as const;
const patterns: Record<Pattern, Intl.DateTimeFormatOptions> = {
  long: { weekday: 'short', ...date },
  longWithYear: { weekday: 'short', ...date, ...year },
  short: date,
  shortWithYear: { ...date, ...year },
  monthAndYear: { month: 'short', ...year },
  month: { month: 'short' },
};
const formats = new WeakMap<Speech, Partial<Record<Pattern, Intl.DateTimeFormat>>>();

function inSpeech(day: EpochDay, pattern: Pattern): string {
  const now = speech();
  const made = formats.get(now) ?? {};
  formats.set(now, made);
  made[pattern] ??= new Intl.DateTimeFormat(now.tag, { ...patterns[pattern], timeZone: 'UTC' });
  return made[pattern].format(day * MS_A_DAY);
}
const isBritish = () => speech().tag === 'en-GB';

/** "Tue 24 Nov", with the year where it is not the one given. */
export function longDate(day: EpochDay, thisYear?: number): string {
  if (!Number.isFinite(day)) return say`beyond the forecast`;
  const whole = Math.round(day);
  if (isBritish()) return `${weekdays[whole - mondayOf(whole)]} ${shortDate(whole, thisYear)}`;
  return inSpeech(whole, otherYear(whole, thisYear) ? 'longWithYear' : 'long');
}

/** "24 Nov", with the year where it is not the one given. */
export function shortDate(day: EpochDay, thisYear?: number): string {
  if (!Number.isFinite(day)) return say`beyond the forecast`;
  const other = otherYear(day, thisYear);
  if (!isBritish()) return inSpeech(Math.round(day), other ? 'shortWithYear' : 'short');
  const { year, month, day: ofMonth } = partsOf(day);
  return `${ofMonth} ${months[month - 1]}${other ? ` ${year}` : ''}`;
}

const otherYear = (day: EpochDay, thisYear?: number) =>
  thisYear !== undefined && yearOf(Math.round(day)) !== thisYear;

/** "Nov 2026". */
export function monthWords(day: EpochDay): string {
  if (!isBritish()) return inSpeech(Math.round(day), 'monthAndYear');
  const { year, month } = partsOf(day);
  return `${months[month - 1]} ${year}`;
}

/** "Nov". @param month from 0, as a season's months are counted */
export function monthName(month: number): string {
  return isBritish() ? months[month] : inSpeech(dayOf('2025-01-15') + Math.round(month * 30.4), 'month');
}

export function yearOf(day: EpochDay): number {
  return partsOf(day).year;
}

/** An ISO date as words; the date itself if it cannot be read. */
export function dateWords(iso: string): string {
  const [year, month, day] = iso.split('-').map(Number);
  if (!months[month - 1]) return iso;
  if (!isBritish() && /^\d{4}-\d\d-\d\d$/.test(iso)) return inSpeech(dayOf(iso), 'shortWithYear');
  return `${day} ${months[month - 1]} ${year}`;
}
