import {
  betaMean,
  cellMlAt,
  curveWith,
  emergenceClock,
  homesOf,
  linearIn,
  middleCurve,
  normalDraw,
  plantYears,
  rootClock,
  rootsAfter,
  scaleFor,
  seededRandom,
  seedFrom,
  SCORE_FILL,
  sizeOn,
  stretchesOf,
  warmthFor,
  type EpochDay,
  type KnownWeather,
  type LotFacts,
  type Random,
  type Sized,
} from '@kauri/core';

/** How one demo lot really grows: what its counts, samples and pulls are drawn from. */
export interface Truth {
  upOn: EpochDay | null;
  finalShare: number;
  heightAt(day: EpochDay): number;
  diameterAt(day: EpochDay): number;
  fillAt(day: EpochDay): number;
  random: Random;
}

/** Grows a lot by the models from its species' values, its own departures from them, and the weather. */
export function grow(
  facts: LotFacts,
  { outlook, warmth: usual }: KnownWeather,
  latitudeDeg: number,
  vigour: number,
): Truth {
  const random = seededRandom(seedFrom(facts.code));
  const s = facts.species;
  const warmth = warmthFor(s, outlook, usual);
  const last = warmth.asOf;
  const warmthOn = (day: EpochDay) => warmth.past[day - warmth.pastStart] ?? 0;
  const needed = s.emergenceDd.median * Math.exp(0.6 * s.emergenceDd.sdLog * normalDraw(random));
  let upOn: EpochDay | null = null;
  for (let day = emergenceClock(facts, warmth), sum = 0; day <= last; day++) {
    sum += warmthOn(day);
    if (sum >= needed) {
      upOn = day;
      break;
    }
  }
  const spells = homesOf(facts);
  const roots = new Map<EpochDay, number>();
  if (upOn !== null) {
    let rootMl = s.rootInitialMl;
    for (let day = upOn; day <= last; day++) {
      const cellMl = cellMlAt(spells, day);
      const clock = rootClock(cellMl, linearIn(s.rootLinearAtMl, cellMl));
      rootMl = rootsAfter(clock, rootMl, s.rootRatePerDd * vigour * warmthOn(day));
      roots.set(day, rootMl);
    }
  }
  const tallness = 0.5 * s.heightCm.sdLog * normalDraw(random);
  const rate = 0.5 * s.growthPerDd.sdLog * normalDraw(random);
  const plant = upOn === null ? null : plantYears(facts, latitudeDeg, warmth)(0, upOn);
  const sizes = (what: Sized) => {
    const curve = curveWith(middleCurve(s, what), tallness, rate);
    const stretches = plant && stretchesOf(plant, facts, scaleFor(s, what));
    return (day: EpochDay) => (stretches ? sizeOn(stretches, curve, day, plant.warmth.by) : 0);
  };
  return {
    upOn,
    finalShare: Math.min(
      0.97,
      betaMean(s.viability) * betaMean(s.emergence) * Math.exp(0.08 * normalDraw(random)),
    ),
    heightAt: sizes('height'),
    diameterAt: sizes('diameter'),
    fillAt: (day) => (roots.get(day) ?? 0) / cellMlAt(spells, day),
    random,
  };
}

/** Values a grower would write down for a sample around a mean. */
export function sampleAround(truth: Truth, mean: number, cv: number, n: number): number[] {
  return Array.from({ length: n }, () =>
    Math.max(0.3, Math.round(mean * (1 + cv * normalDraw(truth.random)) * 10) / 10),
  );
}

/** Scores a grower would give plugs of a fill. */
export function scoresFor(truth: Truth, fill: number, n: number): number[] {
  return Array.from({ length: n }, () => {
    const read = fill + 0.08 * normalDraw(truth.random);
    return SCORE_FILL.reduce(
      (best, value, score) => (Math.abs(value - read) < Math.abs(SCORE_FILL[best] - read) ? score : best),
      0,
    );
  });
}
