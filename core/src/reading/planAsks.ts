import { inSentence, say } from '../speech/say';
import { dayOf, type EpochDay } from '../calendar/day';
import type { PlannedSowing, SeedRoom, Species } from '../contract';
import type { PlanAsk } from '../today/planAsk';
import { treatmentsOf } from './planLists';

/** A batch begun so long before a treatment must begin is taken to be for it, days. */
const EARLY_DAYS = 60;

/**
 * Planned sowings as Today asks for them on a day, parts of one sowing together; with the treatment of their seed, once for all
 * of a species and day, where no batch of it was begun.
 */
export function planAsks(
  sowings: readonly PlannedSowing[],
  species: ReadonlyMap<string, Species>,
  { lots, treatments }: Pick<SeedRoom, 'lots' | 'treatments'>,
  day: EpochDay,
): PlanAsk[] {
  const asks = new Map<string, PlanAsk>();
  const askOf = new Map<string, PlanAsk>();
  for (const { id, lineId, speciesId, route, start, stages, wanted, chance } of sowings) {
    const [{ from, plants }] = stages;
    const key = `${lineId ?? id} ${speciesId} ${route} ${from}`;
    const same = asks.get(key);
    if (same) {
      same.plants += plants;
      same.trees += wanted.trees;
    } else
      asks.set(key, {
        sowingId: id,
        name: inSentence(species.get(speciesId)?.common ?? say`a species no longer in the list`),
        route,
        isStuck: start === 'cuttings',
        from: dayOf(from),
        treat: null,
        plants,
        trees: wanted.trees,
        chance,
      });
    askOf.set(id, asks.get(key)!);
  }
  const speciesOfBag = new Map(lots.map((bag) => [bag.id, bag.speciesId]));
  for (const { speciesId, on, days, sowings: of } of treatmentsOf(sowings, species)) {
    const isBegun = treatments.some(({ seedLotId, startedOn }) => {
      const begun = dayOf(startedOn);
      return speciesOfBag.get(seedLotId) === speciesId && begun <= day && begun >= on - EARLY_DAYS;
    });
    const plants = of.reduce((sum, { stages }) => sum + stages[0].plants, 0);
    if (!isBegun) askOf.get(of[0].id)!.treat = { on, days, plants };
  }
  return [...asks.values()];
}
