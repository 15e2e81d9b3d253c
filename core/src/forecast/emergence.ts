import { autumnStart, heatStart } from '../calendar/season';
import { addYears, type EpochDay } from '../calendar/day';
import { normalQuantile } from '../chance/normal';
import { seededRandom, seedFrom, shuffledIndices } from '../chance/random';
import type { Warmth } from '../weather/sums';
import type { LotFacts } from './lotFacts';

/** When a lot comes up: seen, or forecast for every year of weather and every draw. */
export interface Emergence {
  seen: EpochDay | null;
  /** Day by run, index year·draws + draw; Infinity where it is beyond the horizon. */
  days: Float64Array;
}

/**
 * Day the warmth clock starts: sowing for seed that is ready; for fresh seed the end of the last winter
 * it must lie through.
 */
export function emergenceClock(facts: LotFacts, latitudeDeg: number): EpochDay {
  const winters = (facts.seedState === 'ready' ? 0 : facts.species.winters) + (facts.extraWinters ?? 0);
  if (winters === 0) return facts.sownOn;
  const firstAutumn = autumnStart(latitudeDeg, facts.sownOn + 120);
  const lastAutumn = addYears(firstAutumn, winters - 1);
  return Math.max(facts.sownOn, heatStart(latitudeDeg, lastAutumn));
}

export function emergenceOf(facts: LotFacts, latitudeDeg: number, warmth: Warmth, draws: number): Emergence {
  const runs = warmth.years.length * draws;
  const counts = facts.counts.filter((c) => c.day <= warmth.asOf).sort((a, b) => a.day - b.day);
  const up = counts.find((c) => c.count > 0);
  if (up) return { seen: up.day, days: new Float64Array(runs).fill(up.day) };

  const { median, sdLog } = facts.species.emergenceDd;
  const order = shuffledIndices(draws, seededRandom(seedFrom(facts.id)));
  const clock = emergenceClock(facts, latitudeDeg);
  const notBefore = counts.length ? counts[counts.length - 1].day + 1 : -Infinity;
  const days = new Float64Array(runs);
  for (let year = 0; year < warmth.years.length; year++) {
    for (let d = 0; d < draws; d++) {
      const needed = median * Math.exp(sdLog * normalQuantile((order[d] + 0.5) / draws));
      days[year * draws + d] = Math.max(notBefore, dayWarmthReaches(warmth, year, clock, needed));
    }
  }
  return { seen: null, days };
}

/** First day on which warmth since `from` reaches a sum; Infinity if not within the horizon. */
function dayWarmthReaches(warmth: Warmth, year: number, from: EpochDay, needed: number): EpochDay {
  let sum = 0;
  for (let day = Math.max(from, warmth.pastStart); day <= warmth.asOf; day++) {
    sum += warmth.past[day - warmth.pastStart];
    if (sum >= needed) return day;
  }
  const ahead = warmth.years[year];
  for (let i = Math.max(0, from - warmth.asOf - 1); i < ahead.length; i++) {
    sum += ahead[i];
    if (sum >= needed) return warmth.asOf + 1 + i;
  }
  return Infinity;
}
