import { gompertz, gompertzTime } from './gompertz';

/** A stretch of growth with a size of its own to tend to, from a thermal time since emergence on. */
export interface Leg {
  from: number;
  /** Factor on the asymptote. */
  scale: number;
}

export const WHOLE: readonly Leg[] = [{ from: 0, scale: 1 }];

/**
 * Size on a Gompertz curve whose asymptote changes when the plant is moved: each leg goes on from the size the
 * last one ended with. A plant larger than a leg's asymptote stays as it is.
 * @param legs ascending; the first from 0
 */
export function grownTo(
  asymptote: number,
  initial: number,
  rate: number,
  legs: readonly Leg[],
  thermalTime: number,
): number {
  if (legs.length === 1) return gompertz(asymptote * legs[0].scale, initial, rate, thermalTime);
  let size = initial;
  for (let j = 0; j < legs.length && legs[j].from < thermalTime; j++) {
    const end = Math.min(thermalTime, legs[j + 1]?.from ?? Infinity);
    const most = asymptote * legs[j].scale;
    if (size < most) size = gompertz(most, size, rate, end - legs[j].from);
  }
  return size;
}

/** Thermal time at which {@link grownTo} reaches a size; Infinity for one it never reaches. */
export function timeToGrow(
  asymptote: number,
  initial: number,
  rate: number,
  legs: readonly Leg[],
  wanted: number,
): number {
  if (legs.length === 1) return gompertzTime(asymptote * legs[0].scale, initial, rate, wanted);
  let size = initial;
  for (let j = 0; j < legs.length; j++) {
    const end = legs[j + 1]?.from ?? Infinity;
    const most = asymptote * legs[j].scale;
    if (wanted <= size) return legs[j].from;
    if (size < most) {
      const reached = legs[j].from + gompertzTime(most, size, rate, wanted);
      if (reached <= end) return reached;
      if (end < Infinity) size = gompertz(most, size, rate, end - legs[j].from);
    }
  }
  return Infinity;
}
