import { dayFrom, dayOf, isoOf, partsOf, type EpochDay } from '../calendar/day';
import { say, speech } from '../speech/say';
import { Unfit } from '../working/unfit';
import { dateWords, shortDate } from './dates';

/** Letters as they are compared: small, without accents. */
const plain = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

interface Calendar {
  /** Names of the months, January first. */
  names: readonly string[];
  /** Whether the month is written before the day. */
  isMonthFirst: boolean;
}
const calendars = new Map<string, Calendar>();
function calendarOf(tag: string): Calendar {
  const known = calendars.get(tag);
  if (known) return known;
  const month = new Intl.DateTimeFormat(tag, { month: 'long', timeZone: 'UTC' });
  const order = new Intl.DateTimeFormat(tag).formatToParts(0).map(({ type }) => type);
  const made = {
    names: Array.from({ length: 12 }, (_, i) => plain(month.format(Date.UTC(2025, i, 15)))),
    isMonthFirst: order.indexOf('month') < order.indexOf('day'),
  };
  calendars.set(tag, made);
  return made;
}

const LETTERS_OF_A_MONTH = 3;
/** A month (1–12) by the beginning of its name in the language spoken or in English; 0 for any other word. */
function monthNamed(word: string): number {
  if (word.length < LETTERS_OF_A_MONTH) return 0;
  for (const tag of [speech().tag, 'en-GB']) {
    const at = calendarOf(tag).names.findIndex((name) => name.startsWith(word));
    if (at >= 0) return at + 1;
  }
  return 0;
}

/**
 * A day as people write one: “2026-11-24”, “24 Nov”, “24.11.”, “11/24/26” where the month comes first, “today”, “-3” for three
 * days ago. Without its year it is the one nearest to today.
 * @returns null for nothing typed
 * @throws Unfit with a sentence for what is no day, or none that exists
 */
export function readDay(typed: string, today: EpochDay): EpochDay | null {
  const text = plain(typed.trim());
  if (text === '') return null;
  const named = [say`yesterday`, say`today`, say`tomorrow`].map(plain).indexOf(text);
  if (named >= 0) return today + named - 1;
  const away = /^([-+−])(\d{1,4})$/.exec(text);
  if (away) return today + (away[1] === '+' ? 1 : -1) * Number(away[2]);
  const digits: string[] = text.match(/\d+/g) ?? [];
  const month = (text.match(/\p{L}+/gu) ?? []).map(monthNamed).findLast((at) => at > 0);
  const isWritten = month ? digits.length >= 1 : /^\d+[-/. ]+\d+([-/. ]+\d+)?[-/. ]*$/.test(text);
  if (!isWritten || digits.length > (month ? 2 : 3)) throw notADay(typed, today);
  const figures = digits.map(Number);
  if (digits[0].length === 4) {
    const [year] = figures;
    const day = figures[month ? 1 : 2];
    if (day === undefined || !isYear(year)) throw notADay(typed, today);
    return dayFrom(year, month ?? figures[1], day);
  }
  const [day, at] = month
    ? [figures[0], month]
    : calendarOf(speech().tag).isMonthFirst
      ? [figures[1], figures[0]]
      : figures;
  const year = digits[month ? 1 : 2];
  if (year === undefined) return nearest(at, day, today);
  const full = year.length === 2 ? 2000 + Number(year) : Number(year);
  // A year half typed is none: what is worked out from a day would begin with the Romans.
  if (!isYear(full)) throw notADay(typed, today);
  return dayFrom(full, at, day);
}

const isYear = (year: number) => year >= 1900 && year <= 2200;

/** A day of the year nearest to today, of the years that have it. */
function nearest(month: number, day: number, today: EpochDay): EpochDay {
  const { year } = partsOf(today);
  const found = [year - 1, year, year + 1].flatMap((of) => {
    try {
      return [dayFrom(of, month, day)];
    } catch {
      return [];
    }
  });
  if (!found.length) return dayFrom(year, month, day);
  return found.reduce((best, one) => (Math.abs(one - today) < Math.abs(best - today) ? one : best));
}

const notADay = (typed: string, today: EpochDay) =>
  new Unfit(
    say`“${typed.trim()}” is not a day. Write it as ${shortDate(today)}, or ${dateWords(isoOf(today))}.`,
  );

/** A day as it stands in a field: with its year; as typed where it is none. */
export const dayInField = (iso: string): string => (isDay(iso) ? dateWords(iso) : iso);
function isDay(iso: string): boolean {
  try {
    return Number.isFinite(dayOf(iso));
  } catch {
    return false;
  }
}
