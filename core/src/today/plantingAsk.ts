import { say, inWords } from '../speech/say';
import type { EpochDay } from '../calendar/day';
import type { Guard } from '../survival/trees';
import { shortDate, yearOf } from '../words/dates';
import { several } from '../words/numbers';
import type { ActWords } from './actWords';

/** What a planting asks for. */
export type PlantingAsk = {
  plantingId: string;
  name: string;
  /** Trees it is about. */
  trees: number;
} & (
  | { kind: 'walk'; due: EpochDay; /** Autumns since it was planted, from 1. */ autumn: number }
  | {
      kind: 'heat';
      on: EpochDay;
      guard: Exclude<Guard, 'none'>;
      insideC: number;
      airC: number;
      scorch: boolean;
    }
);

const guardWords: Record<Exclude<Guard, 'none'>, string> = inWords({
  mesh: 'mesh guards',
  'vented tube': 'vented tubes',
  'closed tube': 'closed tubes',
});

const autumnWords = inWords(['Its first autumn', 'Its second autumn', 'Its third autumn']);

/** What a planting asks for, in words: which, why, and what waiting does. */
export function plantingActWords(ask: PlantingAsk, day: EpochDay): ActWords {
  const { name, trees } = ask;
  const date = (value: EpochDay) => shortDate(value, yearOf(day));
  if (ask.kind === 'walk')
    return {
      title: say`Walk ${name}: which trees live?`,
      reason: say`${autumnWords[ask.autumn - 1]} since it was planted, from ${date(ask.due)}: what died in summer shows before the leaves fall (a rule of thumb).`,
      waiting: say`Walked in winter, a tree at rest is taken for dead more easily; what is to be replaced is ordered late.`,
    };
  const { on, guard, scorch } = ask;
  return {
    title: say`Raise, vent or take off the ${guardWords[guard]} in ${name}`,
    reason: say`By the day’s heat of ${date(on)} the air in them came ${scorch ? say`to where leaders scorch` : say`near to where leaders scorch`} (full sun and still air; a rule of thumb). The planting shows how warm.`,
    waiting: say`${scorch ? say`Each such day` : say`A day a little hotter`} can burn the leaders of ${several(trees, 'tree')}. Where deer come, vent or raise them rather than take them off.`,
  };
}
