import { say, inWords, inSentence } from '@kauri/core';
import type { CareDone, CareKind, EventKind } from '@kauri/core';
import type { Quantity } from '@kauri/core';
import { count, several } from './numbers';

export const eventWords: Record<EventKind, string> = inWords({
  browsing: 'Browsed',
  rodents: 'Rodents',
  drought: 'Drought',
  heat: 'Heat',
  frost: 'Frost',
  rot: 'Rot',
  flood: 'Flooded',
  weeds: 'Weeds',
  damage: 'Broken or rubbed',
  deaths: 'Dead, cause unknown',
  recovery: 'Recovered',
});

export const careWords: Record<CareKind, string> = inWords({
  water: 'Water',
  feed: 'Feed',
  inoculum: 'Inoculate',
  spread: 'Spread',
  pack: 'Pack tight',
  stake: 'Stake',
  weed: 'Weed',
  prune: 'Prune the top',
});

type Show = (value: number, quantity: Quantity, digits?: number) => string;

/** What to know of a kind of work, said beside the step. */
export const careSays: Record<CareKind, (show: Show) => string> = {
  water: () => say`Between fertiliser and drinking water, backflow prevention as your local code asks.`,
  feed: (show) =>
    say`Prills are rated in months at ${show(21, 'temperature', 0)}; warmer is faster. Mask and gloves with powders; damp the mix; wash hands.`,
  inoculum: (show) =>
    say`For each thousand seedlings crush some ${show(20, 'seedMass', 1)} of fresh nodules of the same genus in ${show(5, 'volume', 1)} of water, strain, and water on, two to three weeks after it came up. Not with a high-nitrogen feed.`,
  spread: () =>
    'Set cells apart before leaves meet: every second cell gives each twice the room. The lot then takes as much more bench.',
  pack: () => say`Packed tight only to travel: crowded broad leaves go tall and thin.`,
  stake: () =>
    say`A flexible stake moves with the stem and builds trunk. A rigid one holds it still: it rubs a weak spot, so only to mend a lean, tied low and loose, and off within the season.`,
  weed: () => say`Pull while small. A closed canopy shades weeds out by itself.`,
  prune: () =>
    say`Taking the top back balances a tall plant on a small plug; it costs a leader. Heights measured before it no longer count.`,
};

/** Work that was done, in a few words. */
export function careDoneWords(done: CareDone, show: Show): string {
  switch (done.what) {
    case 'water':
      return done.mm === null ? say`watered by hand` : say`watered, ${show(done.mm, 'rain', 0)}`;
    case 'feed': {
      const dose = done.gramsPerLitre === null ? '' : `, ${show(done.gramsPerLitre, 'dose')}`;
      return done.ratedMonths === null
        ? say`fed, no rating${dose}`
        : say`prills for ${done.ratedMonths} months at ${show(21, 'temperature', 0)}${dose}`;
    }
    case 'inoculum':
      return done.source === 'nodules' ? say`nodule inoculum watered on` : say`mycorrhizal inoculum`;
    case 'spread':
      return say`set apart, ${done.apart} × the room`;
    case 'pack':
      return say`packed tight`;
    case 'stake':
      return `${several(done.staked, say`${done.stake} stake`)}`;
    case 'weed':
      return { pulled: say`weeds pulled`, cut: say`weeds cut`, mulched: say`mulched against weeds` }[
        done.how
      ];
    case 'prune':
      return say`top taken back to ${show(done.toCm, 'height', 0)}`;
  }
}

/** Work that may tell in the roots; watering and weeding is done to all alike. */
const telling: Partial<Record<CareKind, string>> = inWords({
  inoculum: 'inoculated',
  feed: 'fed',
  spread: 'spread',
  stake: 'staked',
  prune: 'top pruned',
});

/** How a lot was treated by a day, as one group of those compared. */
export function treatedWords(care: readonly { on: string; done: CareDone }[], byDay: string): string {
  const done = new Set(care.filter(({ on }) => on <= byDay).map((c) => c.done.what));
  const words = Object.entries(telling).flatMap(([kind, word]) => (done.has(kind as CareKind) ? [word] : []));
  const [first, ...rest] = words;
  return first
    ? [`${first[0].toUpperCase()}${first.slice(1)}`, ...rest].join(', ')
    : say`Nothing written down`;
}

/** What befell a lot, in a few words. */
export function eventDoneWords({
  what,
  hit,
  dead,
  patch,
}: {
  what: EventKind;
  hit: number;
  dead: number;
  patch: string;
}): string {
  const where = patch ? `, ${patch}` : '';
  if (what === 'recovery') return say`${count(hit)} recovered${where}`;
  return say`${inSentence(eventWords[what])}: ${count(hit)} hit${dead ? say`, ${count(dead)} dead` : ''}${where}`;
}
