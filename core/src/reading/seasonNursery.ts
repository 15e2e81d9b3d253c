import { addYears, dayOf, type EpochDay } from '../calendar/day';
import type { PriceList } from '../bed/prices';
import type { Aside, KeptOrder, LotRow, PlannedSowing, RaisingRoute, SeedRoom } from '../contract';
import type { LotFacts } from '../forecast/lotFacts';
import type { SizeWanted, TreeForm } from '../plan/orderLine';
import type { LyingParcel } from '../plan/parcelStock';
import type { RouteSowing } from '../plan/routeSowing';
import type { RaisingLearnt } from '../plan/raisingLearnt';
import type { KnownWeather } from '../weather/known';
import type { Lookup } from './factsFrom';
import { asideByLine } from './lyingParcels';

/** Trees wanted that a season is planned for. */
export interface SeasonLine extends SizeWanted {
  id: string;
  speciesId: string;
  form: TreeForm;
  on: EpochDay;
  until: EpochDay;
  /** Lots set against it, which alone of what stands serve it; none: any may. */
  lots?: readonly string[];
  /** Still to be had. */
  trees: number;
  /** What one tree fetches, money, and how many times over one that is not had is felt: a promise broken weighs more. */
  worth: number;
  weight: number;
}

/** What a season is planned with. */
export interface SeasonTerms {
  /** Chance wanted of each line being there in time and to size. */
  chance: number;
  /** Hours that people have in a week for sowing and moving; null where that sets no bound. */
  hoursAWeek: number | null;
  /** What an hour costs, money. */
  hourCost: number;
  /** Trees may be bought in at so many times what they fetch; null where none are. */
  buyTimes: number | null;
  /** The most to pay for seed, filling and trees bought in; null where that sets no bound. */
  spend: number | null;
  /** Whether only seed that is in store is sown. */
  seedInStore: boolean;
}

/** A lot that stands; its facts are null where its records cannot be read. */
export interface SeasonLot {
  row: Pick<LotRow, 'id' | 'speciesId' | 'stage'>;
  facts: LotFacts | null;
}

/** A nursery as a season is planned from it. */
export interface SeasonNursery {
  today: EpochDay;
  lookup: Lookup;
  weather: KnownWeather;
  lines: readonly SeasonLine[];
  /** Routes that the nursery wrote down. */
  routes: readonly RaisingRoute[];
  /** What its lots and recorded hours say of stages of routes. */
  learnt: RaisingLearnt;
  lots: readonly SeasonLot[];
  /** Lifted trees that lie in the nursery. */
  parcels: readonly LyingParcel[];
  /** Seed in store, and stock beds. */
  room: SeedRoom;
  prices: PriceList;
  /** What is planned already: what is pinned, or begun, stays as it is. */
  planned: readonly PlannedSowing[];
  terms: SeasonTerms;
  /** Sowings run ahead already, by line, route and day: kept where one nursery is planned for on other terms too. */
  runs?: Map<string, RouteSowing>;
}

/**
 * Whether what is planned stays as it is when a season is planned anew: pinned by hand, or in the week of its sowing. Once it is
 * sown its lot stands for it; what is still in the plan after its week was not sown, and is planned anew.
 */
export function staysPut({ pinned, stages }: PlannedSowing, today: EpochDay): boolean {
  const from = dayOf(stages[0].from);
  return pinned || (from <= today && today < from + 7);
}

/** Looked ahead at most, years. */
export const SEASON_YEARS = 3;

/** How many times over a tree that is not had is felt: a promise broken, an order not met, a hope given up. */
const WEIGHTS = { promised: 2, asked: 1, hope: 0.5 } as const;

/** Lines of orders that are still to be served beyond what is set aside for them, within the days that are looked at. */
export function openLines(
  orders: readonly KeptOrder[],
  asides: readonly Aside[],
  { treeWorth }: { treeWorth: number },
  today: EpochDay,
): SeasonLine[] {
  const aside = asideByLine(asides);
  return orders.flatMap(({ buyer, lines }) =>
    lines.flatMap((line): SeasonLine[] => {
      const { id, speciesId, form, fromCm, toCm, state, count, sent, price, lots } = line;
      const [on, until] = [dayOf(line.on), dayOf(line.until)];
      const isOpen = state === 'asked' || state === 'promised' || state === 'part sent';
      const trees = count - sent - (aside.get(id) ?? 0);
      if (!isOpen || until <= today || on > addYears(today, SEASON_YEARS) || trees <= 0) return [];
      const weight = state !== 'asked' ? WEIGHTS.promised : buyer ? WEIGHTS.asked : WEIGHTS.hope;
      return [
        { id, speciesId, form, fromCm, toCm, on, until, lots, trees, worth: price ?? treeWorth, weight },
      ];
    }),
  );
}
