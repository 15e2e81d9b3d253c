import {
  treeStateNames,
  type DeathCause,
  type Found,
  type Guard,
  type PlantingGround,
  type Stake,
  type TreeState,
  say,
  inWords,
} from '@kauri/core';
import { count } from './numbers';

export const treeStateWords: Record<TreeState, string> = inWords({
  alive: 'alive',
  'leader dead': 'leader dead',
  dying: 'dying',
  dead: 'dead',
  missing: 'missing',
});

export const deathWords: Record<DeathCause, string> = inWords({
  drought: 'drought',
  heat: 'heat in its guard',
  browsed: 'browsed',
  voles: 'voles',
  weeds: 'weeds',
  waterlogged: 'waterlogged',
  frost: 'frost',
  wind: 'wind',
  roots: 'roots',
  mown: 'mown or strimmed',
  unknown: 'not known',
});

export const groundWords: Record<PlantingGround, string> = inWords({
  dry: 'dry ground',
  moist: 'moist ground',
  wet: 'wet ground',
  rocky: 'rocky ground',
  shaded: 'shaded ground',
});

export const guardWords: Record<Guard, string> = inWords({
  none: 'no guard',
  mesh: 'mesh guard',
  'vented tube': 'vented tube',
  'closed tube': 'closed tube',
});

export const stakeWords: Record<Stake, string> = inWords({
  none: 'no stake',
  flexible: 'flexible stake',
  rigid: 'rigid stake',
});

/** A closed set as the options of a field. */
export const optionsOf = <T extends string>(words: Record<T, string>): { value: T; words: string }[] =>
  (Object.keys(words) as T[]).map((value) => ({ value, words: words[value] }));

/** What a walk found, the states that were seen: “34 alive, 2 leader dead, 5 dead”. */
export function foundWords(found: Readonly<Partial<Found>>): string {
  const seen = treeStateNames.filter((state) => found[state]);
  return (
    seen.map((state) => `${count(found[state]!)} ${treeStateWords[state]}`).join(', ') || say`none looked at`
  );
}
