import { dayOf, type EpochDay } from '../calendar/day';
import type { Hold } from '../contract';
import { holdState, type HoldState } from '../growing/humidityHold';
import { survivalGroups, type SurvivalGroups } from '../survival/survivalGroups';
import type { HoldAsk } from '../today/holdAsk';

/** How far a hold has come on a day. */
export const stateOfHold = ({ begunOn, steps }: Pick<Hold, 'begunOn' | 'steps'>, day: EpochDay): HoldState =>
  holdState(
    dayOf(begunOn),
    steps.map(({ on, what }) => ({ on: dayOf(on), what })),
    day,
  );

/** Holds whose next step is due on a day, as Today asks for them. */
export function holdAsks(holds: readonly Hold[], day: EpochDay): HoldAsk[] {
  return holds
    .filter(({ begunOn, ended }) => dayOf(begunOn) <= day && (ended === null || dayOf(ended.on) > day))
    .map((hold) => ({
      lotId: hold.lotId,
      code: hold.code,
      trees: hold.count,
      state: stateOfHold(hold, day),
    }))
    .filter(({ state }) => state.next.on <= day);
}

/** Share that came through its hold, by why it was held; of one species where it is named. */
export function throughHolds(holds: readonly Hold[], speciesId?: string): SurvivalGroups {
  return survivalGroups(
    holds.flatMap(({ cause, count, ended, speciesId: of }) =>
      ended && (speciesId === undefined || of === speciesId)
        ? [{ group: cause, alive: Math.min(count, ended.alive), dead: Math.max(0, count - ended.alive) }]
        : [],
    ),
  );
}
