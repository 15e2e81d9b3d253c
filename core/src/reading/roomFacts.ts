import { dayOf, isoOf, type EpochDay } from '../calendar/day';
import type { Layer, SeedLot, SeedRecord, SeedRoom, Species, Treatment } from '../contract';
import { layerOutlook } from '../propagation/airLayer';
import { startOf } from '../species/startOf';
import type { Outlook } from '../weather/ensemble';
import type { Warmth } from '../weather/sums';
import { batchActs, layerActs, storeActs, type SeedAct } from '../today/seedActs';
import { seedHeld } from '../seed/seedStore';
import { viabilityOutlook, type StoredLot } from '../seed/seedViability';
import { moistureFactor, storeFactor } from '../species/startValues';
import { treatmentClock, type TreatmentFacts } from '../seed/treatmentClock';

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

/** A batch as its clock reads it. */
export function treatmentFacts(
  batch: Treatment,
  species: Species,
  records: readonly SeedRecord[],
): TreatmentFacts {
  return {
    phases: batch.phases,
    startedOn: dayOf(batch.startedOn),
    store: batch.store,
    radicleDd: startOf(species).radicleDd,
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

/** What a thing of the seed room is called on a screen, and how many seeds or plants it holds. */
export interface SeedActAbout {
  act: SeedAct;
  name: string;
  seeds: number;
}

/**
 * All that bags, batches and layers ask for on a day, with the weather known then.
 * @throws Error when the room names a species that is not in the list
 */
export function roomActs(
  room: SeedRoom,
  species: ReadonlyMap<string, Species>,
  outlook: Outlook,
  warmth: Warmth,
  day: EpochDay,
): SeedActAbout[] {
  const iso = isoOf(day);
  const speciesOf = (id: string) => {
    const found = species.get(id);
    if (!found) throw new Error('The seed room names a species that is not in the list.');
    return found;
  };
  const records = room.records.filter((r) => r.on <= iso);
  const bags = new Map(room.lots.map((lot) => [lot.id, lot]));
  const said = (acts: SeedAct[], name: string, seeds: number) => acts.map((act) => ({ act, name, seeds }));
  const batches = room.treatments.filter((t) => t.state === 'under way' && t.startedOn <= iso);
  const layers = room.layers.filter((l) => l.severedOn === null && l.madeOn <= iso);
  return [
    ...batches.flatMap((batch) => {
      const kind = speciesOf(bags.get(batch.seedLotId)!.speciesId);
      const clock = treatmentClock(treatmentFacts(batch, kind, records), outlook).value;
      return said(
        batchActs(batch.id, clock),
        `${kind.common.toLowerCase()}, “${batch.name}”`,
        Math.round(batch.seeds),
      );
    }),
    ...room.lots.flatMap((lot) => {
      const { seeds } = seedHeld(room.moves.filter((m) => m.seedLotId === lot.id && m.on <= iso));
      if (seeds < 1) return [];
      const kind = speciesOf(lot.speciesId);
      const { value } = viabilityOutlook(storedLot(lot, kind, records), day);
      return said(
        storeActs(lot.id, value, seeds, day),
        `${kind.common.toLowerCase()} ${lot.code}`,
        Math.round(seeds),
      );
    }),
    ...layers.flatMap((layer) => {
      const kind = speciesOf(layer.speciesId);
      const rootDd = startOf(kind).layer?.rootDd;
      if (!rootDd) return [];
      const { value } = layerOutlook(
        kind.values,
        rootDd,
        layer.branchMm,
        dayOf(layer.madeOn),
        outlook,
        warmth,
      );
      const look = lastLook(layer, records);
      return said(layerActs(layer.id, value, look.day, look.roots, day), layer.tree, 1);
    }),
  ];
}
