import {
  betaMean,
  cellMlAt,
  densityFactor,
  depthFactor,
  emergenceClock,
  grownTo,
  homesOf,
  normalDraw,
  rootClock,
  rootsAfter,
  seededRandom,
  seedFrom,
  sineAbove,
  SCORE_FILL,
  type EpochDay,
  type Home,
  type Leg,
  type LotFacts,
  type Random,
  type WeatherSeries,
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
export function grow(facts: LotFacts, weather: WeatherSeries, latitudeDeg: number, vigour: number): Truth {
  const random = seededRandom(seedFrom(facts.code));
  const s = facts.species;
  const last = weather.start + weather.tMinC.length - 1;
  const warmthOn = (day: EpochDay) =>
    sineAbove(weather.tMinC[day - weather.start], weather.tMaxC[day - weather.start], 5);
  const needed = s.emergenceDd.median * Math.exp(0.6 * s.emergenceDd.sdLog * normalDraw(random));
  let upOn: EpochDay | null = null;
  for (let day = emergenceClock(facts, latitudeDeg), sum = 0; day <= last; day++) {
    sum += warmthOn(day);
    if (sum >= needed) {
      upOn = day;
      break;
    }
  }
  const spells = homesOf(facts);
  const thermal = new Map<EpochDay, number>();
  const roots = new Map<EpochDay, number>();
  if (upOn !== null) {
    let sum = 0;
    let rootMl = s.rootInitialMl;
    for (let day = upOn; day <= last; day++) {
      const dd = warmthOn(day);
      sum += dd;
      const clock = rootClock(cellMlAt(spells, day), s.rootLinearAtMl);
      rootMl = rootsAfter(clock, rootMl, s.rootRatePerDd * vigour * dd);
      thermal.set(day, sum);
      roots.set(day, rootMl);
    }
  }
  const depthIn = (home: Home) => depthFactor(home.kind === 'bed' ? home.settledDepthMm : home.depthMm);
  const crowdIn = (home: Home) =>
    home.kind === 'bed' ? densityFactor(home.densityPerM2, s.halfDensityPerM2) : 1;
  const { home } = facts;
  const [depth, crowd] = [depthIn(home), crowdIn(home)];
  /** Each home’s factor against the present one’s, from the warmth at which it was moved there. */
  const legs = (factor: (home: Home) => number): Leg[] =>
    spells.map((spell, i) => ({
      from: i === 0 ? 0 : (thermal.get(spell.from) ?? 0),
      scale: factor(spell.home) / factor(home),
    }));
  const heightLegs = legs(depthIn);
  const diameterLegs = legs((h) => depthIn(h) * crowdIn(h));
  const tallness = Math.exp(0.5 * s.heightCm.sdLog * normalDraw(random));
  const rate = s.growthPerDd.median * Math.exp(0.5 * s.growthPerDd.sdLog * normalDraw(random));
  return {
    upOn,
    finalShare: Math.min(
      0.97,
      betaMean(s.viability) * betaMean(s.emergence) * Math.exp(0.08 * normalDraw(random)),
    ),
    heightAt: (day) =>
      grownTo(
        s.heightCm.median * tallness * depth,
        s.seedlingHeightCm,
        rate,
        heightLegs,
        thermal.get(day) ?? 0,
      ),
    diameterAt: (day) =>
      grownTo(
        s.diameterMm.median * tallness * depth * crowd,
        s.seedlingDiameterMm,
        rate,
        diameterLegs,
        thermal.get(day) ?? 0,
      ),
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
