import {
  addYears,
  dayFrom,
  dayOf,
  partsOf,
  isoOf,
  protocolsFrom,
  type BatchStore,
  type EpochDay,
  type Lookup,
  type School,
  type Store,
} from '@kauri/core';
import { v7 as newId } from 'uuid';
import { addStockBed, checkLayer, cutStockBed, makeLayer, severLayer } from '../features/seed/propagation';
import { moveSeed, receiveSeed, testSeed } from '../features/seed/store';
import { checkTreatment, startTreatments } from '../features/seed/treatments';
import type { Work } from '../http/context';

/** A demo bag: collected on the latest such day (north; half a year on in the south), or some years before that. */
export interface DemoSeedLot {
  code: string;
  species: string;
  collected: readonly [month: number, day: number, yearsBack?: number];
  grams: number;
  perKg: number;
  store: Store;
  tempC: number;
  price: number;
  place: string;
  spot: readonly [latitude: number, longitude: number, altitude: number];
  /** Days after it was collected, kind, tried, passed; those still to come are left out. */
  tests?: readonly (readonly [after: number, kind: 'germination' | 'cut' | 'float', n: number, k: number])[];
  note?: string;
}

/** A demo batch under treatment: its looks are days before today, seeds looked at, radicles. */
interface DemoBatch {
  bag: string;
  name: string;
  school: School;
  phases: string;
  started: number;
  grams: number;
  looks?: readonly (readonly [ago: number, n: number, radicles: number])[];
}

interface DemoStockBed {
  species: string;
  name: string;
  plants: number;
  planted: number;
  yieldPerPlant: number;
  note: string;
  cuts: readonly (readonly [ago: number, cuttings: number])[];
}

interface DemoLayer {
  species: string;
  tree: string;
  branchMm: number;
  made: number;
  looks: readonly (readonly [ago: number, roots: 'none' | 'few' | 'many'])[];
  severed?: readonly [ago: number, outcome: 'rooted' | 'failed'];
}

export interface DemoSeedRoom {
  bags: readonly DemoSeedLot[];
  batches: readonly DemoBatch[];
  stockBeds: readonly DemoStockBed[];
  layers: readonly DemoLayer[];
}

/** A batch among all: two bags may have one of the same name. */
export const batchKey = (bag: string, name: string) => `${bag} ${name}`;

/** Ids of what the seed room holds, by bag code, batch key and stock bed name, for the lots begun from it. */
export interface SeedIds {
  bags: Map<string, string>;
  batches: Map<string, string>;
  stockBeds: Map<string, string>;
}

const storeOf = (school: School): BatchStore =>
  school === 'indoors'
    ? { kind: 'fixed', warmC: 20, coldC: 3 }
    : { kind: 'outdoors', warmerByC: school === 'tub' ? 1 : 0 };

/**
 * The demo's seed room, dated back from today.
 * @param arms batches that lots of the demo were sown from, with the day their treatment began
 */
export async function makeSeedRoom(
  work: Work,
  room: DemoSeedRoom,
  arms: readonly Begun[],
  lookup: Lookup,
  latitudeDegOfNursery: number,
): Promise<SeedIds> {
  const today = dayOf(work.today);
  const ago = (days: number) => isoOf(today - days);
  const speciesId = (code: string) =>
    [...lookup.species.values()].find((s) => (s as { code?: string }).code === code)!.id;
  const ids: SeedIds = { bags: new Map(), batches: new Map(), stockBeds: new Map() };
  const batches = batchesOf(room, arms, today);
  for (const bag of room.bags) {
    const id = newId();
    const collectedOn = collectedDay(bag, batches, latitudeDegOfNursery, today);
    ids.bags.set(bag.code, id);
    const [latitudeDeg, longitudeDeg, altitudeM] = bag.spot;
    await receiveSeed(work, {
      id,
      code: bag.code,
      speciesId: speciesId(bag.species),
      collectedOn: isoOf(collectedOn),
      receivedOn: isoOf(collectedOn + RECEIVED_AFTER),
      seedsPerKg: bag.perKg,
      moisturePct: null,
      store: bag.store,
      storeTempC: bag.tempC,
      price: bag.price,
      provenance: {
        place: bag.place,
        latitudeDeg,
        longitudeDeg,
        altitudeM,
        zone: '',
        collector: 'Isla',
        parents: 20,
      },
      grams: bag.grams,
      seeds: null,
      note: bag.note ?? '',
    });
    for (const [after, kind, n, k] of bag.tests ?? []) {
      if (collectedOn + after > today) continue;
      await testSeed(work, id, {
        id: newId(),
        on: isoOf(collectedOn + after),
        kind,
        n,
        k,
        daysRun: kind === 'germination' ? 28 : null,
        counts: kind === 'germination' ? dailyCounts(k) : [],
        note: '',
      });
    }
  }
  for (const batch of batches) {
    const id = newId();
    ids.batches.set(batchKey(batch.bag, batch.name), id);
    await startTreatments(work, {
      id: newId(),
      seedLotId: ids.bags.get(batch.bag)!,
      startedOn: isoOf(batch.startedOn),
      note: '',
      arms: [
        {
          id,
          name: batch.name,
          school: batch.school,
          phases: protocolsFrom(batch.phases)[0].phases,
          store: storeOf(batch.school),
          grams: batch.grams,
        },
      ],
    });
  }
  for (const batch of room.batches)
    for (const [days, n, radicles] of batch.looks ?? [])
      await checkTreatment(work, ids.batches.get(batchKey(batch.bag, batch.name))!, {
        id: newId(),
        on: ago(days),
        n,
        radicles,
        note: '',
      });
  for (const bed of room.stockBeds) {
    const id = newId();
    ids.stockBeds.set(bed.name, id);
    await addStockBed(work, {
      id,
      speciesId: speciesId(bed.species),
      name: bed.name,
      plants: bed.plants,
      plantedOn: ago(bed.planted),
      yieldPerPlant: bed.yieldPerPlant,
      plantsPerM: 2,
      restShare: 0.1,
      note: bed.note,
    });
    for (const [days, cuttings] of bed.cuts)
      await cutStockBed(work, id, {
        id: newId(),
        on: ago(days),
        kind: 'hard',
        cuttings,
        nodes: 4,
        bundle: 50,
        hormone: '',
        medium: 'coarse sand and leaf mould',
        note: '',
      });
  }
  for (const layer of room.layers) await makeDemoLayer(work, layer, speciesId(layer.species), ago);
  const first = room.bags[0];
  if (first)
    await moveSeed(work, ids.bags.get(first.code)!, {
      id: newId(),
      on: ago(3),
      grams: first.grams * 0.02,
      seeds: null,
      why: 'given',
      note: 'A neighbour’s hedge.',
    });
  return ids;
}

/** A batch with the day its treatment begins. */
type Begun = Omit<DemoBatch, 'started' | 'looks'> & { startedOn: EpochDay };

/** Every batch of a seed room, those of sown lots among them, in the order they begin. */
export function batchesOf(room: DemoSeedRoom, arms: readonly Begun[], today: EpochDay): Begun[] {
  return [...arms, ...room.batches.map((batch) => ({ ...batch, startedOn: today - batch.started }))].sort(
    (a, b) => a.startedOn - b.startedOn,
  );
}

/** Days from collecting a bag to having it in store. */
const RECEIVED_AFTER = 6;

/** The latest such day at least three weeks past and before any batch of it begins, or some years before it. */
export function collectedDay(
  { code, collected: [month, day, yearsBack = 0] }: DemoSeedLot,
  batches: readonly Begun[],
  latitudeDeg: number,
  today: EpochDay,
): EpochDay {
  const local = latitudeDeg >= 0 ? month : ((month + 5) % 12) + 1;
  const begins = batches.filter((batch) => batch.bag === code).map((batch) => batch.startedOn);
  let collectedOn = dayFrom(partsOf(today).year, local, day);
  if (collectedOn > today - 21) collectedOn = addYears(collectedOn, -1);
  collectedOn = addYears(collectedOn, -yearsBack);
  while (begins.some((begun) => begun < collectedOn + RECEIVED_AFTER))
    collectedOn = addYears(collectedOn, -1);
  return collectedOn;
}

async function makeDemoLayer(
  work: Work,
  { tree, branchMm, made, looks, severed }: DemoLayer,
  speciesId: string,
  ago: (days: number) => string,
) {
  const id = newId();
  await makeLayer(work, {
    id,
    speciesId,
    tree,
    branchMm,
    freeMm: branchMm * 12,
    ringMm: branchMm * 2,
    pouch: 'sealed',
    hormone: 'IBA 0.8 %',
    madeOn: ago(made),
    note: '',
  });
  for (const [days, roots] of looks)
    await checkLayer(work, id, { id: newId(), on: ago(days), roots, note: '' });
  if (severed)
    await severLayer(work, id, {
      version: 1,
      severedOn: ago(severed[0]),
      outcome: severed[1],
      potL: severed[1] === 'rooted' ? Math.round(branchMm * 0.25) : null,
      note: severed[1] === 'rooted' ? '' : 'Healed over: cambium was left.',
      lot: null,
    });
}

/** Most seed comes in the second week of a test, some before and after. */
function dailyCounts(k: number): { day: number; germinated: number }[] {
  const early = Math.round(k * 0.25);
  const middle = Math.round(k * 0.55);
  return [
    { day: 7, germinated: early },
    { day: 12, germinated: middle },
    { day: 20, germinated: k - early - middle },
  ];
}
