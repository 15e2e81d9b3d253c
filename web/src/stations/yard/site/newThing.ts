import { shapeOfKind, type ElementKind, type Point, type SiteElement } from '@kauri/core';
import { v7 as newId } from 'uuid';
import { lookOf } from '../plan/elementLook';

/** Sizes a new thing starts with, m: a rectangle or a line about the middle of the window. */
const sizes: Record<ElementKind, [number, number]> = {
  outline: [30, 20],
  surface: [10, 6],
  building: [8, 5],
  wall: [8, 0],
  trees: [12, 0],
  fence: [15, 0],
  path: [10, 0],
  standpipe: [0, 0],
  tunnel: [18, 6],
  shade: [10, 6],
  'cold-store': [4, 3],
};
const values: Partial<Record<ElementKind, Partial<SiteElement>>> = {
  surface: { ground: 'paving' },
  building: { heightM: 5 },
  wall: { heightM: 2 },
  trees: { heightM: 10, passesInLeaf: 0.15, passesBare: 0.65 },
  fence: { heightM: 2 },
  path: { widthM: 0.9, main: false },
  standpipe: { flowLpm: 14 },
  tunnel: { heightM: 3, passesInLeaf: 0.78, passesBare: 0.78 },
  shade: { heightM: 2.4, passesInLeaf: 0.5, passesBare: 0.5 },
  'cold-store': { heightM: 2.6 },
};

/** A new thing of a kind, of ordinary size, about a point rounded to the half metre. */
export function newElement(kind: ElementKind, about: Point, others: readonly SiteElement[]): SiteElement {
  const [e, n] = about.map((m) => Math.round(m * 2) / 2);
  const [l, w] = sizes[kind];
  const points: Point[] =
    shapeOfKind[kind] === 'point'
      ? [[e, n]]
      : shapeOfKind[kind] === 'line'
        ? [
            [e - l / 2, n],
            [e + l / 2, n],
          ]
        : [
            [e - l / 2, n - w / 2],
            [e + l / 2, n - w / 2],
            [e + l / 2, n + w / 2],
            [e - l / 2, n + w / 2],
          ];
  const words = lookOf(kind).words;
  return {
    id: newId(),
    kind,
    name: freeName(
      words,
      others.map((o) => o.name),
    ),
    points,
    ...values[kind],
  };
}

/** A name nobody has yet: the one given, or with the next number. */
export function freeName(wanted: string, taken: readonly string[]): string {
  if (!taken.includes(wanted)) return wanted;
  const match = /^(.*?)(\d+)?$/.exec(wanted)!;
  const stem = match[1].trimEnd();
  let number = Number(match[2] ?? 1);
  while (taken.includes(`${stem} ${number}`)) number++;
  return `${stem} ${number}`;
}
