import { inWords } from '@kauri/core';
import type { CostPart } from '@kauri/core';

/** What raising trees costs money for, in a word, and how it is drawn. */
export const partWords: Record<CostPart, { words: string; colour: string }> = inWords(
  {
    seed: { words: 'seed', colour: 'bg-leaf-mid' },
    containers: { words: 'trays', colour: 'bg-frost' },
    filling: { words: 'filling', colour: 'bg-soil-deep' },
    beds: { words: 'the bed', colour: 'bg-root-mid' },
    ground: { words: 'ground', colour: 'bg-rule' },
    care: { words: 'water, feed, care', colour: 'bg-water' },
    hands: { words: 'sowing and moving', colour: 'bg-muted' },
  },
  'words',
);
