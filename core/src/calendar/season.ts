import { addYears, dayFrom, partsOf, type EpochDay } from './day';

/*
 * Seasons go by hemisphere, never by month number: every month below is the northern one and is
 * moved by half a year where the latitude is south of the equator.
 */

/** First of the northern month, or of the month half a year away in the south, in a given year. */
function firstOf(latitudeDeg: number, northMonth: number, year: number): EpochDay {
  const month = latitudeDeg >= 0 ? northMonth : ((northMonth + 5) % 12) + 1;
  return dayFrom(year, month, 1);
}

/** Firsts of months asked for before: forecasts ask for the same few over and over. */
const firsts = new Map<number, EpochDay>();
const MOST_FIRSTS = 20_000;

function lastFirstOf(latitudeDeg: number, northMonth: number, day: EpochDay): EpochDay {
  const key = (day * 12 + northMonth) * 2 + (latitudeDeg >= 0 ? 1 : 0);
  let known = firsts.get(key);
  if (known === undefined) {
    if (firsts.size >= MOST_FIRSTS) firsts.clear();
    firsts.set(key, (known = workOutFirst(latitudeDeg, northMonth, day)));
  }
  return known;
}

function workOutFirst(latitudeDeg: number, northMonth: number, day: EpochDay): EpochDay {
  const thisYear = firstOf(latitudeDeg, northMonth, partsOf(day).year);
  return thisYear <= day ? thisYear : addYears(thisYear, -1);
}

/** The latest start of autumn on or before a day: 1 November north, 1 May south (chilling counts from here). */
export function autumnStart(latitudeDeg: number, day: EpochDay): EpochDay {
  return lastFirstOf(latitudeDeg, 11, day);
}

/** The first start of autumn after a day: the end of the growing season it lies in. */
export function nextWinter(latitudeDeg: number, day: EpochDay): EpochDay {
  return autumnStart(latitudeDeg, autumnStart(latitudeDeg, day) + 380);
}

/** The latest 1 October (north) or 1 April (south) on or before a day: growth has stopped by then. */
export function growthStop(latitudeDeg: number, day: EpochDay): EpochDay {
  return lastFirstOf(latitudeDeg, 10, day);
}

/** Midwinter plus one month following a start of autumn: 21 January north, 21 July south. Heat counts from here. */
export function heatStart(latitudeDeg: number, autumn: EpochDay): EpochDay {
  const year = partsOf(autumn).year;
  return latitudeDeg >= 0 ? dayFrom(year + 1, 1, 21) : dayFrom(year, 7, 21);
}

/** Nearer the equator than this seed ripens at any time of the year, degrees. */
const TROPICS_DEG = 23.4;

/**
 * Whether seed of the year that sleeps until winter wakes it is still fresh on a day, and has a winter before it: from 1 August to
 * 21 January north, half a year on in the south, all year in the tropics. A rule of thumb: kinds ripen weeks apart.
 */
export function isSeedOfAutumn(latitudeDeg: number, day: EpochDay): boolean {
  if (Math.abs(latitudeDeg) < TROPICS_DEG) return true;
  const ripens = lastFirstOf(latitudeDeg, 8, day);
  return day < heatStart(latitudeDeg, nextWinter(latitudeDeg, ripens));
}

/** Day of the month on which spring is taken to begin beds: the usual of temperate yards. */
const SPRING_DAY = 15;

/**
 * The day that growing in the open usually begins, on or after a day: mid-April north, mid-October south; in the tropics, where no
 * season holds it back, that day itself. Only a beginning: whoever asks says another.
 */
export function usualSowing(latitudeDeg: number, from: EpochDay): EpochDay {
  if (Math.abs(latitudeDeg) < TROPICS_DEG) return from;
  const on = (year: number) => dayFrom(year, latitudeDeg >= 0 ? 4 : 10, SPRING_DAY);
  const { year } = partsOf(from);
  return on(year) >= from ? on(year) : on(year + 1);
}

/**
 * The strip of the year a nursery looks at around a day: from midwinter's new month (1 January north,
 * 1 July south) through to the end of the following winter, fifteen months, so that a lifting window
 * is never cut in two.
 */
export function seasonStrip(latitudeDeg: number, day: EpochDay): { start: EpochDay; end: EpochDay } {
  const start = lastFirstOf(latitudeDeg, 1, day);
  return { start, end: firstOf(latitudeDeg, 4, partsOf(start).year + 1) - 1 };
}
