import { firstsOfMonths, monthName, partsOf, say, type EpochDay } from '@kauri/core';
import { longDate, shortDate, yearOf } from '../../words/dates';
import type { Axis } from './chart';

/** Most labels along the days. */
const MOST = 10;
/** Up to this long its days are labelled by date, longer by month. */
const SHORT_DAYS = 110;

/** Days across: dates where they are few, months where they are many, years at each January. */
export function dayAxis(from: EpochDay, to: EpochDay, today: EpochDay): Axis {
  const tell = (day: number) => longDate(Math.round(day), yearOf(today));
  const name = say`Day`;
  if (to - from <= SHORT_DAYS) {
    const every = to - from > 60 ? 14 : 7;
    const at = Array.from({ length: Math.floor((to - from) / every) }, (_, i) => from + 3 + i * every);
    return { from, to, name, tell, ticks: at.map((day) => ({ at: day, words: shortDate(day) })) };
  }
  const months = firstsOfMonths(from, Math.ceil((to - from) / 30) + 1).filter(
    (day) => day >= from && day <= to,
  );
  // A season, half a year or a whole one between labels keeps each January among them.
  const every = [1, 2, 3, 6, 12, 24].find((n) => months.length / n <= MOST) ?? 60;
  const ticks = months
    .map((at) => ({ at, ...partsOf(at) }))
    .filter(({ year, month }) => (year * 12 + month - 1) % every === 0)
    .map(({ at, year, month }) => ({ at, words: month === 1 ? String(year) : monthName(month - 1) }));
  return { from, to, name, tell, ticks };
}

/** Shares or chances up, 0 to 1. */
export function shareAxis(name: string, ticks: readonly number[], tell: (share: number) => string): Axis {
  return { from: 0, to: 1, name, tell, ticks: ticks.map((at) => ({ at, words: tell(at) })) };
}
