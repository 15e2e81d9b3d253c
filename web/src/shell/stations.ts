import { inWords } from '@kauri/core';
import {
  ArrowUpFromLine,
  Asterisk,
  Bean,
  BookOpenText,
  LayoutGrid,
  ListChecks,
  Sprout,
  Trees,
} from 'lucide-vue-next';
import type { Component } from 'vue';

export interface Station {
  name: string;
  words: string;
  icon: Component;
  key: string;
}

/** The stations that are built, in the order of the work. */
export const stations: readonly Station[] = inWords(
  [
    { name: 'today', words: 'Today', icon: ListChecks, key: '1' },
    { name: 'yard', words: 'Yard', icon: LayoutGrid, key: '2' },
    { name: 'seed', words: 'Seed', icon: Bean, key: '3' },
    { name: 'plan', words: 'Plan', icon: BookOpenText, key: '4' },
    { name: 'grow', words: 'Grow', icon: Sprout, key: '5' },
    { name: 'roots', words: 'Roots', icon: Asterisk, key: '6' },
    { name: 'lift', words: 'Lift', icon: ArrowUpFromLine, key: '7' },
    { name: 'planted', words: 'Planted', icon: Trees, key: '8' },
  ],
  'words',
);
