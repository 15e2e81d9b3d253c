import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { seededRandom, seedFrom, shuffledIndices } from '../chance/random';

/** Where one plant of a sample stands in a bed, mm from its near left corner. */
export interface BedSpot {
  alongMm: number;
  acrossMm: number;
}

/** Which cell of which tray holds a plant of a sample; all count from 1. */
export interface CellSpot {
  tray: number;
  row: number;
  column: number;
}

/**
 * Spots for a sample in a bed: the bed is cut into about as many pieces as plants are wanted, and one spot is drawn at
 * random in each, so that no corner is forgotten and none is chosen by eye. The same key gives the same spots.
 * @param n how many, 1 or more
 * @throws Unfit when the bed has no size or no plant is wanted
 */
export function bedSpots(lengthMm: number, widthMm: number, n: number, key: string): BedSpot[] {
  if (!(lengthMm > 0 && widthMm > 0)) throw new Unfit(say`A bed has a length and a width above 0.`);
  if (!(n >= 1)) throw new Unfit(say`A sample is of one plant or more.`);
  const random = seededRandom(seedFrom(key));
  const across = Math.max(1, Math.round(Math.sqrt((n * widthMm) / lengthMm)));
  const spots: BedSpot[] = [];
  // Each strip along the bed takes its part of the sample, so that the pieces come out as even as they can.
  for (let strip = 0; strip < across; strip++) {
    const here = Math.floor(((strip + 1) * n) / across) - Math.floor((strip * n) / across);
    for (let piece = 0; piece < here; piece++)
      spots.push({
        alongMm: ((piece + random()) / here) * lengthMm,
        acrossMm: ((strip + random()) / across) * widthMm,
      });
  }
  return walkOrder(spots, lengthMm / Math.max(1, Math.round(n / across)));
}

/** From one end to the other, each stretch across as one comes to it: no stepping back. */
function walkOrder(spots: BedSpot[], stretchMm: number): BedSpot[] {
  const stretch = (s: BedSpot) => Math.floor(s.alongMm / stretchMm);
  return spots.sort((a, b) => stretch(a) - stretch(b) || a.acrossMm - b.acrossMm);
}

/** Rows and columns of a tray’s cells, from their number and the tray’s sides. */
export function trayGrid(
  cells: number,
  lengthMm: number,
  widthMm: number,
): { rows: number; columns: number } {
  let best = { rows: 1, columns: cells };
  let off = Infinity;
  for (let rows = 1; rows <= cells; rows++) {
    const columns = Math.ceil(cells / rows);
    // Square cells, and none left over, make the tray.
    const shape = Math.abs(Math.log(lengthMm / columns / (widthMm / rows)));
    const miss = shape + (columns * rows - cells) / cells;
    if (miss < off - 1e-9) [best, off] = [{ rows, columns }, miss];
  }
  return best;
}

/**
 * Cells for a sample on a bench: spread over the trays as evenly as can be, and in each a cell drawn at random.
 * @throws Unfit when there is no tray or cell, or no plant is wanted
 */
export function cellSpots(
  trays: number,
  grid: { rows: number; columns: number },
  n: number,
  key: string,
): CellSpot[] {
  const cells = grid.rows * grid.columns;
  if (!(trays >= 1 && cells >= 1)) throw new Unfit(say`There is at least one tray, of at least one cell.`);
  if (!(n >= 1)) throw new Unfit(say`A sample is of one plant or more.`);
  const random = seededRandom(seedFrom(key));
  const wanted = Math.min(Math.floor(n), trays * cells);
  const turn = shuffledIndices(trays, random);
  const spots: CellSpot[] = [];
  const drawn = new Map<number, number[]>();
  for (let i = 0; i < wanted; i++) {
    const tray = trays <= wanted ? turn[i % trays] : turn[Math.floor((i * trays) / wanted)];
    const order = drawn.get(tray) ?? [...shuffledIndices(cells, random)];
    const cell = order.pop()!;
    drawn.set(tray, order);
    spots.push({
      tray: tray + 1,
      row: Math.floor(cell / grid.columns) + 1,
      column: (cell % grid.columns) + 1,
    });
  }
  return spots.sort((a, b) => a.tray - b.tray || a.row - b.row || a.column - b.column);
}
