import { say } from '../speech/say';
import { normalQuantile } from '../chance/normal';
import { seededRandom } from '../chance/random';
import { Unfit } from '../working/unfit';
import { put, sum, type Worked } from '../working/working';

/** Trees of one planting that came from one lot or parcel. */
export interface WalkedPart {
  id: string;
  count: number;
}

/** Trees of a part to be looked at, by their number in planting order, from 1. */
export interface WalkTrees {
  partId: string;
  numbers: number[];
}

export interface WalkSize {
  /** Trees there are. */
  trees: number;
  /** How far the share found may lie from the true one, 0–½. */
  margin: number;
  /** Chance that it does not lie farther. */
  level: number;
  /** Share thought to live; ½ asks for most trees. */
  expected: number;
}

/**
 * Trees to look at so that the share found lies within a margin of the true one: the normal sample size for a share, fewer
 * where there are not many trees to draw from.
 * @returns whole trees, 1 … trees
 * @throws Unfit for no trees, a margin outside 0–0.5 or a level outside 0–1
 * @see Cochran 1977, Sampling Techniques, 3rd ed., 4.4
 * @example walkSize({ trees: 400, margin: 0.05, level: 0.9, expected: 0.8 }).value // 122
 */
export function walkSize({ trees, margin, level, expected }: WalkSize): Worked<number> {
  if (!(Number.isInteger(trees) && trees >= 1)) throw new Unfit(say`No tree is planted there yet.`);
  if (!(margin > 0 && margin < 0.5)) throw new Unfit(say`A margin lies between 0 and 50 %.`, 'margin');
  if (!(level > 0 && level < 1)) throw new Unfit(say`A chance lies between 0 and 100 %.`, 'level');
  // A share near 0 or 1 would ask for hardly a tree, and is not known before.
  const share = Math.min(0.95, Math.max(0.05, expected));
  const z = normalQuantile((1 + level) / 2);
  const many = (z ** 2 * share * (1 - share)) / margin ** 2;
  const few = many / (1 + (many - 1) / trees);
  const value = Math.min(trees, Math.max(1, Math.ceil(few)));
  return {
    value,
    working: [
      {
        what: say`Trees to look at, were there very many`,
        expression: sum`${z} ^ 2 × ${share} × (1 − ${share}) ÷ ${margin} ^ 2`,
        result: many,
        inputs: [
          { name: say`standard deviations for the chance`, value: put(z), origin: 'standard' },
          { name: say`share thought to live`, value: put(share), origin: 'choice' },
          { name: 'margin', value: put(margin), origin: 'choice' },
        ],
        source: 'Cochran 1977, Sampling Techniques',
      },
      {
        what: say`Trees to look at of those there are, rounded up`,
        expression: sum`${many} ÷ (1 + (${many} − 1) ÷ ${trees})`,
        result: few,
        inputs: [{ name: 'trees', value: trees, origin: 'record' }],
      },
    ],
  };
}

/**
 * Draws which trees a walk looks at: of every part its portion, at random within equal stretches of it, so that no corner is
 * left out. The same seed draws the same trees.
 * @throws Unfit where there is no tree
 */
export function drawWalk(parts: readonly WalkedPart[], size: number, seed: number): WalkTrees[] {
  const trees = parts.reduce((total, { count }) => total + count, 0);
  if (trees === 0) throw new Unfit(say`No tree is planted there yet.`);
  const random = seededRandom(seed);
  return parts
    .filter(({ count }) => count > 0)
    .map(({ id, count }) => {
      const wanted = Math.min(count, Math.max(1, Math.round((Math.min(size, trees) * count) / trees)));
      const numbers: number[] = [];
      for (let i = 0; i < wanted; i++) {
        const from = Math.floor((i * count) / wanted);
        const to = Math.floor(((i + 1) * count) / wanted);
        numbers.push(from + Math.floor(random() * (to - from)) + 1);
      }
      return { partId: id, numbers };
    });
}

/** Every tree, in planting order. */
export const everyTree = (parts: readonly WalkedPart[]): WalkTrees[] =>
  parts
    .filter(({ count }) => count > 0)
    .map(({ id, count }) => ({ partId: id, numbers: Array.from({ length: count }, (_, i) => i + 1) }));

/** Row and place in the row of a tree, both from 1; null where it was not planted in rows. */
export function placeInRows(
  position: number,
  { perRow }: { perRow: number | null },
): { row: number; at: number } | null {
  if (perRow === null) return null;
  return { row: Math.floor((position - 1) / perRow) + 1, at: ((position - 1) % perRow) + 1 };
}
