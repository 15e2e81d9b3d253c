import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { guessDateOrder, readDate, readNumber, type DateOrder } from '../tabular/fields';

/** Which column of a station's table holds what, and in which unit. Columns count from 0. */
export interface StationColumns {
  date: number;
  tMin: number;
  tMax: number;
  rain: number | null;
  dateOrder: DateOrder;
  temperature: 'C' | 'F';
  rainUnit: 'mm' | 'in';
}

export interface StationDay {
  date: string;
  tMinC: number;
  tMaxC: number;
  rainMm: number | null;
}

/**
 * Guesses the columns of a station's table from its header and first rows.
 * @returns what could be told; a missing column is −1 for the grower to choose
 */
export function guessStationColumns(
  header: readonly string[],
  rows: readonly (readonly string[])[],
): StationColumns {
  const names = header.map((name) => name.toLowerCase());
  const find = (...patterns: RegExp[]) => {
    for (const pattern of patterns) {
      const at = names.findIndex((name) => pattern.test(name));
      if (at >= 0) return at;
    }
    return -1;
  };
  const tMin = find(/t.?min|min.*t|lowest|\blow?\b|night|^mn/, /min/);
  const tMax = find(/t.?max|max.*t|highest|\bhi(gh)?\b|^mx/, /max/);
  const rain = find(/rain|precip|prcp|^rr$|lluvia/);
  const date = find(/date|fecha|^day$|datum|time/);
  const samples = date >= 0 ? rows.map((row) => row[date] ?? '') : [];
  const hot = (at: number) => at >= 0 && rows.some((row) => safeNumber(row[at] ?? '') > 55);
  return {
    date,
    tMin,
    tMax,
    rain: rain >= 0 ? rain : null,
    dateOrder: guessDateOrder(samples) ?? 'iso',
    temperature:
      [tMin, tMax].some((at) => at >= 0 && /°?\bf\b|_f$|fahr/.test(names[at])) || hot(tMax) ? 'F' : 'C',
    rainUnit: rain >= 0 && /\bin\b|_in$|inch/.test(names[rain]) ? 'in' : 'mm',
  };
}

function safeNumber(text: string): number {
  try {
    return readNumber(text, '') ?? NaN;
  } catch {
    return NaN;
  }
}

/**
 * One line of a station's table as a day of weather.
 * @throws Unfit with a sentence for a value that is missing, unreadable or impossible
 */
export function readStationDay(row: readonly string[], columns: StationColumns): StationDay {
  const date = readDate(row[columns.date] ?? '', columns.dateOrder);
  const toC = (value: number) => (columns.temperature === 'F' ? ((value - 32) * 5) / 9 : value);
  const low = readNumber(row[columns.tMin] ?? '', say`Lowest temperature`);
  const high = readNumber(row[columns.tMax] ?? '', say`Highest temperature`);
  if (low === null || high === null) throw new Unfit(say`${date}: a temperature is missing.`);
  const tMinC = round(toC(low));
  const tMaxC = round(toC(high));
  for (const t of [tMinC, tMaxC]) {
    if (t < -60 || t > 60) throw new Unfit(say`${date}: ${t} °C is outside −60 to 60 °C.`);
  }
  if (tMinC > tMaxC)
    throw new Unfit(say`${date}: the lowest, ${tMinC} °C, is above the highest, ${tMaxC} °C.`);
  const wet = columns.rain === null ? null : readNumber(row[columns.rain] ?? '', say`Rain`);
  const rainMm = wet === null ? null : round(columns.rainUnit === 'in' ? wet * 25.4 : wet);
  if (rainMm !== null && (rainMm < 0 || rainMm > 600)) {
    throw new Unfit(say`${date}: rain of ${rainMm} mm is outside 0 to 600 mm a day.`);
  }
  return { date, tMinC, tMaxC, rainMm };
}

function round(value: number): number {
  return Math.round(value * 100) / 100;
}
