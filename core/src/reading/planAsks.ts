import { dayOf } from '../calendar/day';
import type { PlannedSowing, Species } from '../contract';
import type { PlanAsk } from '../today/planAsk';

/** Planned sowings as Today asks for them. */
export const planAsks = (
  sowings: readonly PlannedSowing[],
  species: ReadonlyMap<string, Pick<Species, 'common'>>,
): PlanAsk[] =>
  sowings.map(({ id, speciesId, route, start, stages, wanted, chance }) => ({
    sowingId: id,
    name: species.get(speciesId)?.common.toLowerCase() ?? 'a species no longer in the list',
    route,
    isStuck: start === 'cuttings',
    from: dayOf(stages[0].from),
    plants: stages[0].plants,
    trees: wanted.trees,
    chance,
  }));
