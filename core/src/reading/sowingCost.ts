import { say } from '../speech/say';
import { bedCost } from '../bed/cost';
import { bedGeometry } from '../bed/geometry';
import { startingTreePrices, type PriceList } from '../bed/prices';
import { addYears, dayOf, type EpochDay } from '../calendar/day';
import { containerVolume } from '../container/container';
import { betaMean } from '../chance/beta';
import type { PlannedSowing, SeedRoom } from '../contract';
import { evaporationBetween, type EvaporationAhead } from '../water/evaporationAhead';
import type { RoutePoint } from '../plan/routeSowing';
import { put, sum, type Worked } from '../working/working';
import type { Lookup } from './factsFrom';
import { seedPricePerKg } from './propagules';

/** What raising trees costs money for. */
export const costParts = ['seed', 'containers', 'filling', 'beds', 'ground', 'care', 'hands'] as const;
export type CostPart = (typeof costParts)[number];

/** What a planned sowing costs, and asks for. */
export interface SowingCost {
  /** Money by what it is for. */
  parts: Record<CostPart, number>;
  total: number;
  /** Money that is paid out for it: seed and what containers are filled with; beds, trays and hands are there. */
  paid: number;
  /** When it is paid. */
  payments: { on: EpochDay; money: number }[];
  /** Hours of sowing and moving. */
  hours: number;
  /** Litres of medium that containers are filled with. */
  mediumL: number;
  /** Litres of water over its time, where evaporation is known. */
  waterL: number | null;
  /** The most ground it takes at once, m². */
  groundM2: number;
  /** What a tree weighs when it is carried off, in its medium: 0 for bare roots, kg; null where the medium is not known. */
  carriedKg: number | null;
  /** What nobody wrote a price of, so that it is not counted. */
  unpriced: CostPart[];
}

/** What sowings are costed with. */
export interface CostTerms {
  prices: PriceList;
  hourCost: number;
  /** Price of the seed for one plant that comes up, by species; null where no price is known. */
  seedPrice: (speciesId: string) => number | null;
  /** Reference evapotranspiration ahead; null where it is not asked for. */
  evaporation: EvaporationAhead | null;
}

/** Of the reference, a bed's leaves and open ground use so much water, and cells, whose sides dry; rules of thumb. */
const BED_WATER = 0.7;
const CELL_WATER = 1.35;

/** Ground a stage takes, its trays side by side, m². */
function groundOf(
  { containerTypeId, trays, areaM2 }: PlannedSowing['stages'][number],
  containers: Lookup['containers'],
): number {
  const container = containerTypeId === null ? undefined : containers.get(containerTypeId)?.values;
  return container ? ((trays ?? 0) * container.trayLengthMm * container.trayWidthMm) / 1e6 : (areaM2 ?? 0);
}

const yearsOf = (from: EpochDay, until: EpochDay): number => (until - from) / (addYears(from, 1) - from);

/** A bed carries one sowing in a growing season, whenever that is sown: it is counted by a whole season at least. */
const seasonsOf = (from: EpochDay, until: EpochDay): number => Math.max(1, yearsOf(from, until));

/** A cost with the sum it comes of. */
interface CostItem {
  part: CostPart;
  what: string;
  money: number;
  expression: string;
}

/** What one stage costs and asks for. */
interface StageCost extends Pick<SowingCost, 'hours' | 'mediumL' | 'carriedKg'> {
  from: EpochDay;
  m2: number;
  /** Litres of water, by each mm of the reference over its time. */
  waterMm: number;
  until: EpochDay;
  items: CostItem[];
  unpriced: CostPart[];
}

type Things = Pick<Lookup, 'places' | 'containers' | 'media'>;

function stageCost(
  stage: PlannedSowing['stages'][number],
  until: EpochDay,
  { places, containers, media }: Things,
  { prices, hourCost }: CostTerms,
): StageCost {
  const { placePerM2, carePerTree } = prices.trees ?? startingTreePrices;
  const { plants, hoursPer100 } = stage;
  const from = dayOf(stage.from);
  const place = places.get(stage.placeId)?.place;
  const medium = place?.mediumId ? media.get(place.mediumId)?.values : undefined;
  const container =
    stage.containerTypeId === null ? undefined : containers.get(stage.containerTypeId)?.values;
  const m2 = groundOf(stage, containers);
  const seasons = container ? yearsOf(from, until) : seasonsOf(from, until);
  const items: CostItem[] = [
    {
      part: 'hands',
      what: say`sown or moved`,
      money: (plants * hoursPer100 * hourCost) / 100,
      expression: sum`${plants} × ${hoursPer100} ÷ 100 × ${hourCost}`,
    },
    {
      part: 'care',
      what: say`water, feed and care`,
      money: plants * seasons * carePerTree,
      expression: sum`${plants} × ${seasons} × ${carePerTree}`,
    },
    {
      part: 'ground',
      what: say`the ground it takes`,
      money: m2 * seasons * placePerM2,
      expression: sum`${m2} × ${seasons} × ${placePerM2}`,
    },
  ];
  const unpriced: CostPart[] = [];
  const told = { from, until, m2, hours: (plants * hoursPer100) / 100, items, unpriced };
  if (!container) {
    if (place?.kind === 'bed' && medium) {
      const aYear = bedCost(place.design, medium, prices, 0).value.perSeason;
      const taken = Math.min(1, m2 / bedGeometry(place.design, medium.settling).value.insideAreaM2);
      items.push({
        part: 'beds',
        what: say`its share of the bed`,
        money: aYear * taken * seasons,
        expression: sum`${aYear} × ${taken} × ${seasons}`,
      });
    } else unpriced.push('beds');
    return { ...told, mediumL: 0, carriedKg: 0, waterMm: m2 * BED_WATER };
  }
  const { cellsPerTray, trayPrice, uses = 1 } = container;
  const trays = stage.trays ?? 0;
  const cellL = containerVolume(container).value / 1000;
  const mediumL = trays * cellsPerTray * cellL;
  if (trayPrice === undefined) unpriced.push('containers');
  else
    items.push({
      part: 'containers',
      what: 'trays',
      money: (trays * trayPrice) / uses,
      expression: sum`${trays} × ${trayPrice} ÷ ${uses}`,
    });
  if (medium?.costPerM3 === undefined) unpriced.push('filling');
  else
    items.push({
      part: 'filling',
      what: 'filling',
      money: (mediumL / 1000) * medium.costPerM3,
      expression: sum`${mediumL} ÷ 1000 × ${medium.costPerM3}`,
    });
  const carriedKg = medium ? (cellL * medium.wetKgPerM3) / 1000 : null;
  return { ...told, mediumL, carriedKg, waterMm: m2 * CELL_WATER };
}

/**
 * What a planned sowing costs: trays over their uses, filling, its share of beds over their life, ground by what else could
 * stand there, care, hands, seed. Benches are counted by the time they are taken, beds by a season at least.
 */
export function sowingCost(
  { stages, until, speciesId, start }: Pick<PlannedSowing, 'stages' | 'until' | 'speciesId' | 'start'>,
  things: Things,
  terms: CostTerms,
): Worked<SowingCost> {
  const { prices, seedPrice, evaporation } = terms;
  const costs = stages.map((stage, i) =>
    stageCost(stage, dayOf(i + 1 < stages.length ? stages[i + 1].from : until), things, terms),
  );
  const items = costs.flatMap((stage, i) =>
    stage.items.map((item) => ({ ...item, what: say`Stage ${i + 1}: ${item.what}`, on: stage.from })),
  );
  const unpriced = new Set(costs.flatMap((stage) => stage.unpriced));
  const [{ plants }] = stages;
  const each = start === 'cuttings' ? 0 : seedPrice(speciesId);
  if (each === null) unpriced.add('seed');
  else if (each > 0)
    items.push({
      part: 'seed',
      what: say`Seed`,
      money: plants * each,
      expression: sum`${plants} × ${each}`,
      on: costs[0].from,
    });
  const of = (part: CostPart) => items.reduce((all, item) => all + (item.part === part ? item.money : 0), 0);
  const parts = Object.fromEntries(costParts.map((part) => [part, of(part)])) as Record<CostPart, number>;
  const total = costParts.reduce((all, part) => all + parts[part], 0);
  const overAll = (amount: (stage: StageCost) => number) =>
    costs.reduce((all, stage) => all + amount(stage), 0);
  return {
    value: {
      parts,
      total,
      paid: parts.seed + parts.filling,
      payments: items
        .filter(({ part }) => part === 'seed' || part === 'filling')
        .map(({ on, money }) => ({ on, money })),
      hours: overAll(({ hours }) => hours),
      mediumL: overAll(({ mediumL }) => mediumL),
      waterL:
        evaporation &&
        overAll(({ waterMm, from, until: ends }) => waterMm * evaporationBetween(evaporation, from, ends)),
      groundM2: Math.max(...costs.map(({ m2 }) => m2)),
      carriedKg: costs[costs.length - 1].carriedKg,
      unpriced: costParts.filter((part) => unpriced.has(part)),
    },
    working: [
      ...items.map(({ what, expression, money }) => ({
        what,
        expression,
        result: money,
        unit: prices.currency,
      })),
      {
        what: say`All together`,
        expression: items.map(({ money }) => put(money)).join(' + '),
        result: total,
        unit: prices.currency,
      },
    ],
  };
}

/** Water that planned sowings drink in the week that a Monday begins, litres. */
export function waterInWeek(
  sowings: readonly Pick<PlannedSowing, 'stages' | 'until'>[],
  monday: EpochDay,
  { containers }: Pick<Lookup, 'containers'>,
  evaporation: EvaporationAhead,
): number {
  let litres = 0;
  for (const { stages, until } of sowings)
    stages.forEach((stage, i) => {
      const from = Math.max(monday, dayOf(stage.from));
      const ends = Math.min(monday + 7, dayOf(i + 1 < stages.length ? stages[i + 1].from : until));
      if (ends <= from) return;
      const share = stage.containerTypeId === null ? BED_WATER : CELL_WATER;
      litres += groundOf(stage, containers) * share * evaporationBetween(evaporation, from, ends);
    });
  return litres;
}

/**
 * What a tree of a sowing costs: the middle of forecasts and eight in ten of them, and what it must fetch so that the sowing pays
 * with the chance it was planned for. Infinity where a forecast has none in time.
 */
export function costPerTree(
  { total }: Pick<SowingCost, 'total'>,
  { stages, wanted }: Pick<PlannedSowing, 'stages' | 'wanted'>,
  { kept }: Pick<RoutePoint, 'kept'>,
): { least: number; middle: number; most: number; mustFetch: number } {
  const last = stages[stages.length - 1];
  const each = (share: number) => (share > 0 ? total / (last.plants * last.goesOn * share) : Infinity);
  return {
    least: each(kept.p90),
    middle: each(kept.p50),
    most: each(kept.p10),
    mustFetch: total / wanted.trees,
  };
}

/** What sowings of a nursery are costed with: its prices, and its seed's as it paid them. */
export const costTerms = (
  {
    prices,
    room,
    lookup,
  }: { prices: PriceList; room: Pick<SeedRoom, 'lots'>; lookup: Pick<Lookup, 'species'> },
  hourCost: number,
  evaporation: EvaporationAhead | null = null,
): CostTerms => ({
  prices,
  hourCost,
  evaporation,
  seedPrice(speciesId) {
    const perKg = seedPricePerKg(room, speciesId);
    const values = lookup.species.get(speciesId)?.values;
    if (perKg === null || !values) return null;
    return perKg / values.seedsPerKg / (betaMean(values.viability) * betaMean(values.emergence));
  },
});
