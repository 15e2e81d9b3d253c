import { say } from '../speech/say';
import { put, sum, type Worked } from '../working/working';
import type { Grade } from './grades';

/** Trees up to these heights, cm, are heeled in alike; the last class has no end. */
export const trenchClasses: readonly { fromCm: number | null; toCm: number | null }[] = [
  { fromCm: null, toCm: 30 },
  { fromCm: 30, toCm: 60 },
  { fromCm: 60, toCm: 90 },
  { fromCm: 90, toCm: 120 },
  { fromCm: 120, toCm: null },
];

/** How trees are heeled in here. */
export interface Trench {
  /** From one row of trench to the next, cm. */
  rowsApartCm: number;
  /** Trees that a metre of row takes, one for each of `trenchClasses`. */
  perM: readonly number[];
}

/** Where nothing of the nursery’s own is kept: rules of thumb for trees laid side by side, roots covered, bundles opened. */
export const usualTrench: Trench = { rowsApartCm: 40, perM: [100, 60, 40, 25, 12] };

/** Trees that want a place in a trench. */
export interface Heeled extends Grade {
  count: number;
}

/** A grade that is open below is taken as this share of where it ends, one that is open above as this much of where it begins. */
const OPEN_BELOW = 0.75;
const OPEN_ABOVE = 1.15;

/**
 * Trees of a grade that a metre of row takes, by the middle of its heights.
 * @returns trees per m; null where nothing is said of their heights
 */
export function treesAMetre({ fromCm, toCm }: Grade, { perM }: Trench): number | null {
  if (fromCm === null && toCm === null) return null;
  const middle =
    fromCm === null ? toCm! * OPEN_BELOW : toCm === null ? fromCm * OPEN_ABOVE : (fromCm + toCm) / 2;
  return perM[trenchClasses.findIndex(({ toCm: end }) => end === null || middle < end)];
}

/** What some trees want of a trench. */
export interface TrenchWanted {
  /** Row of trench, m. */
  metres: number;
  /** Trees of which no height is said: they are not in it. */
  unsized: number;
}

/** Row of trench that some trees take. */
export function trenchWanted(trees: readonly Heeled[], trench: Trench): TrenchWanted {
  const wanted = { metres: 0, unsized: 0 };
  for (const one of trees) {
    const perM = treesAMetre(one, trench);
    if (perM === null) wanted.unsized += one.count;
    else wanted.metres += one.count / perM;
  }
  return wanted;
}

/** What a bay may lack of another row and have it, rows. */
const HAIR = 0.001;

/** Room of a bay. */
export interface TrenchRoom {
  rows: number;
  /** Row of trench it has, is taken by what lies there, and is left; m. Left is below 0 where more lies there than fits. */
  metres: number;
  taken: number;
  left: number;
  /** Trees there of which no height is said. */
  unsized: number;
}

/**
 * Row of trench in a bay, how much of it is taken, and what is left. Rows run along its longer side.
 * @param bay its sides, mm
 * @param lying what lies in it
 */
export function trenchRoom(
  bay: { lengthMm: number; widthMm: number },
  lying: readonly Heeled[],
  trench: Trench,
): Worked<TrenchRoom> {
  const long = Math.max(bay.lengthMm, bay.widthMm) / 1000;
  const across = Math.min(bay.lengthMm, bay.widthMm) / 1000;
  const apart = trench.rowsApartCm / 100;
  // A bay narrower than rows are apart is one row; one that lacks a hair of the next has it.
  const rows = Math.max(1, Math.floor(across / apart + HAIR));
  const metres = rows * long;
  const { metres: taken, unsized } = trenchWanted(lying, trench);
  const left = metres - taken;
  const shares = lying.flatMap((one) => {
    const perM = treesAMetre(one, trench);
    return perM === null ? [] : [sum`${one.count} ÷ ${perM}`];
  });
  return {
    value: { rows, metres, taken, left, unsized },
    working: [
      {
        what: say`Rows of trench in the bay`,
        expression: sum`max(1, floor(${across} ÷ ${apart} + ${HAIR}))`,
        result: rows,
        inputs: [
          { name: say`across the bay`, value: put(across), unit: 'm', origin: 'record' },
          { name: say`rows apart`, value: put(apart), unit: 'm', origin: 'choice' },
        ],
      },
      {
        what: say`Trench taken by what lies there`,
        expression: shares.join(' + ') || '0',
        result: taken,
        unit: 'm',
        source: say`trees a metre by height: a rule of thumb until you set your own`,
      },
      {
        what: say`Trench left`,
        expression: sum`${rows} × ${long} − ${taken}`,
        result: left,
        unit: 'm',
        inputs: [{ name: say`along the bay`, value: put(long), unit: 'm', origin: 'record' }],
      },
    ],
  };
}

/** Trees of a grade that what is left of a bay still takes; null where nothing is said of their heights. */
export function treesThatFit(leftM: number, grade: Grade, trench: Trench): number | null {
  const perM = treesAMetre(grade, trench);
  return perM === null ? null : Math.max(0, Math.floor(leftM * perM + 1e-9));
}
