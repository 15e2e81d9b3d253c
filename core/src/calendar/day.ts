import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { Temporal } from 'temporal-polyfill';

/**
 * A plain date as the number of days since 1970-01-01. The core computes with these; ISO dates
 * (`YYYY-MM-DD`) appear only at its edges. No time zone is involved: a day of work is a day.
 */
export type EpochDay = number;

const MS_PER_DAY = 86_400_000;

/**
 * The day number of an ISO date.
 * @throws Unfit with a sentence when the text is not a date that exists (30 Feb, 29 Feb of a common year).
 */
export function dayOf(iso: string): EpochDay {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(iso)) throw new Unfit(say`“${iso}” is not a date written as YYYY-MM-DD.`);
  const [y, m, d] = [Number(iso.slice(0, 4)), Number(iso.slice(5, 7)), Number(iso.slice(8, 10))];
  return dayFrom(y, m, d);
}

/** The day number of a year, month (1–12) and day of month. @throws Unfit when there is no such day. */
export function dayFrom(year: number, month: number, day: number): EpochDay {
  const ms = Date.UTC(year, month - 1, day);
  const back = new Date(ms);
  if (!(back.getUTCFullYear() === year && back.getUTCMonth() === month - 1 && back.getUTCDate() === day)) {
    throw new Unfit(say`There is no ${day}/${month} in the year ${year}.`);
  }
  return ms / MS_PER_DAY;
}

/** ISO date (`YYYY-MM-DD`) of a day number. */
export function isoOf(day: EpochDay): string {
  return new Date(Math.round(day) * MS_PER_DAY).toISOString().slice(0, 10);
}

/** Year, month (1–12) and day of month of a day number. */
export function partsOf(day: EpochDay): { year: number; month: number; day: number } {
  const date = new Date(Math.round(day) * MS_PER_DAY);
  return { year: date.getUTCFullYear(), month: date.getUTCMonth() + 1, day: date.getUTCDate() };
}

/** Day of the year, 1–366. */
export function dayOfYear(day: EpochDay): number {
  return day - dayFrom(partsOf(day).year, 1, 1) + 1;
}

/** The same month and day some years away; 29 February becomes the 28th where it has to. */
export function addYears(day: EpochDay, years: number): EpochDay {
  return dayOf(Temporal.PlainDate.from(isoOf(day)).add({ years }).toString());
}

/** Firsts of the months after a day, so many. */
export function firstsOfMonths(after: EpochDay, count: number): EpochDay[] {
  const { year, month } = partsOf(after);
  return Array.from({ length: count }, (_, i) =>
    dayFrom(year + Math.floor((month + i) / 12), ((month + i) % 12) + 1, 1),
  );
}

/** The Monday of the week a day lies in. */
export function mondayOf(day: EpochDay): EpochDay {
  return day - ((((Math.round(day) + 3) % 7) + 7) % 7);
}

/** Today's date on the wall calendar of a time zone, from an instant handed in. */
export function plainDateAt(instant: Date, timeZone: string): string {
  return Temporal.Instant.fromEpochMilliseconds(instant.getTime())
    .toZonedDateTimeISO(timeZone)
    .toPlainDate()
    .toString();
}

/** Whether a name is a time zone this machine knows. */
export function isTimeZone(name: string): boolean {
  try {
    Temporal.Instant.fromEpochMilliseconds(0).toZonedDateTimeISO(name);
    return true;
  } catch {
    return false;
  }
}
