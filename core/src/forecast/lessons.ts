import { learnFrom, learntFigures, type Learnt, type LearntFigure, type LotTaught } from '../growth/learnt';
import type { Worked } from '../working/working';
import type { Teaching } from './teaching';

/** What one lot teaches, and of what kind it is. */
export interface LotTeaching {
  speciesId: string;
  /** Null in a bed. */
  containerTypeId: string | null;
  teaching: Teaching;
}

/** What lots of one species in one container, or in beds, teach of one figure. */
export interface Lesson extends Worked<Learnt> {
  /** The same for the same species, container and figure. */
  key: string;
  speciesId: string;
  containerTypeId: string | null;
  figure: LearntFigure;
}

/** One lot says too much of itself and too little of its kind. */
export const FEWEST_LOTS = 2;

/** What a nursery's lots teach, kind by kind, what is furthest from the species' own value first. */
export function lessonsOf(lots: readonly LotTeaching[]): Lesson[] {
  type Kind = Omit<Lesson, 'value' | 'working'> & { taught: LotTaught[]; priorSdLog: number };
  const kinds = new Map<string, Kind>();
  for (const { speciesId, containerTypeId, teaching } of lots)
    for (const figure of learntFigures) {
      const said = teaching[figure];
      if (!said) continue;
      const key = `${speciesId} ${containerTypeId ?? ''} ${figure}`;
      const kind = kinds.get(key);
      if (kind) kind.taught.push(said);
      else
        kinds.set(key, {
          key,
          speciesId,
          containerTypeId,
          figure,
          taught: [said],
          priorSdLog: said.priorSdLog,
        });
    }
  const lessons: Lesson[] = [];
  for (const { taught, priorSdLog, ...kind } of kinds.values()) {
    const learnt = taught.length >= FEWEST_LOTS ? learnFrom(taught, priorSdLog) : null;
    if (learnt) lessons.push({ ...kind, ...learnt });
  }
  const away = ({ value }: Lesson) => Math.abs(Math.log(value.factor));
  return lessons.sort((a, b) => away(b) - away(a));
}
