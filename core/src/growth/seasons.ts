import { say } from '../speech/say';
import { Unfit } from '../working/unfit';

/** One season's growth: what it would add in the whole, how it sets out, how fast, and the warmth it has had. */
export interface SeasonGrown {
  /** Size the whole season adds, in the unit wanted back. */
  increment: number;
  /** b of the curve: how long it hangs back at the start. */
  shape: number;
  /** Per °C·d. */
  ratePerDd: number;
  /** Warmth of that season so far, °C·d. */
  thermalTime: number;
}

/** Shape of the seasons after the first: a plant with buds and roots sets out at once (starting value). */
export const LATER_SHAPE = 2.5;

/** {@link seasonShare} of a season after the first. */
export function laterShare(x: number): number {
  return x <= 0 ? 0 : (Math.exp(-LATER_SHAPE * Math.exp(-x)) - LATER_START) / (1 - LATER_START);
}
const LATER_START = Math.exp(-LATER_SHAPE);

/**
 * Share of a season's increment that is gained once rate × warmth comes to x: a Gompertz curve from 0 to 1,
 * (exp(−b·e^(−x)) − e^(−b)) ÷ (1 − e^(−b)).
 * @param shape b, above 0
 * @param x rate × warmth, 0 or more
 * @see Gompertz 1825, Phil. Trans. 115:513
 */
export function seasonShare(shape: number, x: number): number {
  if (x <= 0) return 0;
  const start = Math.exp(-shape);
  return (Math.exp(-shape * Math.exp(-x)) - start) / (1 - start);
}

/** rate × warmth at which a share of a season's increment is gained; Infinity for a share of 1 or more. */
export function seasonTime(shape: number, share: number): number {
  if (share <= 0) return 0;
  if (share >= 1) return Infinity;
  const start = Math.exp(-shape);
  return -Math.log(-Math.log(start + share * (1 - start)) / shape);
}

/**
 * Size after one or more seasons: the size at the start and what each season added. With shape ln(A ÷ h₀) and increment
 * A − h₀ the first season is the Gompertz curve from h₀ to A.
 * @param startSize size when it came up, in the unit wanted back
 * @throws Unfit for a figure that is not finite, or a shape or rate that is not above 0
 */
export function sizeAfterSeasons({
  startSize,
  seasons,
}: {
  startSize: number;
  seasons: readonly SeasonGrown[];
}): number {
  let size = startSize;
  for (const { increment, shape, ratePerDd, thermalTime } of seasons) {
    if (!(shape > 0 && ratePerDd > 0 && thermalTime >= 0 && Number.isFinite(increment)))
      throw new Unfit(say`A season needs a shape and a rate above 0, and warmth of 0 or more.`);
    size += increment * seasonShare(shape, ratePerDd * thermalTime);
  }
  if (!Number.isFinite(size)) throw new Unfit(say`A size must be a number.`);
  return size;
}
