import { cellMlAt, cellMlOf, depthMmOf, type Home, type HomeSpell } from '../home/home';
import { densityFactor, depthFactor } from '../home/factors';
import type { EpochDay } from '../calendar/day';
import { seededRandom, seedFrom, shuffledIndices } from '../chance/random';
import { drawSizes, sizePosterior, type SizePosterior } from '../growth/sizePosterior';
import { drawVigours, vigourPosterior, type VigourPosterior } from '../roots/vigour';
import type { Warmth } from '../weather/sums';
import type { Leg } from '../growth/legs';
import { lastPruned } from './careSeen';
import { homesOf } from './lotHomes';
import { type LotFacts } from './lotFacts';

/** Draws from what is believed of one lot: its growth, its collar, its roots' vigour. */
export interface GrowthDraws {
  heightAsymptote: Float64Array;
  heightRate: Float64Array;
  diameterAsymptote: Float64Array;
  diameterRate: Float64Array;
  /** How the asymptotes changed with past moves, against the present home's. */
  legs: Leg[];
  diameterLegs: Leg[];
  /** Factor on each asymptote in a home. */
  scaleIn: { height: (home: Home) => number; diameter: (home: Home) => number };
  vigour: Float64Array;
  meanVigour: number;
  /** How far each still rests on the starting value, 0–1. */
  heightStartingShare: number;
  vigourStartingShare: number;
}

/** What is believed of a lot once its records have spoken. */
export interface LotPosteriors extends Pick<GrowthDraws, 'legs' | 'diameterLegs' | 'scaleIn'> {
  height: SizePosterior;
  diameter: SizePosterior;
  roots: VigourPosterior;
}

/**
 * Sharpens the species' starting values by the lot's samples and pulls up to the date of the warmth.
 * @param emerged day the lot came up (seen, or the middle of its forecast); Infinity if not yet
 */
export function lotPosteriors(facts: LotFacts, warmth: Warmth, emerged: EpochDay): LotPosteriors {
  const s = facts.species;
  const from = Math.max(emerged, warmth.pastStart);
  const sinceUp =
    emerged <= warmth.asOf ? warmth.past.subarray(from - warmth.pastStart) : new Float64Array(0);
  const thermal = new Float64Array(sinceUp.length + 1);
  for (let i = 0; i < sinceUp.length; i++) thermal[i + 1] = thermal[i] + sinceUp[i];
  // Heights from before the top was last taken back tell nothing of what stands now.
  const pruned = lastPruned(facts, warmth.asOf)?.day ?? -Infinity;
  const samples = (what: 'height' | 'diameter') =>
    facts.sizes
      .filter((x) => x.what === what && x.day >= from && x.day <= warmth.asOf)
      .filter((x) => what === 'diameter' || x.day >= pruned)
      .map((x) => ({
        thermalTime: thermal[x.day - from + 1],
        mean: x.mean,
        standardError: x.n > 1 ? x.sd / Math.sqrt(x.n) : x.mean * s.plantCv,
      }));
  const spells = homesOf(facts).filter((spell, i) => i === 0 || spell.from <= warmth.asOf);
  const depthIn = (home: Home) => depthFactor(depthMmOf(home));
  const widthIn = (home: Home) =>
    depthIn(home) * (home.kind === 'bed' ? densityFactor(home.densityPerM2, s.halfDensityPerM2) : 1);
  const thermalOn = (day: EpochDay) => (day <= from ? 0 : thermal[Math.min(thermal.length - 1, day - from)]);
  const legs = legsOf(spells, thermalOn, depthIn);
  const diameterLegs = legsOf(spells, thermalOn, widthIn);
  const height = sizePosterior(
    { asymptote: s.heightCm, rate: s.growthPerDd, initial: s.seedlingHeightCm },
    depthIn(facts.home),
    samples('height'),
    legs,
  );
  const diameter = sizePosterior(
    { asymptote: s.diameterMm, rate: s.growthPerDd, initial: s.seedlingDiameterMm },
    widthIn(facts.home),
    samples('diameter'),
    diameterLegs,
  );
  const roots = vigourPosterior(
    {
      initialMl: s.rootInitialMl,
      cellMl: cellMlAt(spells, from),
      ratePerDd: s.rootRatePerDd,
      linearAtMl: s.rootLinearAtMl,
    },
    sinceUp,
    facts.pulls
      .filter((p) => p.day <= warmth.asOf)
      .map((p) => ({ dayIndex: p.day - from, scores: p.scores, before: p.before })),
    spells.slice(1).map((spell) => ({ dayIndex: spell.from - from, cellMl: cellMlOf(spell.home) })),
    facts.vigourSdLog,
  );
  return { height, diameter, roots, legs, diameterLegs, scaleIn: { height: depthIn, diameter: widthIn } };
}

/** Draws from what is believed of a lot; see {@link lotPosteriors}. */
export function growthDraws(facts: LotFacts, warmth: Warmth, emerged: EpochDay, draws: number): GrowthDraws {
  const { height, diameter, roots, legs, diameterLegs, scaleIn } = lotPosteriors(facts, warmth, emerged);
  const h = drawSizes(height, draws);
  const dia = drawSizes(diameter, draws);
  const sorted = drawVigours(roots, draws);
  const order = shuffledIndices(draws, seededRandom(seedFrom(facts.id) ^ 0x5bd1e995));
  return {
    heightAsymptote: h.asymptote,
    heightRate: h.rate,
    diameterAsymptote: dia.asymptote,
    diameterRate: dia.rate,
    legs,
    diameterLegs,
    scaleIn,
    vigour: Float64Array.from(order, (i) => sorted[i]),
    meanVigour: roots.mean,
    heightStartingShare: height.startingShare,
    vigourStartingShare: roots.startingShare,
  };
}

/** Moves as legs of growth: each home's factor against that of the last. */
function legsOf(
  spells: readonly HomeSpell[],
  thermalOn: (day: EpochDay) => number,
  scaleIn: (home: Home) => number,
): Leg[] {
  const present = scaleIn(spells[spells.length - 1].home);
  const legs: Leg[] = [];
  for (const { from, home } of spells) {
    const leg = { from: legs.length ? thermalOn(from) : 0, scale: scaleIn(home) / present };
    // A home left before the plant was up, or on the same warmth, did not shape it.
    if (legs.length && legs[legs.length - 1].from === leg.from) legs[legs.length - 1] = leg;
    else legs.push(leg);
  }
  return legs;
}
