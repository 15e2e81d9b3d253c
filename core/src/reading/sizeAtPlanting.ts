import { dayOf, type EpochDay } from '../calendar/day';
import { normalCdf, normalQuantile } from '../chance/normal';
import type { Evidence } from '../contract';
import { HEIGHT_COLLAR } from '../lifting/gradeOutlook';
import type { SizeAtPlanting } from '../survival/survivalBySize';
import type { PlantedCase } from './plantingsSeen';

/** A sample tells the size at planting for so long, days: from the end of growth through the resting months. */
export const SAMPLE_TELLS_DAYS = 200;
/** Points at which the heights of a grade are looked at. */
const POINTS = 16;

/** Mean of a standard normal between two of its shares. */
function meanBetween(from: number, to: number): number {
  let sum = 0;
  for (let i = 0; i < POINTS; i++)
    sum += normalQuantile(Math.min(1 - 1e-9, Math.max(1e-9, from + ((to - from) * (i + 0.5)) / POINTS)));
  return sum / POINTS;
}

/**
 * How tall and thick the trees of a part were when they were planted: by the last samples of their lot before, heights and
 * collars both; of a grade the middle of its heights within the sample's spread, with collars as they go with heights
 * ({@link HEIGHT_COLLAR}, a rule of thumb).
 * @returns cm and mm; null where their lot was not measured in both so lately, or has hardly a tree of the grade
 */
export function sizeAtPlanting(
  sizes: Evidence['sizes'],
  { on, fromCm, toCm }: Pick<PlantedCase, 'fromCm' | 'toCm'> & { on: EpochDay },
): SizeAtPlanting | null {
  const last = (what: 'height' | 'diameter') =>
    sizes
      .filter((one) => one.what === what && dayOf(one.on) <= on && on - dayOf(one.on) <= SAMPLE_TELLS_DAYS)
      .reduce<Evidence['sizes'][number] | null>((late, one) => (late && late.on > one.on ? late : one), null);
  const [height, collar] = [last('height'), last('diameter')];
  if (!height || !collar) return null;
  const below = (cm: number | null, open: number) =>
    cm === null || height.sd === 0 ? open : normalCdf((cm - height.mean) / height.sd);
  const [from, to] = [below(fromCm, 0), below(toCm, 1)];
  if (to - from < LEAST_SHARE) return null;
  const z = from === 0 && to === 1 ? 0 : meanBetween(from, to);
  const size = {
    heightCm: height.mean + z * height.sd,
    collarMm: collar.mean + HEIGHT_COLLAR * z * collar.sd,
  };
  return size.heightCm > 0 && size.collarMm > 0 ? size : null;
}
/** A grade that fewer trees of the sample would make than this was not made of it. */
const LEAST_SHARE = 0.005;
