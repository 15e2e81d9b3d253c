import type { EpochDay } from '../calendar/day';
import { dayAt21 } from '../medium/controlledRelease';
import type { SpeciesValues } from '../species/species';
import { sineAbove } from './degreeDays';
import type { Outlook } from './ensemble';
import { hoursBetween } from './hoursBetween';
import { waveAt, type Normals } from './normals';

/** Growth and root activity are counted above this, °C. */
export const GROWTH_BASE_C = 5;

/** A daily figure along an outlook: the past once, each coming year its own. */
export interface Daily {
  past: Float64Array;
  years: Float64Array[];
}

/** Daily warmth (°C·d above the base), chilling hours and mean temperature along an outlook. */
export interface Warmth extends Daily {
  asOf: EpochDay;
  pastStart: EpochDay;
  /** Mean of the coldest weeks of an ordinary year, °C. */
  coldestC: number;
  /** Warmth above 5 °C, whatever the base: what buds answer to. */
  above5: Daily;
  chillHours: Daily;
  meanC: Daily;
  /** Warmth added up: index t holds that of the first t days of the past, or of a coming year. */
  sums: Daily;
  /** Days at 21 °C that the days so far are worth to a coated feed, added up likewise. */
  feedSums: Daily;
}

/**
 * Works out the daily sums of an outlook once, for all lots under it.
 * @param ceilingC warmth above it adds nothing more
 */
export function warmthOf(outlook: Outlook, baseC = GROWTH_BASE_C, ceilingC = Infinity): Warmth {
  const daily = (figure: (tMinC: number, tMaxC: number) => number): Daily => {
    const over = (low: Float64Array, high: Float64Array) =>
      Float64Array.from(low, (tMinC, i) => figure(tMinC, high[i]));
    return {
      past: over(outlook.pastMinC, outlook.pastMaxC),
      years: outlook.years.map((year) => over(year.tMinC, year.tMaxC)),
    };
  };
  const above5 = daily((tMinC, tMaxC) => sineAbove(tMinC, tMaxC, GROWTH_BASE_C));
  const usual = baseC === GROWTH_BASE_C && ceilingC === Infinity;
  const warmth = usual
    ? above5
    : daily((tMinC, tMaxC) => sineAbove(tMinC, tMaxC, baseC) - sineAbove(tMinC, tMaxC, ceilingC));
  return {
    asOf: outlook.asOf,
    pastStart: outlook.pastStart,
    ...warmth,
    above5,
    coldestC: coldestOf(outlook.normals),
    sums: addedUp(warmth),
    feedSums: addedUp(daily((tMinC, tMaxC) => dayAt21((tMinC + tMaxC) / 2))),
    chillHours: daily((tMinC, tMaxC) => hoursBetween({ tMinC, tMaxC })),
    meanC: daily((tMinC, tMaxC) => (tMinC + tMaxC) / 2),
  };
}

/** Warmth for a species, whose base and ceiling need not be the usual ones; worked out once an outlook. */
const others = new WeakMap<Warmth, Map<string, Warmth>>();
export function warmthFor(
  {
    growthBaseC = GROWTH_BASE_C,
    growthCeilingC = Infinity,
  }: Pick<SpeciesValues, 'growthBaseC' | 'growthCeilingC'>,
  outlook: Outlook,
  usual: Warmth,
): Warmth {
  if (growthBaseC === GROWTH_BASE_C && growthCeilingC === Infinity) return usual;
  let kept = others.get(usual);
  if (!kept) others.set(usual, (kept = new Map()));
  const key = `${growthBaseC} ${growthCeilingC}`;
  let warmth = kept.get(key);
  if (!warmth) kept.set(key, (warmth = warmthOf(outlook, growthBaseC, growthCeilingC)));
  return warmth;
}

/** Mean of the coldest weeks by the normals, °C. */
function coldestOf(normals: Normals): number {
  let coldest = Infinity;
  for (let doy = 1; doy <= 365; doy += 7)
    coldest = Math.min(coldest, (waveAt(normals.tMinC, doy) + waveAt(normals.tMaxC, doy)) / 2);
  return coldest;
}

function addedUp({ past, years }: Daily): Daily {
  const cumulated = (days: Float64Array) => {
    const sums = new Float64Array(days.length + 1);
    for (let t = 0; t < days.length; t++) sums[t + 1] = sums[t] + days[t];
    return sums;
  };
  return { past: cumulated(past), years: years.map(cumulated) };
}

/** A daily figure on any day within an outlook, in one of its years. Days outside give the nearest edge. */
export function dailyOn(daily: Daily, { asOf, pastStart }: Warmth, year: number, day: EpochDay): number {
  if (day <= asOf) return daily.past[Math.max(0, day - pastStart)];
  const ahead = daily.years[year];
  return ahead[Math.min(ahead.length - 1, day - asOf - 1)];
}

/** Temperatures of any day within an outlook, in one of its years. Days outside give the nearest edge. */
export function tempsOn(outlook: Outlook, year: number, day: EpochDay): { tMinC: number; tMaxC: number } {
  if (day <= outlook.asOf) {
    const i = Math.max(0, day - outlook.pastStart);
    return { tMinC: outlook.pastMinC[i], tMaxC: outlook.pastMaxC[i] };
  }
  const i = Math.min(outlook.horizonDays - 1, day - outlook.asOf - 1);
  return { tMinC: outlook.years[year].tMinC[i], tMaxC: outlook.years[year].tMaxC[i] };
}

/** A day as the season ribbon draws it. */
export interface RibbonDay {
  warmth: number;
  chillHours: number;
  /** 1 or 0 for a recorded day, the share of years ahead. */
  frost: number;
  forecast: boolean;
}

/** Warmth, chill and frost for each day of a strip; days ahead are means over the ensemble. */
export function ribbonDays(outlook: Outlook, start: EpochDay, end: EpochDay): RibbonDay[] {
  const days: RibbonDay[] = [];
  for (let day = start; day <= end; day++) {
    const forecast = day > outlook.asOf;
    const members = forecast ? outlook.years.length : 1;
    let warmth = 0;
    let chillHours = 0;
    let frost = 0;
    for (let y = 0; y < members; y++) {
      const temps = tempsOn(outlook, y, day);
      warmth += sineAbove(temps.tMinC, temps.tMaxC, GROWTH_BASE_C) / members;
      chillHours += hoursBetween(temps) / members;
      frost += (temps.tMinC < 0 ? 1 : 0) / members;
    }
    days.push({ warmth, chillHours, frost, forecast });
  }
  return days;
}
