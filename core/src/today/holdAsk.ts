import { say } from '../speech/say';
import type { EpochDay } from '../calendar/day';
import type { HoldState } from '../growing/humidityHold';
import { OPENINGS } from '../growing/humidityHold';
import { several } from '../words/numbers';
import type { ActWords } from './actWords';

/** A lot held in humid air, as Today asks for its next step. */
export interface HoldAsk {
  lotId: string;
  code: string;
  trees: number;
  state: HoldState;
}

/** The next step of a hold, in words. */
export function holdActWords({ code, state }: HoldAsk, day: EpochDay): ActWords {
  const { next, opened, flushes, wilted } = state;
  const late = day - next.on;
  const since = late > 0 ? say`, ${several(late, 'day')} past its day` : '';
  switch (next.what) {
    case 'look':
      return {
        title: say`Look into the hold of ${code}`,
        reason: say`Shut in humid air, ${several(flushes, 'flush', 'flushes')} of leaves seen${since}: it opens after two, or after one and three weeks.`,
        waiting: say`Mould and dry fibre go unseen; plants that could be opened grow soft (usual experience).`,
      };
    case 'open':
      return {
        title: say`Open ${code} a little more: step ${opened + 1} of ${OPENINGS}`,
        reason: say`${wilted ? say`They wilted and were shut again by a step` : opened ? say`Opened ${several(opened, 'time')}` : say`${several(flushes, 'flush', 'flushes')} of leaves seen`}${since}. Evening or a dull day is best; note it where they wilt.`,
        waiting: say`A day left out costs a day; opened by two steps at once they wilt (usual experience).`,
      };
    case 'light':
      return {
        title: say`Move ${code} to more light`,
        reason: say`Quite open; ${several(state.light, 'step')} of three from shade to sun${since}.`,
        waiting: say`Kept in shade they grow long and soft (usual experience).`,
      };
    case 'end':
      return {
        title: say`${code} is through its hold: count what lives`,
        reason: say`Open and in full light. What came through tells how the next one is done.`,
        waiting: say`Until it is ended Today asks each day.`,
      };
  }
}
