import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import type { Point } from './shapes';

/** An upright box on the plan, m. */
export interface Box {
  west: number;
  east: number;
  south: number;
  north: number;
}

export function boxOf(points: readonly Point[]): Box {
  const e = points.map((p) => p[0]);
  const n = points.map((p) => p[1]);
  return { west: Math.min(...e), east: Math.max(...e), south: Math.min(...n), north: Math.max(...n) };
}

/** One box about several. */
export function boxAround(boxes: readonly Box[]): Box {
  return {
    west: Math.min(...boxes.map((b) => b.west)),
    east: Math.max(...boxes.map((b) => b.east)),
    south: Math.min(...boxes.map((b) => b.south)),
    north: Math.max(...boxes.map((b) => b.north)),
  };
}

/**
 * A move drawn to what is near: an edge in line with another's edge, or a path's width from it, else the grid.
 * @param reachM how near is near
 * @param pathM clear width that is drawn to beside other things, m
 */
export function snapMove(
  moving: Box,
  move: Point,
  others: readonly Box[],
  { gridM, reachM, pathM }: { gridM: number; reachM: number; pathM: number },
): Point {
  const axis = (low: number, high: number, by: number, edges: (b: Box) => [number, number]) => {
    let best = Infinity;
    for (const other of others) {
      const [from, to] = edges(other);
      // In line at either edge, touching at either edge, or a path away on either side.
      for (const to0 of [from - low, to - high, from - high, to - low, to + pathM - low, from - pathM - high])
        if (Math.abs(to0 - by) < Math.abs(best - by)) best = to0;
    }
    if (Math.abs(best - by) <= reachM) return best;
    return Math.round((low + by) / gridM) * gridM - low;
  };
  const near = others.length > 0;
  const tidy = (m: number) => Math.round(m * 1000) / 1000;
  return [
    tidy(near || gridM > 0 ? axis(moving.west, moving.east, move[0], (b) => [b.west, b.east]) : move[0]),
    tidy(near || gridM > 0 ? axis(moving.south, moving.north, move[1], (b) => [b.south, b.north]) : move[1]),
  ];
}

export const alignments = ['west', 'east', 'south', 'north', 'middle-east', 'middle-north'] as const;
export type Alignment = (typeof alignments)[number];

/** How far each box moves to line up with the outermost, or on the common middle. */
export function alignMoves(boxes: readonly Box[], to: Alignment): Point[] {
  const all = boxAround(boxes);
  return boxes.map((b) => {
    switch (to) {
      case 'west':
        return [all.west - b.west, 0];
      case 'east':
        return [all.east - b.east, 0];
      case 'south':
        return [0, all.south - b.south];
      case 'north':
        return [0, all.north - b.north];
      case 'middle-east':
        return [(all.west + all.east) / 2 - (b.west + b.east) / 2, 0];
      case 'middle-north':
        return [0, (all.south + all.north) / 2 - (b.south + b.north) / 2];
    }
  });
}

/**
 * Where copies of a box stand in rows and columns with a path between; the first is the box itself.
 * @throws Unfit when a count is below 1, more than 200 in all, or the path is below 0
 */
export function arrayMoves(
  box: Box,
  columns: number,
  rows: number,
  pathEastM: number,
  pathNorthM: number,
): Point[] {
  if (!(Number.isInteger(columns) && Number.isInteger(rows) && columns >= 1 && rows >= 1))
    throw new Unfit(say`Columns and rows are whole numbers from 1.`);
  if (columns * rows > 200) throw new Unfit(say`At most 200 at once.`);
  if (!(pathEastM >= 0 && pathNorthM >= 0)) throw new Unfit(say`A path cannot be narrower than nothing.`);
  const [w, h] = [box.east - box.west, box.north - box.south];
  return Array.from({ length: columns * rows }, (_, i) => [
    (i % columns) * (w + pathEastM),
    Math.floor(i / columns) * (h + pathNorthM),
  ]);
}
