import { autumnStart } from '../calendar/season';
import { dayOf, type EpochDay } from '../calendar/day';
import { pooledShare } from '../chance/pooledShare';
import type { SeedRoom, Species, StockBed } from '../contract';
import { stockYield, type StockPlants } from '../propagation/cuttings';
import { viabilityOutlook } from '../seed/seedViability';
import { treesFrom } from '../sowing/seedsToSow';
import { treatmentDays } from './routeLot';
import { roomToday, seedRecordsOf, storedLot } from './roomFacts';

/**
 * Plants that come up of the seed of a species in store, each bag's with a chance: what lives of it by its tests, and how the
 * species comes up.
 * @param day what is known by then
 */
export function plantsInStore(room: SeedRoom, species: Species, day: EpochDay, chance: number): number {
  const { lots, held, records } = roomToday(room, day);
  const { emergence } = species.values;
  return lots
    .filter(({ speciesId }) => speciesId === species.id)
    .reduce((sum, bag) => {
      const alive = viabilityOutlook(storedLot(bag, species, records), day).value.now.beta;
      return sum + treesFrom(held(bag.id), chance, [alive, pooledShare(emergence, []).next]);
    }, 0);
}

/** Seed of a species under treatment: when the first of it is thought to be ready, and the plants it gives with a chance. */
export interface TreatedSeed {
  readyOn: EpochDay;
  plants: number;
}

/** Batches of a species under way on a day, at the pace its treatment usually takes; null where there is none. */
export function seedUnderTreatment(
  room: SeedRoom,
  species: Species,
  day: EpochDay,
  chance: number,
): TreatedSeed | null {
  const { underWay, records } = roomToday(room, day);
  const days = treatmentDays(species);
  const batches = underWay.flatMap(({ seedLotId, startedOn, seeds }): TreatedSeed[] => {
    const bag = room.lots.find(({ id }) => id === seedLotId);
    if (bag?.speciesId !== species.id) return [];
    const alive = viabilityOutlook(storedLot(bag, species, records), day).value.now.beta;
    const plants = treesFrom(seeds, chance, [alive, pooledShare(species.values.emergence, []).next]);
    return [{ readyOn: Math.max(day, dayOf(startedOn) + days), plants }];
  });
  if (!batches.length) return null;
  return {
    readyOn: Math.min(...batches.map(({ readyOn }) => readyOn)),
    plants: batches.reduce((sum, { plants }) => sum + plants, 0),
  };
}

/** What a kilogram of the seed of a species cost, by its bags' prices: the middle one; null where none is written down. */
export function seedPricePerKg({ lots }: Pick<SeedRoom, 'lots'>, speciesId: string): number | null {
  const prices = lots
    .flatMap((bag) => (bag.speciesId === speciesId && bag.price !== null ? [bag.price] : []))
    .sort((a, b) => a - b);
  return prices.length ? prices[Math.floor((prices.length - 1) / 2)] : null;
}

/** A stock bed as it can be cut on a day: seasons since it was planted, and seasons in a row it has been cut. */
export function stockPlants(
  bed: StockBed,
  { records }: Pick<SeedRoom, 'records'>,
  day: EpochDay,
  latitudeDeg: number,
): StockPlants {
  const season = (on: EpochDay) => autumnStart(latitudeDeg, on);
  const seasons = (from: EpochDay, to: EpochDay) =>
    Math.max(0, Math.round((season(to) - season(from)) / 365.25));
  const cuts = new Set(
    seedRecordsOf(records, bed.id, 'cut').flatMap(({ on }) => (dayOf(on) <= day ? [season(dayOf(on))] : [])),
  );
  let cutsInARow = 0;
  for (let s = season(day) - 365; [...cuts].some((c) => Math.abs(c - s) < 40); s -= 365) cutsInARow++;
  return {
    plants: bed.plants,
    ageSeasons: seasons(dayOf(bed.plantedOn), day),
    yieldPerPlant: bed.yieldPerPlant,
    cutsInARow,
    restShare: bed.restShare,
  };
}

/** Cuttings taken of a stock bed since the last autumn. */
export function takenThisSeason(
  bed: StockBed,
  { records }: Pick<SeedRoom, 'records'>,
  day: EpochDay,
  latitudeDeg: number,
): number {
  const since = autumnStart(latitudeDeg, day);
  return seedRecordsOf(records, bed.id, 'cut')
    .filter(({ on }) => dayOf(on) >= since && dayOf(on) <= day)
    .reduce((sum, { values }) => sum + values.cuttings, 0);
}

/** Cuttings that the stock beds of a species give in the season of a day, less what was taken of them; null where it has none. */
export function cuttingsToTake(
  room: Pick<SeedRoom, 'stockBeds' | 'records'>,
  speciesId: string,
  day: EpochDay,
  latitudeDeg: number,
): number | null {
  const beds = room.stockBeds.filter((bed) => bed.speciesId === speciesId && dayOf(bed.plantedOn) <= day);
  if (!beds.length) return null;
  return beds.reduce(
    (sum, bed) =>
      sum +
      Math.max(
        0,
        stockYield(stockPlants(bed, room, day, latitudeDeg)).value -
          takenThisSeason(bed, room, day, latitudeDeg),
      ),
    0,
  );
}
