import { dayOf, type EpochDay } from '../calendar/day';
import { autumnStart } from '../calendar/season';
import type { PlannedSowing, Species } from '../contract';
import type { LimitTaken } from '../plan/season';
import type { SeasonNursery } from './seasonNursery';
import { cuttingsToTake, plantsInStore, seedUnderTreatment } from './propagules';
import { treatmentDays } from './routeLot';

/** What a season has only so much of: money, plants of the seed in store or under treatment, cuttings of stock beds. */
type SeasonLimit = { of: 'money' } | { of: 'seed' | 'treated' | 'cuttings'; speciesId: string };

/** The limits of a season as its ways come to them. */
export interface SeasonLimits {
  most: number[];
  what: SeasonLimit[];
  /** The limit of money; null where there is none. */
  money: number | null;
  /** What a sowing takes of them. */
  takes: (sowing: PlannedSowing, paid: number) => LimitTaken[];
  /** Share of a sowing that there is seed, or cuttings, for; 1 or more for all of it. */
  shareOf: (sowing: PlannedSowing) => number;
  /** First day on which seed of a species can be ready to grow. */
  readyFrom: (species: Species) => EpochDay;
}

/** Opens the limits that a season's terms set; those of a species are looked up when first asked for. */
export function seasonLimits({ terms, room, lookup, today, weather }: SeasonNursery): SeasonLimits {
  const { latitudeDeg } = weather.outlook.site;
  const most: number[] = [];
  const what: SeasonLimit[] = [];
  const known = new Map<string, number | null>();
  const limit = (key: string, of: SeasonLimit, amount: () => number | null): number | null => {
    if (!known.has(key)) {
      const value = amount();
      known.set(key, value === null ? null : most.push(value) - 1);
      if (value !== null) what.push(of);
    }
    return known.get(key)!;
  };
  const money = limit('money', { of: 'money' }, () => terms.spend);
  const treatedOf = (species: Species) => seedUnderTreatment(room, species, today, terms.chance);
  /** What is sown, by the limit it takes from; none where there is as much as one likes. */
  const limitOf = ({ speciesId, start, stages: [{ from }] }: PlannedSowing): number | null => {
    const species = lookup.species.get(speciesId)!;
    const on = Math.max(today, dayOf(from));
    // Stock beds give anew every season.
    if (start === 'cuttings')
      return limit(
        `cuttings ${speciesId} ${autumnStart(latitudeDeg, on)}`,
        { of: 'cuttings', speciesId },
        () => cuttingsToTake(room, speciesId, on, latitudeDeg),
      );
    // Sown before any seed begun today is ready, it is of what is under treatment.
    if (start === 'treated seed' && on < today + treatmentDays(species))
      return limit(
        `treated ${speciesId}`,
        { of: 'treated', speciesId },
        () => treatedOf(species)?.plants ?? 0,
      );
    if (!terms.seedInStore) return null;
    return limit(`seed ${speciesId}`, { of: 'seed', speciesId }, () =>
      plantsInStore(room, species, today, terms.chance),
    );
  };
  const propagules = (sowing: PlannedSowing): LimitTaken[] => {
    const at = limitOf(sowing);
    return at === null ? [] : [{ limit: at, amount: sowing.stages[0].plants }];
  };
  return {
    most,
    what,
    money,
    takes: (sowing, paid) => [
      ...(money === null ? [] : [{ limit: money, amount: paid }]),
      ...propagules(sowing),
    ],
    shareOf: (sowing) =>
      Math.min(
        Infinity,
        ...propagules(sowing).map(({ limit: at, amount }) => Math.max(0, most[at]) / amount),
      ),
    readyFrom: (species) => {
      const anew = today + treatmentDays(species);
      return Math.min(anew, treatedOf(species)?.readyOn ?? Infinity);
    },
  };
}
