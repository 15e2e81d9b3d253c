import { dayOf, isoOf } from '../calendar/day';

/** Why a reading is doubted. It is kept as it came; sums leave it out. */
export const readingFlags = ['out of range', 'spike', 'stuck'] as const;
export type ReadingFlag = (typeof readingFlags)[number];

/** What a station says of one hour. Null where its sensor said nothing. */
export interface HourReading {
  /** Local time of the nursery, YYYY-MM-DDTHH: the hour that begins then. */
  hour: string;
  tempC: number | null;
  rainMm: number | null;
  /** Relative humidity, 0–1. */
  humidity: number | null;
  windMs: number | null;
}

const limits = {
  tempC: [-50, 55],
  rainMm: [0, 150],
  humidity: [0, 1.02],
  windMs: [0, 60],
} as const;
/** A temperature this far from both its neighbours, on the same side, is no weather, °C. */
const SPIKE_C = 8;
/** The very same temperature for so many hours is a sensor that has stopped. */
const STUCK_HOURS = 12;
/** Hours of good temperature that make a day. */
export const FEWEST_HOURS = 20;

/**
 * Looks readings over, oldest first: impossible values, lone jumps, and a temperature that does not move.
 * @param readings ascending by hour; gaps are hours left out
 * @returns a flag for each, null where nothing is wrong
 */
export function checkReadings(readings: readonly HourReading[]): (ReadingFlag | null)[] {
  const flags = readings.map((r): ReadingFlag | null => (impossible(r) ? 'out of range' : null));
  const good = readings.map((_, i) => i).filter((i) => flags[i] === null && readings[i].tempC !== null);
  for (let k = 1; k + 1 < good.length; k++) {
    const [before, here, after] = [good[k - 1], good[k], good[k + 1]];
    if (hoursApart(readings[before], readings[after]) > 6) continue;
    const up = readings[here].tempC! - readings[before].tempC!;
    const down = readings[here].tempC! - readings[after].tempC!;
    if (Math.sign(up) === Math.sign(down) && Math.min(Math.abs(up), Math.abs(down)) > SPIKE_C)
      flags[here] = 'spike';
  }
  for (let k = 0; k < good.length;) {
    let end = k + 1;
    while (end < good.length && readings[good[end]].tempC === readings[good[k]].tempC) end++;
    if (end - k >= STUCK_HOURS) for (let j = k; j < end; j++) flags[good[j]] = 'stuck';
    k = end;
  }
  return flags;
}

function impossible(reading: HourReading): boolean {
  return (Object.keys(limits) as (keyof typeof limits)[]).some((what) => {
    const value = reading[what];
    return value !== null && !(value >= limits[what][0] && value <= limits[what][1]);
  });
}

function hoursApart(a: HourReading, b: HourReading): number {
  const hours = ({ hour }: HourReading) => dayOf(hour.slice(0, 10)) * 24 + Number(hour.slice(11, 13));
  return hours(b) - hours(a);
}

/** A day as a station measured it. */
export interface StationDayRead {
  date: string;
  tMinC: number;
  tMaxC: number;
  rainMm: number | null;
  humidity: number | null;
  windMs: number | null;
}

export interface ReadDays {
  days: StationDayRead[];
  /** Days with too few good hours to be taken, and how many they had. */
  thin: { date: string; hours: number }[];
}

/** Adds hours up to days, doubted readings left out. A day of fewer than twenty good hours is not taken. */
export function daysFromReadings(
  readings: readonly HourReading[],
  flags: readonly (ReadingFlag | null)[],
): ReadDays {
  const byDay = new Map<string, HourReading[]>();
  readings.forEach((reading, i) => {
    const date = reading.hour.slice(0, 10);
    const kept = byDay.get(date) ?? [];
    if (flags[i] === null) kept.push(reading);
    byDay.set(date, kept);
  });
  const out: ReadDays = { days: [], thin: [] };
  for (const [date, hours] of [...byDay].sort(([a], [b]) => a.localeCompare(b))) {
    const values = (what: 'tempC' | 'rainMm' | 'humidity' | 'windMs') =>
      hours.map((h) => h[what]).filter((v): v is number => v !== null);
    const temps = values('tempC');
    if (temps.length < FEWEST_HOURS) {
      out.thin.push({ date, hours: temps.length });
      continue;
    }
    const rain = values('rainMm');
    out.days.push({
      date,
      tMinC: Math.min(...temps),
      tMaxC: Math.max(...temps),
      rainMm: rain.length < FEWEST_HOURS ? null : rain.reduce((t, v) => t + v, 0),
      humidity: mean(values('humidity')),
      windMs: mean(values('windMs')),
    });
  }
  return out;
}

function mean(values: readonly number[]): number | null {
  return values.length < FEWEST_HOURS ? null : values.reduce((t, v) => t + v, 0) / values.length;
}

/** Runs of days a record leaves out between two dates, both ends included. */
export function daysLeftOut(
  have: ReadonlySet<string>,
  from: string,
  to: string,
): { from: string; to: string; days: number }[] {
  const runs: { from: string; to: string; days: number }[] = [];
  for (let day = dayOf(from); day <= dayOf(to); day++) {
    const date = isoOf(day);
    if (have.has(date)) continue;
    const last = runs[runs.length - 1];
    if (last && dayOf(last.to) === day - 1) {
      last.to = date;
      last.days++;
    } else runs.push({ from: date, to: date, days: 1 });
  }
  return runs;
}
