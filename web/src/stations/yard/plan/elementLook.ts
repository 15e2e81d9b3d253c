import { say, inWords, inSentence } from '@kauri/core';
import type { ElementKind, SiteElement } from '@kauri/core';

/** How each kind of thing on the site is drawn: hatch or line, and its words. */
export interface Look {
  words: string;
  fill: string;
  stroke: string;
  dash?: string;
  /** Stroke in metres on the plan for lines that have a width, else pixels. */
  px?: number;
}

const looks: Record<ElementKind, Look> = inWords(
  {
    outline: { words: 'Outline', fill: 'none', stroke: 'var(--ink)', px: 2 },
    surface: { words: 'Surface', fill: 'var(--rule)', stroke: 'none' },
    building: { words: 'Building', fill: 'url(#hatch)', stroke: 'var(--ink)', px: 2 },
    wall: { words: 'Wall', fill: 'none', stroke: 'var(--ink)', px: 5 },
    trees: { words: 'Tree row', fill: 'none', stroke: 'var(--leaf)', px: 7, dash: '1 10' },
    fence: { words: 'Fence', fill: 'none', stroke: 'var(--muted)', px: 1.5, dash: '8 3 1 3' },
    path: { words: 'Path', fill: 'none', stroke: 'var(--paper)' },
    standpipe: { words: 'Standpipe', fill: 'var(--water)', stroke: 'var(--water)' },
    tunnel: { words: 'Tunnel', fill: 'none', stroke: 'var(--water)', px: 2, dash: '10 4' },
    shade: { words: 'Shade', fill: 'none', stroke: 'var(--muted)', px: 2, dash: '3 3' },
    'cold-store': { words: 'Cold store', fill: 'var(--frost)', stroke: 'var(--ink)', px: 2 },
  },
  'words',
);

export function lookOf(kind: ElementKind): Look {
  return looks[kind];
}

const surfaceOpacity = { paving: 0.45, gravel: 0.65, soil: 0.85, weeds: 1 };

export function surfaceShade(element: SiteElement): number {
  return surfaceOpacity[element.ground ?? 'paving'];
}

/** An element in a few words, as a reader of the plan hears it. */
export function elementWords(element: SiteElement, show: (m: number) => string): string {
  const height = element.heightM ? say`, ${show(element.heightM)} high` : '';
  return `${element.name}, ${inSentence(lookOf(element.kind).words)}${height}`;
}
