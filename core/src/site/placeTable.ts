import { dressedSize } from '../bed/dressedSize';
import { say } from '../speech/say';
import { readNumber } from '../tabular/fields';
import { Unfit } from '../working/unfit';

/** Columns of a table of places; lengths in metres, angles counter-clockwise from east. */
export const placeColumns = [
  'name',
  'kind',
  'length_m',
  'width_m',
  'boards',
  'like',
  'east_m',
  'north_m',
  'angle_deg',
  'medium',
] as const;

export const placeKinds = ['bed', 'bench', 'ground', 'bay'] as const;
export type PlaceKind = (typeof placeKinds)[number];

/** One place of the table, read; names of beds, designs and media as they were written, empty where left out. */
export interface PlaceLine {
  name: string;
  kind: PlaceKind;
  lengthM: number;
  widthM: number;
  /** Boards of a bed from the bottom up; empty where left out. */
  boards: string[];
  /** A bed or a kept design whose carpentry it has. */
  like: string;
  /** Where its south-west corner lies; null where left out. */
  spot: { eastM: number; northM: number } | null;
  angleDeg: number;
  medium: string;
}

/** A place as the table writes it. */
export function placeTableLine(place: PlaceLine): Record<(typeof placeColumns)[number], string | number> {
  const { name, kind, lengthM, widthM, boards, like, spot, angleDeg, medium } = place;
  return {
    name,
    kind,
    length_m: lengthM,
    width_m: widthM,
    boards: boards.join(' + '),
    like,
    east_m: spot?.eastM ?? '',
    north_m: spot?.northM ?? '',
    angle_deg: angleDeg,
    medium,
  };
}

/**
 * Reads a line of the table. Left out, a place is a bed, lies along east, and finds a spot of its own.
 * @throws Unfit with a sentence that names the column
 */
export function readPlaceLine(line: Readonly<Record<string, string | undefined>>): PlaceLine {
  const of = (column: (typeof placeColumns)[number]) => (line[column] ?? '').trim();
  const name = of('name');
  if (name === '') throw new Unfit(say`name: every place has one.`);
  const written = of('kind').toLowerCase() || 'bed';
  const kind = placeKinds.find((one) => one === written);
  if (!kind) throw new Unfit(say`kind: “${written}” is none of ${placeKinds.join(', ')}.`);
  const metres = (column: 'length_m' | 'width_m') => {
    const value = readNumber(of(column), column);
    if (value === null || !(value > 0)) throw new Unfit(say`${column}: metres, above 0.`);
    return value;
  };
  const boards =
    of('boards') === ''
      ? []
      : of('boards')
          .split(/\s*[+;,]\s*|\s+/)
          .filter(Boolean);
  if (boards.length && kind !== 'bed') throw new Unfit(say`boards: only a bed is built of boards.`);
  for (const board of boards) dressedSize(board);
  const like = of('like');
  if (like && kind !== 'bed') throw new Unfit(say`like: only a bed is built like another.`);
  const [eastM, northM] = [readNumber(of('east_m'), 'east_m'), readNumber(of('north_m'), 'north_m')];
  if ((eastM === null) !== (northM === null))
    throw new Unfit(say`east_m, north_m: both, or neither and a free spot is found.`);
  return {
    name,
    kind,
    lengthM: metres('length_m'),
    widthM: metres('width_m'),
    boards,
    like,
    spot: eastM === null || northM === null ? null : { eastM, northM },
    angleDeg: (((readNumber(of('angle_deg'), 'angle_deg') ?? 0) % 360) + 360) % 360,
    medium: of('medium'),
  };
}
