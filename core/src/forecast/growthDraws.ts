import type { EpochDay } from '../calendar/day';
import { seededRandom, seedFrom, shuffledIndices } from '../chance/random';
import { densityFactor, depthFactor } from '../growth/gompertz';
import { drawSizes, sizePosterior } from '../growth/sizePosterior';
import { drawVigours, vigourPosterior } from '../roots/vigour';
import type { Warmth } from '../weather/sums';
import { cellMlOf, depthMmOf, type LotFacts } from './lotFacts';

/** Draws from what is believed of one lot: its growth, its collar, its roots' vigour. */
export interface GrowthDraws {
  heightAsymptote: Float64Array;
  heightRate: Float64Array;
  diameterAsymptote: Float64Array;
  diameterRate: Float64Array;
  vigour: Float64Array;
  meanVigour: number;
  /** How far each still rests on the starting value, 0–1. */
  heightStartingShare: number;
  vigourStartingShare: number;
}

/**
 * Sharpens the species' starting values by the lot's samples and pulls up to the date of the warmth.
 * @param emerged day the lot came up (seen, or the middle of its forecast); Infinity if not yet
 */
export function growthDraws(facts: LotFacts, warmth: Warmth, emerged: EpochDay, draws: number): GrowthDraws {
  const s = facts.species;
  const from = Math.max(emerged, warmth.pastStart);
  const sinceUp =
    emerged <= warmth.asOf ? warmth.past.subarray(from - warmth.pastStart) : new Float64Array(0);
  const thermal = new Float64Array(sinceUp.length + 1);
  for (let i = 0; i < sinceUp.length; i++) thermal[i + 1] = thermal[i] + sinceUp[i];
  const samples = (what: 'height' | 'diameter') =>
    facts.sizes
      .filter((x) => x.what === what && x.day >= from && x.day <= warmth.asOf)
      .map((x) => ({
        thermalTime: thermal[x.day - from + 1],
        mean: x.mean,
        standardError: x.n > 1 ? x.sd / Math.sqrt(x.n) : x.mean * s.plantCv,
      }));
  const depth = depthFactor(depthMmOf(facts.home));
  const crowding = facts.home.kind === 'bed' ? densityFactor(facts.home.densityPerM2, s.halfDensityPerM2) : 1;
  const height = sizePosterior(
    { asymptote: s.heightCm, rate: s.growthPerDd, initial: s.seedlingHeightCm },
    depth,
    samples('height'),
  );
  const diameter = sizePosterior(
    { asymptote: s.diameterMm, rate: s.growthPerDd, initial: s.seedlingDiameterMm },
    depth * crowding,
    samples('diameter'),
  );
  const roots = vigourPosterior(
    {
      initialMl: s.rootInitialMl,
      cellMl: cellMlOf(facts.home),
      ratePerDd: s.rootRatePerDd,
      linearAtMl: s.rootLinearAtMl,
    },
    sinceUp,
    facts.pulls
      .filter((p) => p.day <= warmth.asOf)
      .map((p) => ({ dayIndex: p.day - from, scores: p.scores })),
  );
  const h = drawSizes(height, draws);
  const dia = drawSizes(diameter, draws);
  const sorted = drawVigours(roots, draws);
  const order = shuffledIndices(draws, seededRandom(seedFrom(facts.id) ^ 0x5bd1e995));
  return {
    heightAsymptote: h.asymptote,
    heightRate: h.rate,
    diameterAsymptote: dia.asymptote,
    diameterRate: dia.rate,
    vigour: Float64Array.from(order, (i) => sorted[i]),
    meanVigour: roots.mean,
    heightStartingShare: height.startingShare,
    vigourStartingShare: roots.startingShare,
  };
}
