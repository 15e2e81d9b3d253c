import { dayOf, isoOf } from '@kauri/core';

/** How long copies are kept: every night of a week, a Sunday's of five weeks, a month's first of a year. */
const NIGHTS = 7;
const WEEKS = 5;
const MONTHS = 12;
const SUNDAY_PHASE = 3; // 1970-01-04, day 3, was a Sunday.

const isSunday = (day: number) => (((day - SUNDAY_PHASE) % 7) + 7) % 7 === 0;

/**
 * Which copies may go, of those there are.
 * @param copies the dates of copies there are, YYYY-MM-DD
 * @param today the date it is
 * @returns the dates no rule keeps; the newest copy is always kept, and what bears a date to come
 */
export function copiesToDrop(copies: readonly string[], today: string): string[] {
  const now = dayOf(today);
  const newest = copies.reduce((last, on) => (on > last ? on : last), '');
  // The first copy of each month stands for it, though the night of the first was missed.
  const firsts = new Set(
    new Map(
      [...copies]
        .sort()
        .reverse()
        .map((on): [string, string] => [on.slice(0, 7), on]),
    ).values(),
  );
  const monthsAgo = (on: string) =>
    (Number(today.slice(0, 4)) - Number(on.slice(0, 4))) * 12 +
    Number(today.slice(5, 7)) -
    Number(on.slice(5, 7));
  return copies.filter((on) => {
    const age = now - dayOf(on);
    const isKept =
      on === newest ||
      age < NIGHTS ||
      (isSunday(dayOf(on)) && age < WEEKS * 7) ||
      (firsts.has(on) && monthsAgo(on) < MONTHS);
    return !isKept;
  });
}

const COPY = /^kauri-(\d{4}-\d{2}-\d{2})\.backup$/;

/** The name of a night's copy. */
export const copyName = (on: string): string => `kauri-${on}.backup`;

/** The date of a copy by its file's name; null for any other file, which is left alone. */
export function copyDate(file: string): string | null {
  const on = COPY.exec(file)?.[1];
  try {
    return on === undefined ? null : isoOf(dayOf(on));
  } catch {
    return null;
  }
}
