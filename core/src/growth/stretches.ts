import type { EpochDay } from '../calendar/day';
import { LATER_SHAPE, laterShare, seasonTime } from './seasons';

/**
 * A stretch of growth: within one season and one home. Warmth is counted from the start of the season, so that a home
 * left in midseason hands on to the next.
 */
export interface Stretch {
  /** 0 for the season it came up in. */
  season: number;
  from: EpochDay;
  /** Last day. */
  to: EpochDay;
  /** Warmth of the season by the eve of `from`, and by the end of `to`, °C·d. */
  warmFrom: number;
  warmTo: number;
  /** Factor of the home on what the season adds. */
  scale: number;
  /** What was lost at its start: a share kept, or a height cut back to. */
  cut?: Cut;
}

/** Height lost on a day: browsed or broken off (a share kept on the mean), or cut back to a height, cm. */
export type Cut = { keep: number } | { toCm: number };

/** One curve of a lot: its own factor is in the figures already. */
export interface GrowthCurve {
  /** Size at coming up. */
  initial: number;
  /** Size a first season tends to in an ordinary home. */
  firstTo: number;
  /** What the second and each later season add. */
  second: number;
  later: number;
  ratePerDd: number;
}

/** Warmth of a plant's season by the end of a day; `since` as of {@link WarmthCourse}. */
export interface WarmthCourse {
  /** By the end of a day, from any origin. */
  by: (day: EpochDay) => number;
  /** First day by whose end it reaches a sum of the same origin; Infinity beyond the horizon. */
  dayOf: (sum: number) => EpochDay;
}

/** Size after a stretch, or after some of its warmth, from the size at its start (a cut at its start included). */
export function grownOver(
  stretch: Stretch,
  curve: GrowthCurve,
  start: number,
  warmTo = stretch.warmTo,
): number {
  return grownBy(stretch, curve, start, paceOver(stretch, curve.ratePerDd, warmTo));
}

/**
 * How far a stretch's warmth brings growth of a rate: what is left of the way to a first season's size, of the
 * logarithm; the share of a later season's increment. Curves of one rate share it.
 */
export function paceOver(stretch: Stretch, ratePerDd: number, warmTo = stretch.warmTo): number {
  if (stretch.season === 0)
    return warmTo <= stretch.warmFrom ? 1 : Math.exp(-ratePerDd * (warmTo - stretch.warmFrom));
  return warmTo <= stretch.warmFrom
    ? 0
    : laterShare(ratePerDd * warmTo) - laterShare(ratePerDd * stretch.warmFrom);
}

/** {@link grownOver}, with {@link paceOver} of the curve's rate known. */
export function grownBy(
  { season, scale, cut }: Stretch,
  curve: GrowthCurve,
  start: number,
  pace: number,
): number {
  const size = cutBy(cut, start);
  if (season > 0) return size + addedIn(curve, season) * scale * pace;
  const most = curve.firstTo * scale;
  return pace === 1 || size >= most ? size : most * Math.exp(Math.log(size / most) * pace);
}

/** What a season after the first adds in an ordinary home. */
export const addedIn = (curve: GrowthCurve, season: number): number =>
  season === 1 ? curve.second : curve.later;

const cutBy = (cut: Cut | undefined, size: number): number =>
  cut === undefined ? size : 'keep' in cut ? size * cut.keep : Math.min(size, cut.toCm);

/** Warmth of its season at which a stretch comes to a size; Infinity where it does not. */
export function warmthToSize(stretch: Stretch, curve: GrowthCurve, start: number, wanted: number): number {
  const size = cutBy(stretch.cut, start);
  if (size >= wanted) return stretch.warmFrom;
  let warm: number;
  if (stretch.season === 0) {
    const most = curve.firstTo * stretch.scale;
    if (wanted >= most) return Infinity;
    warm = stretch.warmFrom - Math.log(Math.log(wanted / most) / Math.log(size / most)) / curve.ratePerDd;
  } else {
    const whole = addedIn(curve, stretch.season) * stretch.scale;
    const before = laterShare(curve.ratePerDd * stretch.warmFrom);
    warm = seasonTime(LATER_SHAPE, before + (wanted - size) / whole) / curve.ratePerDd;
  }
  return warm <= stretch.warmTo ? warm : Infinity;
}

/** Size by the end of a day along stretches, ascending. */
export function sizeOn(
  stretches: readonly Stretch[],
  curve: GrowthCurve,
  day: EpochDay,
  warmthBy: (day: EpochDay) => number,
): number {
  let size = curve.initial;
  for (const stretch of stretches) {
    if (stretch.from > day) break;
    size = grownOver(
      stretch,
      curve,
      size,
      day < stretch.to ? warmInSeason(stretch, warmthBy, day) : undefined,
    );
  }
  return size;
}

/** Warmth of a stretch's season by the end of a day within it. */
export function warmInSeason(stretch: Stretch, warmthBy: (day: EpochDay) => number, day: EpochDay): number {
  return stretch.warmFrom + warmthBy(day) - warmthBy(stretch.from - 1);
}
