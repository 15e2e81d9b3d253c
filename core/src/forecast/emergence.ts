import { say } from '../speech/say';
import type { EpochDay } from '../calendar/day';
import { normalQuantile } from '../chance/normal';
import { firstAtLeast } from '../chance/quantile';
import { seededRandom, seedFrom, shuffledIndices } from '../chance/random';
import { wakeTables } from '../seed/waking';
import { wakingGroups, type Waking } from '../species/waking';
import type { Spread } from '../chance/spread';
import type { Warmth } from '../weather/sums';
import type { LotFacts } from './lotFacts';

/** When a lot comes up: seen, or forecast for every year of weather and every draw. */
export interface Emergence {
  seen: EpochDay | null;
  /** Day by run, index year·draws + draw; Infinity where it is beyond the horizon. */
  days: Float64Array;
  /** The same before counts of none were taken in: what nine in ten of ordinary lots have done by. */
  usual: Float64Array;
}

/** In the ground a day's range is damped to about this half, °C. */
const GROUND_SWING_C = 2;
/** Of the warmth from sowing to half up, what is left once the radicle is out. */
const SHOOT_SHARE = 0.6;
/** Candidates drawn for each run, from which those stay that counts of none leave possible. */
const CANDIDATES = 4;
/** Depths of lots at which fresh seed is followed, in standard deviations between lots. */
const DEPTH_Z = [-1.8, -1.1, -0.55, 0, 0.55, 1.1, 1.8];

/**
 * Forecast of a lot's coming up: warmth from sowing for seed that is ready; for fresh seed, cold and warmth as its kind
 * wakes, then the shoot's warmth. A count of none leaves only what would not have come up by then.
 */
export function emergenceOf(facts: LotFacts, warmth: Warmth, draws: number): Emergence {
  const years = warmth.years.length;
  const counts = facts.counts.filter((c) => c.day <= warmth.asOf).sort((a, b) => a.day - b.day);
  const up = counts.find((c) => c.count > 0);
  if (up) {
    const days = new Float64Array(years * draws).fill(up.day);
    return { seen: up.day, days, usual: days };
  }
  const many = draws * CANDIDATES;
  const candidates = emergenceDays(facts, warmth, many);
  const none = counts.length ? counts[counts.length - 1].day : -Infinity;
  const days = new Float64Array(years * draws);
  const usual = new Float64Array(years * draws);
  for (let year = 0; year < years; year++) {
    const all = candidates.subarray(year * many, (year + 1) * many);
    const left = all.filter((day) => day > none);
    // Where hardly any lot of its kind would still be asleep, the few that would are believed, from the next day on.
    const from = left.length ? left : Float64Array.of(none + 1);
    from.sort();
    const sorted = Float64Array.from(all).sort();
    for (let d = 0; d < draws; d++) {
      const level = (d + 0.5) / draws;
      days[year * draws + d] = from[Math.floor(level * from.length)];
      usual[year * draws + d] = sorted[Math.floor(level * many)];
    }
  }
  // Draws of other things are paired with early and late ones alike.
  const order = shuffledIndices(draws, seededRandom(seedFrom(facts.id)));
  const mixed = Float64Array.from(days, (_, i) => days[i - (i % draws) + order[i % draws]]);
  return { seen: null, days: mixed, usual };
}

/** Days of coming up over the years and so many draws of lots. */
function emergenceDays(facts: LotFacts, warmth: Warmth, many: number): Float64Array {
  const { median, sdLog } = facts.species.emergenceDd;
  const years = warmth.years.length;
  const random = seededRandom(seedFrom(say`${facts.id} up`));
  const strata = () => shuffledIndices(many, random).map((i) => normalQuantile((i + 0.5) / many));
  const warmthZ = strata();
  const days = new Float64Array(years * many);
  const fresh = freshSeed(facts);
  if (!fresh) {
    for (let year = 0; year < years; year++)
      for (let c = 0; c < many; c++)
        days[year * many + c] = dayWarmthReaches(
          warmth,
          year,
          facts.sownOn,
          median * Math.exp(sdLog * warmthZ[c]),
        );
    return days;
  }
  const depthOf = shuffledIndices(many, random).map((i) => i % DEPTH_Z.length);
  const heatZ = strata();
  const deeper = Math.log(1 + (facts.extraWinters ?? 0));
  const tables = freshTables(facts.sownOn, fresh, warmth, deeper);
  for (let year = 0; year < years; year++) {
    const heats = tables[year];
    for (let c = 0; c < many; c++) {
      const need = Math.exp(fresh.lotSdHeat * heatZ[c]);
      const radicle = tableStart(facts, warmth) + firstAtLeast(heats[depthOf[c]], need);
      days[year * many + c] = Number.isFinite(radicle)
        ? dayWarmthReaches(warmth, year, radicle, SHOOT_SHARE * median * Math.exp(sdLog * warmthZ[c]))
        : Infinity;
    }
  }
  return days;
}

/** How fresh seed of a lot wakes; null for seed that is ready, or of a kind that sleeps no more than it takes to sprout. */
function freshSeed(facts: LotFacts): Waking | null {
  if (facts.seedState === 'ready' && !facts.extraWinters) return null;
  const waking = facts.waking ?? wakingGroups[facts.species.winters > 1 ? 'hawthorns' : 'rowans'];
  return waking.warmDays + waking.chillDays > 0 || waking.dormantLog > 0 ? waking : null;
}

/** Day of the first row of a course. */
const tableStart = ({ sownOn }: LotFacts, { pastStart }: Warmth): EpochDay => Math.max(sownOn, pastStart);

/** Courses of fresh seed, by weather year and depth, are the same for lots of a kind sown on a day. */
const coursesOfSeed = new WeakMap<Warmth, Map<string, Float64Array[][]>>();
function freshTables(sownOn: EpochDay, waking: Waking, warmth: Warmth, deeper: number): Float64Array[][] {
  let kept = coursesOfSeed.get(warmth);
  if (!kept) coursesOfSeed.set(warmth, (kept = new Map()));
  const key = `${sownOn} ${deeper} ${JSON.stringify(waking)}`;
  let heats = kept.get(key);
  if (!heats) {
    const { past, years } = warmth.meanC;
    // Seed from before the weather that is known is taken to have lain in the first of it.
    const start = Math.max(sownOn, warmth.pastStart);
    const means = years.map((ahead) => {
      const known = past.subarray(Math.max(0, start - warmth.pastStart), warmth.asOf - warmth.pastStart + 1);
      return Float64Array.of(...known, ...ahead.subarray(Math.max(0, start - warmth.asOf - 1)));
    });
    const depths = DEPTH_Z.map((z) => deeper + waking.lotSdDepth * z);
    heats = wakeTables(means, GROUND_SWING_C, waking, depths, Math.exp(4 * waking.lotSdHeat)).map(
      ({ heat }) => heat,
    );
    kept.set(key, heats);
  }
  return heats;
}

/**
 * Day the shoots' warmth of a lot is counted from: sowing for seed that is ready; for fresh seed the day the middle seed's
 * radicle is out, in the middle weather year.
 */
export function emergenceClock(facts: LotFacts, warmth: Warmth): EpochDay {
  const fresh = freshSeed(facts);
  if (!fresh) return facts.sownOn;
  const deeper = Math.log(1 + (facts.extraWinters ?? 0));
  const days = freshTables(facts.sownOn, fresh, warmth, deeper).map(
    (heats) => tableStart(facts, warmth) + firstAtLeast(heats[(DEPTH_Z.length - 1) / 2], 1),
  );
  const middle = days.sort((a, b) => a - b)[Math.floor((days.length - 1) / 2)];
  return Number.isFinite(middle) ? middle : warmth.asOf + warmth.years[0].length;
}

/** Warmth from the clock's start to half up: what is left of it for fresh seed, whose own radicles spread wider. */
export function shootWarmth(facts: LotFacts): Spread {
  const { median, sdLog } = facts.species.emergenceDd;
  return freshSeed(facts)
    ? { median: SHOOT_SHARE * median, sdLog: Math.hypot(sdLog, 0.3) }
    : { median, sdLog };
}

/** First day on which warmth since `from` reaches a sum; Infinity if not within the horizon. */
function dayWarmthReaches(
  { sums, asOf, pastStart }: Warmth,
  year: number,
  from: EpochDay,
  needed: number,
): EpochDay {
  const { past } = sums;
  const ahead = sums.years[year];
  const pastEnd = past[past.length - 1];
  const start =
    from <= asOf
      ? past[Math.max(0, from - pastStart)]
      : pastEnd + ahead[Math.min(ahead.length - 1, from - asOf - 1)];
  const wanted = start + needed;
  return wanted <= pastEnd
    ? pastStart + firstAtLeast(past, wanted) - 1
    : asOf + firstAtLeast(ahead, wanted - pastEnd);
}
