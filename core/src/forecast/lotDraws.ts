import type { EpochDay } from '../calendar/day';
import { seededRandom, seedFrom, shuffledIndices } from '../chance/random';
import { normalStrata } from '../chance/normal';
import { cellMlAt, cellMlOf } from '../home/home';
import {
  DAY_SD,
  shootsFromRoots,
  vigourPosterior,
  VIGOUR_SD_LOG,
  vigoursBeside,
  type VigourPosterior,
} from '../roots/vigour';
import type { Warmth } from '../weather/sums';
import { homesOf } from './lotHomes';
import { type LotFacts } from './lotFacts';
import { plantYears, type PlantYear } from './plantYears';
import { linearIn, rootClock, rootsAfter } from '../roots/rootFill';
import { factorSdLog, sizeKnown, SizeRuns, type FillIn, type SizeKnown } from './sizeRuns';

/** What is believed of a lot once its records have spoken. */
export interface LotBeliefs {
  height: SizeKnown;
  diameter: SizeKnown;
  roots: VigourPosterior;
  /** Its seasons so far; null for a lot that is not up. */
  plant: PlantYear | null;
  plantIn: (year: number, up: EpochDay) => PlantYear;
}

/**
 * Sharpens the species' starting values by the lot's samples and pulls up to the date of the warmth. Plugs speak of the
 * shoots too, and heights of the roots, as far as the two go together.
 * @param emerged day the lot came up (seen, or the middle of its forecast); Infinity if not yet
 */
export function lotBeliefs(
  facts: LotFacts,
  latitudeDeg: number,
  warmth: Warmth,
  emerged: EpochDay,
): LotBeliefs {
  const plantIn = plantYears(facts, latitudeDeg, warmth);
  const isUp = emerged <= warmth.asOf;
  const plant = isUp ? plantIn(0, emerged) : null;
  const roots = rootsOf(facts, warmth, emerged);
  const shoots = shootsFromRoots(roots);
  const sdLog = factorSdLog(facts, 'height');
  const fillIn = fillOf(facts, Math.exp(roots.logMean));
  return {
    height: sizeKnown(facts, 'height', plant, warmth.asOf, fillIn, shoots && ((f) => shoots(f / sdLog))),
    diameter: sizeKnown(facts, 'diameter', plant, warmth.asOf, fillIn),
    roots,
    plant,
    plantIn,
  };
}

/** Root fill of a run of the lot's own middle vigour, home by home; null for a lot that stands in no cells. */
function fillOf(facts: LotFacts, vigour: number): FillIn | null {
  const spells = homesOf(facts);
  if (spells.every(({ home }) => home.kind !== 'container')) return null;
  const { rootInitialMl, rootLinearAtMl, rootRatePerDd } = facts.species;
  return ({ up, warmth }) =>
    (day) => {
      let rootMl = rootInitialMl;
      let cellMl = cellMlAt(spells, up);
      for (let i = 0; i < spells.length && spells[i].from <= day; i++) {
        const from = Math.max(up, spells[i].from);
        const to = Math.min(day, (spells[i + 1]?.from ?? Infinity) - 1);
        if (to < from) continue;
        cellMl = cellMlOf(spells[i].home);
        const clock = rootClock(cellMl, linearIn(rootLinearAtMl, cellMl));
        rootMl = rootsAfter(clock, rootMl, rootRatePerDd * vigour * (warmth.by(to) - warmth.by(from - 1)));
      }
      return rootMl / cellMl;
    };
}

function rootsOf(facts: LotFacts, warmth: Warmth, emerged: EpochDay): VigourPosterior {
  const s = facts.species;
  const from = Math.max(emerged, warmth.pastStart);
  const sinceUp =
    emerged <= warmth.asOf ? warmth.past.subarray(from - warmth.pastStart) : new Float64Array(0);
  const spells = homesOf(facts).filter((spell, i) => i === 0 || spell.from <= warmth.asOf);
  return vigourPosterior(
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
    (facts.vigourSdLog ?? VIGOUR_SD_LOG) * (facts.bandWidths?.fill ?? 1),
  );
}

/** Draws from what is believed of one lot: its growth, its collar, its roots' vigour. */
export interface LotDraws extends LotBeliefs {
  heights: SizeRuns;
  diameters: SizeRuns;
  vigour: Float64Array;
  /** How much fuller than the lot's own the plugs of a day are, by draw. */
  dayLuck: Float64Array;
}

/** Draws from what is believed of a lot; see {@link lotBeliefs}. */
export function lotDraws(
  facts: LotFacts,
  latitudeDeg: number,
  warmth: Warmth,
  emerged: EpochDay,
  draws: number,
): LotDraws {
  const beliefs = lotBeliefs(facts, latitudeDeg, warmth, emerged);
  const { height, diameter, roots, plant } = beliefs;
  const years = warmth.years.length;
  const heights = new SizeRuns(facts, height, draws, years, warmth.asOf, plant);
  const diameters = new SizeRuns(facts, diameter, draws, years, warmth.asOf, plant);
  const random = seededRandom(seedFrom(facts.id) ^ 0x5bd1e995);
  const order = shuffledIndices(draws, random);
  const strata = normalStrata(draws);
  const daySd = DAY_SD * (facts.bandWidths?.fill ?? 1);
  return {
    ...beliefs,
    heights,
    diameters,
    vigour: vigoursBeside(roots, heights.factorZ, order),
    dayLuck: Float64Array.from(shuffledIndices(draws, random), (i) => Math.exp(daySd * strata[i])),
  };
}
