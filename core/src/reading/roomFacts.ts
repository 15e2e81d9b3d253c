import { inSentence, say } from '../speech/say';
import type { SeedAsk } from '../today/todayOf';
import { dayOf, isoOf, type EpochDay } from '../calendar/day';
import type { Layer, SeedLot, SeedRecord, SeedRoom, Species, Treatment } from '../contract';
import { layerOutlook, type LayerOutlook } from '../propagation/airLayer';
import type { Beta } from '../chance/beta';
import type { Spell } from '../seed/waking';
import { startOf } from '../species/startOf';
import { wakingOf } from '../species/waking';
import type { Outlook } from '../weather/ensemble';
import type { Warmth } from '../weather/sums';
import { batchActs, layerActs, storeActs, type SeedAct } from '../today/seedActs';
import { seedHeld } from '../seed/seedStore';
import { viabilityOutlook, type StoredLot, type ViabilityOutlook } from '../seed/seedViability';
import { moistureFactor, storeFactor } from '../species/startValues';
import { treatmentClock, type TreatmentClock, type TreatmentFacts } from '../seed/treatmentClock';

type Values<K extends SeedRecord['values']['kind']> = Extract<SeedRecord['values'], { kind: K }>;
export type SeedRecordOf<K extends SeedRecord['values']['kind']> = Omit<SeedRecord, 'values'> & {
  values: Values<K>;
};

/** Records of one kind of one thing, as they stand in the list. */
export function seedRecordsOf<K extends SeedRecord['values']['kind']>(
  records: readonly SeedRecord[],
  subjectId: string,
  kind: K,
): SeedRecordOf<K>[] {
  return records.filter((r) => r.subjectId === subjectId && r.values.kind === kind) as SeedRecordOf<K>[];
}

/** A seed lot as its viability is worked out: the species’ share at the weight of ten seeds, its store, its tests. */
export function storedLot(lot: SeedLot, species: Species, records: readonly SeedRecord[]): StoredLot {
  const start = startOf(species);
  const { viability } = species.values;
  const mean = viability.alpha / (viability.alpha + viability.beta);
  const factor = storeFactor(start.storage, lot.store) * moistureFactor(start.storage, lot.moisturePct);
  return {
    since: dayOf(lot.collectedOn ?? lot.receivedOn),
    fresh: { alpha: mean * 10, beta: (1 - mean) * 10 },
    sigmaDays: { median: start.sigmaDays.median * factor, sdLog: start.sigmaDays.sdLog },
    tests: seedRecordsOf(records, lot.id, 'test').map(({ on, values }) => ({
      day: dayOf(on),
      kind: values.test,
      n: values.n,
      k: values.k,
    })),
  };
}

/** A bag that lay cool and moist is being chilled, whatever its batch began with: at about this, °C. */
const COOL_MOIST_C = 3;
/** Seed so far gone is not chilled further: what a bag could have had before, days. */
const BAG_MOST_DAYS = 300;

/**
 * A batch as its clock reads it: how its kind wakes, what its bag lay in before, what lives of it.
 * @param alive share alive in the bag, as its tests leave it
 */
export function treatmentFacts(
  batch: Treatment,
  bag: SeedLot,
  species: Species,
  alive: Beta,
  records: readonly SeedRecord[],
): TreatmentFacts {
  const start = startOf(species);
  const startedOn = dayOf(batch.startedOn);
  const days = startedOn - dayOf(bag.receivedOn);
  const before: Spell[] =
    bag.store === 'cool-moist' && days > 0 ? [[Math.min(days, BAG_MOST_DAYS), COOL_MOIST_C]] : [];
  return {
    phases: batch.phases,
    startedOn,
    store: batch.store,
    waking: wakingOf(species.latin, start.protocols),
    taproot: start.rootHabit === 'tap',
    alive,
    seeds: batch.seeds,
    before,
    checks: seedRecordsOf(records, batch.id, 'check').map(({ on, values }) => ({
      day: dayOf(on),
      n: values.n,
      radicles: values.radicles,
    })),
  };
}

/** When a layer was last looked at, and what showed. */
export function lastLook(layer: Layer, records: readonly SeedRecord[]) {
  const look = seedRecordsOf(records, layer.id, 'look').at(-1);
  return { day: dayOf(look?.on ?? layer.madeOn), roots: look?.values.roots ?? ('none' as const) };
}

/** Figures of the seed room on a day: of each bag, of each batch under way, of each layer on its branch. */
export interface RoomOutlooks {
  viability: ReadonlyMap<string, { value: ViabilityOutlook }>;
  clocks: ReadonlyMap<string, { value: TreatmentClock }>;
  layering: ReadonlyMap<string, { value: LayerOutlook }>;
}

/** The seed room as it stood on a day. */
export interface KnownRoom {
  lots: readonly SeedLot[];
  underWay: readonly Treatment[];
  onBranch: readonly Layer[];
  records: readonly SeedRecord[];
  /** Seeds left in a bag. */
  held: (seedLotId: string) => number;
}

/** The seed room as it stands today. */
export function roomToday(room: SeedRoom, day: EpochDay): KnownRoom {
  const iso = isoOf(day);
  return {
    lots: room.lots.filter((lot) => lot.receivedOn <= iso),
    underWay: room.treatments.filter((t) => t.state === 'under way' && t.startedOn <= iso),
    onBranch: room.layers.filter((l) => l.severedOn === null && l.madeOn <= iso),
    records: room.records.filter((r) => r.on <= iso),
    held: (id) => seedHeld(room.moves.filter((m) => m.seedLotId === id && m.on <= iso)).seeds,
  };
}

/**
 * Works out the figures of a seed room on a day, with the weather known then.
 * @throws Error when the room names a species that is not in the list
 */
export function roomOutlooks(
  room: SeedRoom,
  known: KnownRoom,
  species: ReadonlyMap<string, Species>,
  outlook: Outlook,
  warmth: Warmth,
  day: EpochDay,
): RoomOutlooks {
  const speciesOf = speciesIn(species);
  const bags = new Map(room.lots.map((lot) => [lot.id, lot]));
  const { records } = known;
  return {
    viability: new Map(
      known.lots.map((lot) => [
        lot.id,
        viabilityOutlook(storedLot(lot, speciesOf(lot.speciesId), records), day),
      ]),
    ),
    clocks: new Map(
      known.underWay.map((batch) => {
        const bag = bags.get(batch.seedLotId)!;
        const kind = speciesOf(bag.speciesId);
        const alive = viabilityOutlook(storedLot(bag, kind, records), day).value.now.beta;
        return [batch.id, treatmentClock(treatmentFacts(batch, bag, kind, alive, records), outlook)];
      }),
    ),
    layering: new Map(
      known.onBranch.flatMap((layer) => {
        const kind = speciesOf(layer.speciesId);
        const rootDd = startOf(kind).layer?.rootDd;
        if (!rootDd) return [];
        const made = dayOf(layer.madeOn);
        return [[layer.id, layerOutlook(kind.values, rootDd, layer.branchMm, made, outlook, warmth)]];
      }),
    ),
  };
}

/** All that bags, batches and layers ask for on a day. */
export function roomAsks(
  room: Pick<SeedRoom, 'lots'>,
  known: KnownRoom,
  { viability, clocks, layering }: RoomOutlooks,
  species: ReadonlyMap<string, Species>,
  day: EpochDay,
): SeedAsk[] {
  const speciesOf = speciesIn(species);
  const bags = new Map(room.lots.map((lot) => [lot.id, lot]));
  const said = (acts: SeedAct[], name: string, seeds: number) => acts.map((act) => ({ act, name, seeds }));
  const nameOf = (speciesId: string) => inSentence(speciesOf(speciesId).common);
  return [
    ...known.underWay.flatMap((batch) => {
      const clock = clocks.get(batch.id)?.value;
      const bag = bags.get(batch.seedLotId)!;
      return clock
        ? said(batchActs(batch.id, clock), `${nameOf(bag.speciesId)}, “${batch.name}”`, batch.seeds)
        : [];
    }),
    ...known.lots.flatMap((lot) => {
      const outlook = viability.get(lot.id)?.value;
      const seeds = known.held(lot.id);
      return outlook
        ? said(storeActs(lot.id, outlook, seeds, day), `${nameOf(lot.speciesId)} ${lot.code}`, seeds)
        : [];
    }),
    ...known.onBranch.flatMap((layer) => {
      const outlook = layering.get(layer.id)?.value;
      if (!outlook) return [];
      const look = lastLook(layer, known.records);
      return said(layerActs(layer.id, outlook, look.day, look.roots, day), layer.tree, 1);
    }),
  ];
}

const speciesIn = (species: ReadonlyMap<string, Species>) => (id: string) => {
  const found = species.get(id);
  if (!found) throw new Error(say`The seed room names a species that is not in the list.`);
  return found;
};
