import { solveBy } from '../chance/cholesky';
import type { EpochDay } from '../calendar/day';
import { normalStrata } from '../chance/normal';
import { seededRandom, seedFrom, shuffledIndices } from '../chance/random';
import type { Spread } from '../chance/spread';
import {
  COLLAR_CV,
  covariance,
  drawSizes,
  MODEL_DAYS,
  sizeBelief,
  type SizeBelief,
  type SizeSample,
} from '../growth/sizeBelief';
import {
  grownBy,
  grownOver,
  paceOver,
  sizeOn,
  warmInSeason,
  type Cut,
  type GrowthCurve,
  type Stretch,
} from '../growth/stretches';
import { gatherSamples, type TakenSample } from '../growth/gatherSamples';
import { heightLeftAfter } from '../growing/events';
import { diameterFactorIn, heightFactorIn } from '../home/factors';
import type { Home } from '../home/home';
import type { SpeciesValues } from '../species/species';
import { lastPruned } from './careSeen';
import type { LotFacts } from './lotFacts';
import {
  marksAlong,
  standpointOn,
  stretchesOf,
  type PlantYear,
  type Standpoint,
  type WayMark,
} from './plantYears';

export type Sized = 'height' | 'diameter';

/** What a second and each later season add, of the first, where a species has no figures of its own; rules of thumb. */
const SECOND_OF_FIRST = 1.2;
const LATER_OF_FIRST = 1.5;

/** A start above this share of a first season's size is no seedling's. */
const LARGE_START = 0.4;

/** The middle curve of a species in an ordinary home: factor and rate are 1. */
export function middleCurve(species: SpeciesValues, what: Sized): GrowthCurve {
  const [initial, first] =
    what === 'height'
      ? [species.seedlingHeightCm, species.heightCm.median]
      : [species.seedlingDiameterMm, species.diameterMm.median];
  const { laterHeightCm } = species;
  const [second, later] = laterHeightCm
    ? [
        laterHeightCm.second.median / species.heightCm.median,
        laterHeightCm.later.median / species.heightCm.median,
      ]
    : [SECOND_OF_FIRST, LATER_OF_FIRST];
  // Collars thicken more evenly than shoots lengthen: about two thirds of what the height does.
  const even = what === 'height' ? 1 : 0.65;
  return {
    initial,
    // A plant that begins large, as a layer does, adds a later season's growth in its first.
    firstTo: initial > LARGE_START * first ? initial + first * second * even : first,
    second: first * second * even,
    later: first * later * even,
    ratePerDd: species.growthPerDd.median,
  };
}

/** A curve of a lot whose own factor and rate depart from the middle. */
export function curveWith(middle: GrowthCurve, lnFactor: number, lnRate: number): GrowthCurve {
  const factor = Math.exp(lnFactor);
  return {
    initial: middle.initial,
    firstTo: Math.max(middle.firstTo * factor, middle.initial * 1.05),
    second: middle.second * factor,
    later: middle.later * factor,
    ratePerDd: middle.ratePerDd * Math.exp(lnRate),
  };
}

const spreadOf = (species: SpeciesValues, what: Sized): Spread =>
  what === 'height' ? species.heightCm : species.diameterMm;

/** How many times as wide a size's bands are as they start. */
const widthOf = ({ bandWidths }: LotFacts, what: Sized): number => bandWidths?.[what] ?? 1;

/** Spread of a lot's own factor on a size at the start, of its logarithm. */
export const factorSdLog = (facts: LotFacts, what: Sized): number =>
  spreadOf(facts.species, what).sdLog * widthOf(facts, what);

/** Factor of a home on what a season adds to a size. */
export const scaleFor =
  (species: SpeciesValues, what: Sized) =>
  (home: Home): number =>
    what === 'height' ? heightFactorIn(home) : diameterFactorIn(home, species.halfDensityPerM2);

/** Height a lot lost by a date: cut back, or browsed. */
function cutsOf(facts: LotFacts, asOf: EpochDay): { day: EpochDay; cut: Cut }[] {
  const pruned = lastPruned(facts, asOf);
  return [
    ...(facts.losses ?? [])
      .filter((loss) => loss.day <= asOf)
      .map(({ day, what, share }) => ({ day, cut: { keep: 1 - share * (1 - heightLeftAfter[what]) } })),
    ...(pruned ? [{ day: pruned.day, cut: { toCm: pruned.toCm } }] : []),
  ].sort((a, b) => a.day - b.day);
}

/** What a lot's samples make of one of its sizes, and all that is asked of it later. */
export interface SizeKnown {
  what: Sized;
  middle: GrowthCurve;
  belief: SizeBelief;
  /** Days of the belief's samples. */
  sampled: readonly EpochDay[];
  cuts: readonly { day: EpochDay; cut: Cut }[];
  /** Root fill of an ordinary run, by the plant's year; null where roots stand in no cells. */
  fillIn: FillIn | null;
}

export type FillIn = (plant: PlantYear) => (day: EpochDay) => number;

/**
 * Sharpens a size's starting values by the lot's samples.
 * @param plant its seasons so far; null for a lot that is not up, which has no samples
 * @param more what else speaks of its factor
 */
export function sizeKnown(
  facts: LotFacts,
  what: Sized,
  plant: PlantYear | null,
  asOf: EpochDay,
  fillIn: FillIn | null,
  more: ((lnFactor: number) => number) | null = null,
): SizeKnown {
  const { species } = facts;
  const middle = middleCurve(species, what);
  const cuts = what === 'height' ? cutsOf(facts, asOf) : [];
  const stretches =
    plant && stretchesOf(plant, facts, scaleFor(species, what), cuts, fillIn && fillIn(plant));
  const taken = plant && stretches ? takenOf(facts, what, plant, stretches, middle, asOf) : [];
  const samples = taken.map(({ day, n, mean, sd }): SizeSample => ({
    n,
    mean,
    sd,
    ...standpointOn(stretches!, middle, day, plant!.warmth.by),
  }));
  const sampled = taken.map((sample) => sample.day);
  const walk = stretches && walkTo(stretches, sampled, plant!.warmth.by);
  const belief = sizeBelief(
    factorSdLog(facts, what),
    species.growthPerDd.sdLog * widthOf(facts, what),
    samples,
    species.plantCv * (what === 'height' ? 1 : COLLAR_CV),
    (lnRate) => {
      const along = walk!(middle.ratePerDd * Math.exp(lnRate));
      return (lnFactor) => along(curveWith(middle, lnFactor, lnRate));
    },
    more,
    widthOf(facts, what),
  );
  return { what, middle, belief, sampled, cuts, fillIn };
}

/** Samples of a size up to a date, many of them gathered into few. */
function takenOf(
  facts: LotFacts,
  what: Sized,
  { up, warmth }: PlantYear,
  stretches: readonly Stretch[],
  middle: GrowthCurve,
  asOf: EpochDay,
): readonly TakenSample[] {
  return gatherSamples(
    facts.sizes.filter((s) => s.what === what && s.day >= up && s.day <= asOf).sort((a, b) => a.day - b.day),
    (day) => standpointOn(stretches, middle, day, warmth.by).grown,
    (day) => sizeOn(stretches, middle, day, warmth.by),
  );
}

/** Logarithms of the sizes on some days, ascending, of curves of one rate: each in one walk along its stretches. */
function walkTo(
  stretches: readonly Stretch[],
  days: readonly EpochDay[],
  warmthBy: (day: EpochDay) => number,
): (ratePerDd: number) => (curve: GrowthCurve) => Float64Array {
  const out = new Float64Array(days.length);
  // Where each day lies, and the warmth of its season by then: the same for every curve.
  const at = days.map((day) => {
    const stretch = Math.max(
      0,
      stretches.findLastIndex((s) => s.from <= day),
    );
    const within = stretches[stretch].to > day;
    return { stretch, warm: within ? warmInSeason(stretches[stretch], warmthBy, day) : undefined };
  });
  const walked = stretches.slice(0, (at.at(-1)?.stretch ?? 0) + 1);
  return (ratePerDd) => {
    const whole = walked.map((stretch) => paceOver(stretch, ratePerDd));
    const parts = at.map(({ stretch, warm }) => paceOver(stretches[stretch], ratePerDd, warm));
    return (curve) => {
      let size = curve.initial;
      let next = 0;
      for (let i = 0; i < days.length; i++) {
        for (; next < at[i].stretch; next++) size = grownBy(stretches[next], curve, size, whole[next]);
        out[i] = Math.log(grownBy(stretches[next], curve, size, parts[i]));
      }
      return out;
    };
  };
}

/** How a size departs from its curves: from what samples, with what spread left. */
interface Departure {
  towards: Float64Array;
  fixedSd: number;
  freshSd: number;
}

/** A day along the way, with where the middle curve stands on it and how runs depart from theirs. */
type Mark = WayMark & Departure;
const NO_SAMPLES = new Float64Array(0);

/** Days so close that growth between them goes along a straight line. */
const STRAIGHT_DAYS = 8;

/**
 * First day on which a size that grows is reached, between a day on which it is not and a later one on which it is:
 * closed in on by halves of the way and along the straight line, in turns.
 */
function firstDayOf(
  sizeOnDay: (day: EpochDay) => number,
  wanted: number,
  before: EpochDay,
  sizeBefore: number,
  by: EpochDay,
  sizeBy: number,
): EpochDay {
  let [low, lowSize, high, highSize] = [before, sizeBefore, by, sizeBy];
  for (let turn = 0; high - low > STRAIGHT_DAYS; turn++) {
    const part = turn % 2 === 1 ? 0.5 : (wanted - lowSize) / (highSize - lowSize);
    const day = Math.max(low + 1, Math.min(high - 1, Math.round(low + part * (high - low))));
    const size = sizeOnDay(day);
    if (size >= wanted) [high, highSize] = [day, size];
    else [low, lowSize] = [day, size];
  }
  return Math.max(low + 1, Math.ceil(low + ((wanted - lowSize) / (highSize - lowSize)) * (high - low)));
}

/** Steps through strata so that neighbours lie far apart: a prime, and so no part of any number of runs below it. */
const TURNS = 7919;
/**
 * One size of a lot in every run: draws from what is believed of it, each carried through every weather year with what
 * its samples departed from it by, and with luck of its own.
 */
export class SizeRuns {
  readonly curves: readonly GrowthCurve[];
  /** ln factor of each draw, in standard deviations of the start. */
  readonly factorZ: Float64Array;
  private readonly off: readonly Float64Array[];
  private readonly fixed: Float64Array;
  private readonly fresh: Float64Array;
  private readonly turn: number;
  private readonly stretchesBy = new Map<PlantYear, Stretch[]>();
  private readonly departuresBy = new Map<PlantYear, Map<EpochDay, Departure>>();
  private readonly now: Standpoint | null;
  private readonly sdNow: number;
  private readonly nowBy: Float64Array;
  private readonly marksBy = new Map<PlantYear, Mark[]>();
  private pastMarks: Mark[] | null = null;
  private readonly beforeBy = new Map<number, number>();

  constructor(
    private readonly facts: LotFacts,
    readonly known: SizeKnown,
    readonly draws: number,
    years: number,
    private readonly asOf: EpochDay,
    /** Its seasons so far, of any weather year; null for a lot that is not up. */
    plant: PlantYear | null,
  ) {
    const { belief, middle, what } = known;
    const { factor, rate } = drawSizes(belief, draws);
    this.curves = Array.from(factor, (f, d) => curveWith(middle, f, rate[d]));
    const sdLog = factorSdLog(facts, what);
    this.factorZ = factor.map((f) => f / sdLog);
    const random = seededRandom(seedFrom(`${facts.id} ${what}`));
    const strata = normalStrata(draws);
    this.fixed = Float64Array.from(shuffledIndices(draws, random), (i) => strata[i]);
    this.fresh = normalStrata(draws * years);
    this.turn = Math.floor(random() * draws * years);
    const { samples, root } = belief;
    if (plant && root) {
      const stretches = this.stretches(plant);
      const walk = walkTo(stretches, known.sampled, plant.warmth.by);
      this.off = this.curves.map((curve) => {
        const sizes = walk(curve.ratePerDd)(curve);
        return solveBy(
          root,
          samples.map(({ mean }, i) => Math.log(mean) - sizes[i]),
        );
      });
    } else this.off = [];
    this.now =
      plant && plant.up <= asOf ? standpointOn(this.stretches(plant), middle, asOf, plant.warmth.by) : null;
    this.nowBy = new Float64Array(draws).fill(-1);
    this.sdNow = this.now ? Math.sqrt(this.variance(this.now).v) : Infinity;
  }

  stretches(plant: PlantYear): Stretch[] {
    let kept = this.stretchesBy.get(plant);
    if (!kept) {
      const { facts, known } = this;
      kept = stretchesOf(
        plant,
        facts,
        scaleFor(facts.species, known.what),
        known.cuts,
        known.fillIn && known.fillIn(plant),
      );
      this.stretchesBy.set(plant, kept);
    }
    return kept;
  }

  /** Variance left at a standpoint, and the covariances with the samples. */
  private variance(at: Standpoint): { v: number; towards: Float64Array } {
    const { samples, root, width } = this.known.belief;
    let v = covariance(at, at, width);
    if (!root) return { v, towards: NO_SAMPLES };
    const towards = Float64Array.from(samples, (sample) => covariance(at, sample, width));
    const weights = solveBy(root, towards);
    for (let i = 0; i < towards.length; i++) v -= towards[i] * weights[i];
    return { v: Math.max(0, v), towards };
  }

  private departure(plant: PlantYear, day: EpochDay): Departure {
    let kept = this.departuresBy.get(plant);
    if (!kept) this.departuresBy.set(plant, (kept = new Map()));
    let at = kept.get(day);
    if (!at) {
      at = this.spreadAt(standpointOn(this.stretches(plant), this.known.middle, day, plant.warmth.by));
      kept.set(day, at);
    }
    return at;
  }

  private spreadAt(standpoint: Standpoint): Departure {
    const { v, towards } = this.variance(standpoint);
    const sd = Math.sqrt(v);
    const since = this.now ? Math.max(0, standpoint.grown - this.now.grown) : 0;
    const fixedSd = Math.min(sd, this.sdNow * Math.exp(-since / MODEL_DAYS));
    return { towards, fixedSd, freshSd: Math.sqrt(Math.max(0, v - fixedSd ** 2)) };
  }

  /** Factor by which a run departs from its curve on a day. */
  private departs(plant: PlantYear, year: number, d: number, day: EpochDay): number {
    const { towards, fixedSd, freshSd } = this.departure(plant, day);
    let log = fixedSd * this.fixed[d];
    // Days gone by are the same in every weather year.
    if (day > this.asOf) log += freshSd * this.freshOf(year, d);
    const off = this.off[d];
    for (let i = 0; i < towards.length; i++) log += towards[i] * off[i];
    return Math.exp(log);
  }

  /** Size now, by draw: the same in every weather year. */
  private sizeNow(plant: PlantYear, d: number): number {
    if (plant.up > this.asOf) return 0;
    if (this.nowBy[d] < 0) this.nowBy[d] = this.raw(plant, 0, d, this.asOf);
    return this.nowBy[d];
  }

  private raw(plant: PlantYear, year: number, d: number, day: EpochDay): number {
    return (
      sizeOn(this.stretches(plant), this.curves[d], day, plant.warmth.by) * this.departs(plant, year, d, day)
    );
  }

  /** Size of a run by the end of a day; 0 before it is up. From now on a path never shrinks. */
  sizeAt(plant: PlantYear, year: number, d: number, day: EpochDay): number {
    if (day < plant.up) return 0;
    const raw = this.raw(plant, year, d, day);
    return day > this.asOf ? Math.max(raw, this.sizeNow(plant, d)) : raw;
  }

  /** Marks along a plant's days, from a day to another. */
  private marksOf(plant: PlantYear, from: EpochDay, to: EpochDay, widening: number): Mark[] {
    const { middle, belief } = this.known;
    // What samples depart by is followed through; without samples a stretch's ends will do.
    const every = belief.root ? MODEL_DAYS : Infinity;
    return marksAlong(this.stretches(plant), middle, plant.warmth.by, from, to, every, widening).map(
      (way) => {
        const { towards, fixedSd, freshSd } = this.spreadAt(way);
        const { day, stretch, warm, grown, luck } = way;
        return { day, stretch, warm, grown, luck, towards, fixedSd, freshSd };
      },
    );
  }

  /** Marks of the days gone by, which are the same in every weather year. */
  private past(plant: PlantYear): Mark[] {
    return (this.pastMarks ??= this.marksOf(plant, plant.up, this.asOf, 1));
  }

  /** Marks of the days to come: what samples depart by fades, and needs fewer and fewer of them. */
  private ahead(plant: PlantYear, horizon: EpochDay): Mark[] {
    let kept = this.marksBy.get(plant);
    if (!kept)
      this.marksBy.set(plant, (kept = this.marksOf(plant, Math.max(plant.up, this.asOf), horizon, 2)));
    return kept;
  }

  /**
   * First days on which some sizes are reached, ascending, for draws `from` to `to` of a weather year: written into
   * `out`, size by size, at the run's index; Infinity beyond the horizon.
   */
  daysOfSizes(
    plant: PlantYear,
    year: number,
    [from, to]: readonly [number, number],
    wanted: readonly number[],
    horizon: EpochDay,
    out: readonly Float64Array[],
  ): void {
    if (plant.up > horizon || wanted.length === 0) return;
    const { draws } = this;
    for (let d = from; d < to; d++) {
      const run = year * draws + d;
      // What stands now was reached by now; a path that dipped since does not take it back.
      const now = this.sizeNow(plant, d);
      let next = 0;
      while (next < wanted.length && wanted[next] <= now) next++;
      if (next > 0) {
        if (year === 0) this.follow(this.past(plant), plant, 0, d, wanted, 0, next, out);
        for (let i = 0; i < next; i++) out[i][run] = Math.min(out[i][d], this.asOf);
      }
      if (next < wanted.length)
        this.follow(this.ahead(plant, horizon), plant, year, d, wanted, next, wanted.length, out);
    }
  }

  /** Size of a draw at the start of a stretch: for those to come it is the same in every weather year. */
  private sizeBefore(plant: PlantYear, d: number, stretch: number): number {
    const key = d * 64 + stretch;
    const seen = plant.up <= this.asOf;
    const known = seen ? this.beforeBy.get(key) : undefined;
    if (known !== undefined) return known;
    const stretches = this.stretches(plant);
    const curve = this.curves[d];
    let size = curve.initial;
    for (let i = 0; i < stretch; i++) size = grownOver(stretches[i], curve, size);
    if (seen) this.beforeBy.set(key, size);
    return size;
  }

  /** First day at or after the first mark on which each of some sizes is reached, from mark to mark. */
  private follow(
    marks: readonly Mark[],
    plant: PlantYear,
    year: number,
    d: number,
    wanted: readonly number[],
    fromWanted: number,
    toWanted: number,
    out: readonly Float64Array[],
  ): void {
    if (marks.length === 0) return;
    const run = year * this.draws + d;
    const curve = this.curves[d];
    const stretches = this.stretches(plant);
    const first = marks[0];
    let next = fromWanted;
    let at = first.stretch;
    let before = this.sizeBefore(plant, d, at);
    let log = this.logDeparture(first, year, d);
    let last = first.day;
    let there = grownOver(stretches[at], curve, before, first.warm) * Math.exp(log);
    while (next < toWanted && there >= wanted[next]) out[next++][run] = last;
    for (let m = 1; m < marks.length && next < toWanted; m++) {
      const mark = marks[m];
      while (at < mark.stretch) before = grownOver(stretches[at++], curve, before);
      const logThen = this.logDeparture(mark, year, d);
      const size = grownOver(stretches[at], curve, before, mark.warm) * Math.exp(logThen);
      while (next < toWanted && size >= wanted[next]) {
        // Between two marks the departure goes along the straight line.
        const stretch = stretches[at];
        const sizeOnDay = (day: EpochDay) => {
          const departs = log + ((day - last) / (mark.day - last)) * (logThen - log);
          const warm = day < stretch.from ? stretch.warmFrom : warmInSeason(stretch, plant.warmth.by, day);
          return grownOver(stretch, curve, before, warm) * Math.exp(departs);
        };
        out[next][run] = firstDayOf(sizeOnDay, wanted[next], last, there, mark.day, size);
        next++;
      }
      there = size;
      log = logThen;
      last = mark.day;
    }
  }

  /** A run's own luck: every stratum once, in an order of the lot's own. */
  private freshOf(year: number, d: number): number {
    const n = this.fresh.length;
    return this.fresh[((year * this.draws + d) * TURNS + this.turn) % n];
  }

  private logDeparture({ towards, fixedSd, freshSd, day }: Mark, year: number, d: number): number {
    let log = fixedSd * this.fixed[d];
    if (day > this.asOf) log += freshSd * this.freshOf(year, d);
    const off = this.off[d];
    for (let i = 0; i < towards.length; i++) log += towards[i] * off[i];
    return log;
  }
}
