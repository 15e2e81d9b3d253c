import { bandOf, type Band, firstAtLeast } from '../chance/quantile';
import type { EpochDay } from '../calendar/day';
import { DAYS_PER_MONTH } from '../medium/controlledRelease';
import type { Warmth } from '../weather/sums';
import { homesOf } from './lotHomes';
import type { LotFacts } from './lotFacts';

/** Times the room a lot's cells have, by the last spreading or packing since it came to where it stands. */
export function apartAt(facts: LotFacts, day: EpochDay): number {
  const since = homesOf(facts).findLast((spell) => spell.from <= day)?.from ?? -Infinity;
  let apart = 1;
  for (const { day: on, done } of facts.care ?? []) {
    if (on > day || on < since) continue;
    if (done.what === 'spread') apart = done.apart;
    if (done.what === 'pack') apart = 1;
  }
  return apart;
}

/** The last time the top was pruned by a day, and to what height. */
export function lastPruned(facts: LotFacts, day: EpochDay): { day: EpochDay; toCm: number } | null {
  let last: { day: EpochDay; toCm: number } | null = null;
  for (const { day: on, done } of facts.care ?? [])
    if (done.what === 'prune' && on <= day && on >= (last?.day ?? -Infinity))
      last = { day: on, toCm: done.toCm };
  return last;
}

/**
 * Day on which the last rated feed given by the outlook's date has let go 80 % (its rated life at 21 °C), one day a
 * weather year; null where none was given.
 */
export function feedRunOut(facts: LotFacts, warmth: Warmth): Band | null {
  const given = (facts.care ?? []).findLast(
    ({ day, done }) => done.what === 'feed' && done.ratedMonths !== null && day <= warmth.asOf,
  );
  if (given?.done.what !== 'feed' || given.done.ratedMonths === null) return null;
  const needed = DAYS_PER_MONTH * given.done.ratedMonths;
  const { past, years } = warmth.feedSums;
  const before = past[Math.max(0, Math.min(past.length - 1, given.day - warmth.pastStart))];
  const soFar = past[past.length - 1] - before;
  if (soFar >= needed) {
    const day = warmth.pastStart + firstAtLeast(past, before + needed) - 1;
    return bandOf(Float64Array.of(day));
  }
  return bandOf(Float64Array.from(years, (ahead) => warmth.asOf + firstAtLeast(ahead, needed - soFar)));
}
