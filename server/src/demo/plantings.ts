import {
  dayFrom,
  dayOf,
  everyTree,
  isoOf,
  partsOf,
  seededRandom,
  seedFrom,
  type DeathCause,
  type EpochDay,
  type Guard,
  type PlantingGround,
  type Random,
  type Stake,
  type TreeState,
} from '@kauri/core';
import type { Parcel, PlantingLayout } from '@kauri/core/contract';
import { inArray } from 'drizzle-orm';
import { v7 as newId } from 'uuid';
import { species } from '../db/schema/index';
import type { Work } from '../http/context';
import { parcelsOf } from '../features/parcels/parcels';
import { plantTrees, putPlanting } from '../features/plantings/plantings';
import { beginWalk, endWalk, markTrees } from '../features/plantings/walks';

/** Trees of a species of one winter's lifts, planted together. */
interface DemoPart {
  species: string;
  form: Parcel['form'];
  count: number;
  guard: Guard;
  stake: Stake;
  planter: string;
  /** Share that lives through its first summer, and what most of the others die of. */
  lives: number;
  of: DeathCause;
}

/** A planting of the demo. */
export interface DemoPlanting {
  name: string;
  where: string;
  purpose: string;
  ground: PlantingGround;
  mulch: string;
  layout: PlantingLayout;
  /** Of the lifts of which winter: the last one, or the one before. */
  wintersAgo: 1 | 2;
  parts: readonly DemoPart[];
  /** Walks, by month and day after it was planted and how many years later. */
  walks: readonly { on: readonly [number, number]; years: number; note: string }[];
}

/** Days from the lift to the planting. */
const PLANTED_AFTER = 30;

/** Parcels of the demo that were lifted in a winter so many winters back from a day. */
function ofWinter(parcels: readonly Parcel[], today: EpochDay, wintersAgo: number): Parcel[] {
  const latest = Math.max(...parcels.map(({ since }) => dayOf(since)).filter((day) => day <= today - 60));
  return parcels.filter(
    ({ since }) => Math.round((latest - dayOf(since)) / 365) === wintersAgo - 1 && dayOf(since) <= today - 60,
  );
}

/** Plants what is told of, from what was lifted in winters gone by, and walks it in the autumns since. */
export async function plantOut(work: Work, plantings: readonly DemoPlanting[]): Promise<void> {
  const today = dayOf(work.today);
  for (const demo of plantings) {
    const { parcels } = await parcelsOf(work.tx, work.nurseryId, work.today);
    const held = parcels.filter((parcel) => parcel.held > 0);
    if (!held.length) continue;
    const codes = new Map(
      (
        await work.tx
          .select({ id: species.id, code: species.code })
          .from(species)
          .where(inArray(species.id, [...new Set(held.map(({ speciesId }) => speciesId))]))
      ).map(({ id, code }) => [id, code]),
    );
    const lifted = ofWinter(held, today, demo.wintersAgo);
    const from = demo.parts.flatMap((part) => {
      const parcel = lifted
        .filter(({ speciesId, form }) => codes.get(speciesId) === part.species && form === part.form)
        .sort((a, b) => b.held - a.held)[0];
      return parcel ? [{ part, parcel, id: newId(), count: Math.min(part.count, parcel.held) }] : [];
    });
    if (!from.length) continue;
    const on = Math.max(...from.map(({ parcel }) => dayOf(parcel.since))) + PLANTED_AFTER;
    if (on > today) continue;
    const id = newId();
    const { name, where, purpose, ground, mulch, layout } = demo;
    await putPlanting(work, id, {
      id: newId(),
      version: null,
      ...{ name, where, purpose, ground, mulch, layout, note: '' },
    });
    for (const { part, parcel, id: partId, count } of from)
      await plantTrees(work, id, {
        id: newId(),
        on: isoOf(on),
        ...{ planter: part.planter, guard: part.guard, stake: part.stake, note: '' },
        parts: [{ id: partId, parcelId: parcel.id, count }],
      });
    await walkAll(work, demo, id, from, on);
  }
}

/** Walks a planting of every tree; what was dead stays dead, and a few more die each year. */
async function walkAll(
  work: Work,
  demo: DemoPlanting,
  plantingId: string,
  parts: readonly { id: string; part: DemoPart; count: number }[],
  plantedOn: EpochDay,
): Promise<void> {
  const random = seededRandom(seedFrom(demo.name));
  const known = new Map<string, { state: TreeState; cause: DeathCause | null }>();
  const byId = new Map(parts.map(({ id, part }) => [id, part]));
  for (const { on: at, years, note } of demo.walks) {
    const on = dayFrom(partsOf(plantedOn).year + years, at[0], at[1]);
    if (on <= plantedOn || on > dayOf(work.today)) continue;
    const id = newId();
    await beginWalk(work, plantingId, { id, on: isoOf(on), kind: 'every', trees: null, again: null });
    const marks = everyTree(parts).flatMap(({ partId, numbers }) =>
      numbers.map((number) => {
        const key = `${partId} ${number}`;
        const found = foundNow(byId.get(partId)!, known.get(key), random);
        known.set(key, found);
        return { partId, number, ...found, note: '', livesAgain: false };
      }),
    );
    await markTrees(work, id, { id: newId(), marks });
    await endWalk(work, id, { id: newId(), note });
  }
}

function foundNow(
  { lives, of }: DemoPart,
  before: { state: TreeState; cause: DeathCause | null } | undefined,
  random: Random,
): { state: TreeState; cause: DeathCause | null } {
  const u = random();
  const v = random();
  if (before && (before.state === 'dead' || before.state === 'missing')) return before;
  const survives = before ? (before.state === 'dying' ? 0.4 : 1 - (1 - lives) * 0.25) : lives;
  if (u >= survives)
    return v < 0.12 ? { state: 'missing', cause: null } : { state: 'dead', cause: v < 0.75 ? of : 'unknown' };
  if (u > survives * 0.96) return { state: 'dying', cause: null };
  return { state: u > survives * 0.9 ? 'leader dead' : 'alive', cause: null };
}

const bare = (species: string, count: number, lives: number, of: DeathCause, more: Partial<DemoPart> = {}) =>
  ({
    species,
    form: 'bare-root',
    count,
    lives,
    of,
    guard: 'mesh',
    stake: 'flexible',
    planter: 'Crew',
    ...more,
  }) as const;

export const withybeckPlantings: readonly DemoPlanting[] = [
  {
    name: 'Weir bank',
    where: 'Left bank below the weir, Merrowdale',
    purpose: 'riverbank',
    ground: 'wet',
    mulch: 'bark, a stride about each',
    layout: { kind: 'rows', rows: 10, perRow: 20, rowM: 2, treeM: 1.5 },
    wintersAgo: 2,
    parts: [
      bare('ALN', 60, 0.95, 'waterlogged'),
      bare('BPE', 40, 0.87, 'voles', { planter: 'Merrowdale school' }),
      bare('SCA', 40, 0.93, 'browsed', { planter: 'Merrowdale school' }),
      bare('ALN', 30, 0.97, 'voles', { form: 'plug' }),
    ],
    walks: [
      { on: [10, 8], years: 0, note: '' },
      { on: [10, 5], years: 1, note: 'Flags on what is to be replaced.' },
    ],
  },
  {
    name: 'Long belt',
    where: 'Along the top field, Merrowdale',
    purpose: 'shelter belt',
    ground: 'dry',
    mulch: '',
    layout: {
      kind: 'outline',
      corners: [
        [-2.4034, 54.6052],
        [-2.4008, 54.6056],
        [-2.4007, 54.6054],
        [-2.4033, 54.605],
      ],
    },
    wintersAgo: 1,
    parts: [
      bare('CBE', 70, 0.66, 'heat', { guard: 'closed tube', stake: 'rigid' }),
      bare('TCO', 50, 0.6, 'heat', { guard: 'closed tube', stake: 'rigid' }),
      bare('CSA', 60, 0.86, 'drought'),
      bare('BPE', 40, 0.8, 'drought'),
    ],
    walks: [
      { on: [8, 20], years: 0, note: 'After the hot week in July: leaders burnt in the closed tubes.' },
      { on: [10, 6], years: 0, note: '' },
    ],
  },
];

export const piedraClaraPlantings: readonly DemoPlanting[] = [
  {
    name: 'Ladera del arroyo',
    where: 'Piedra Clara, sobre el arroyo',
    purpose: 'ladera',
    ground: 'rocky',
    mulch: '',
    layout: { kind: 'rows', rows: 6, perRow: 10, rowM: 3, treeM: 3 },
    wintersAgo: 1,
    parts: [bare('NPU', 40, 0.85, 'drought', { planter: 'Aylen' })],
    walks: [{ on: [4, 6], years: 1, note: '' }],
  },
];
