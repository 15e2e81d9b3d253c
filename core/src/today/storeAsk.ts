import { say } from '../speech/say';
import type { EpochDay } from '../calendar/day';
import type { Keeps } from '../lifting/storeClock';
import { shortDate, yearOf } from '../words/dates';
import { several } from '../words/numbers';
import type { ActWords } from './actWords';

/** What is seen where lifted trees lie. */
export const storeSigns = ['buds moving', 'mould', 'dry roots', 'frozen', 'warm'] as const;
export type StoreSign = (typeof storeSigns)[number];

/** What lifted trees ask for where they lie. */
export type StoreAsk = {
  /** A parcel that lies there, by which a screen finds the place. */
  parcelId: string;
  /** In the grower's words; empty where none was said. */
  place: string;
  trees: number;
} & (
  | { kind: 'look'; due: EpochDay; last: EpochDay | null; signs: readonly StoreSign[]; since: EpochDay }
  | { kind: 'leave'; name: string; keeps: Keeps }
  | { kind: 'frost'; on: EpochDay }
);

/** What lifted trees ask for, in words: where, why, and what waiting does. */
export function storeActWords(ask: StoreAsk, day: EpochDay): ActWords {
  const { place, trees } = ask;
  const date = (value: EpochDay) => shortDate(value, yearOf(day));
  const where = place || say`no place said`;
  switch (ask.kind) {
    case 'look': {
      const seen = ask.last === null ? say`not looked at yet` : say`last looked at ${date(ask.last)}`;
      const signs = ask.signs.length ? `: ${ask.signs.join(', ')}` : '';
      return {
        title: say`Look at what lies in ${where}`,
        reason: say`${several(trees, 'tree')}, there since ${date(ask.since)}, ${seen}${signs}. Roots moist, no mould, buds still?`,
        waiting: say`Dry roots and moulds go unseen until they kill (usual experience).`,
      };
    }
    case 'leave': {
      const why = {
        buds: say`in one year of ten their buds are then within two weeks of bursting`,
        store: say`moulds and used-up reserves come then, whatever their buds do (a rule of thumb)`,
        packed: say`they keep packed for two weeks (a rule of thumb)`,
      }[ask.keeps.by];
      // Its day gone by, the day is no longer what is asked for.
      if (ask.keeps.until < day)
        return {
          title: say`Say what became of ${ask.name} in ${where}: sent, planted or gone`,
          reason: say`${several(trees, 'tree')} should have left by ${date(ask.keeps.until)}: ${why}.`,
          waiting: say`Until somebody says so, the books hold trees that may not be there.`,
        };
      return {
        title: say`Send or plant ${ask.name} out of ${where} by ${date(ask.keeps.until)}`,
        reason: `${several(trees, 'tree')}: ${why}.`,
        waiting: say`Planted with buds moving, more of them die, most in a dry spring.`,
      };
    }
    case 'frost':
      return {
        title: say`Cover the roots in ${where}`,
        reason: say`The three days up to ${date(ask.on)} had a mean below freezing: the ground they lie in is taken to freeze then (a rule of thumb).`,
        waiting: say`Bare roots die at a few degrees below freezing; ${several(trees, 'tree')} lie there.`,
      };
  }
}
