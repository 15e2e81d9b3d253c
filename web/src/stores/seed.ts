import {
  roomAsks,
  type KnownRoom,
  dayOf,
  isoOf,
  type LayerOutlook,
  type SeedAct,
  type TreatmentClock,
  type ViabilityOutlook,
  type Worked,
  seedRecordsOf,
  storedLot,
  treatmentFacts,
  viabilityOutlook,
  seedHeld,
  startOf,
  type SeedHeld,
  type SeedRecordOf,
  type StartValues,
  type StoredLot,
  type TreatmentFacts,
} from '@kauri/core';
import type { LotRow, SeedLot, SeedRecord, SeedRoom, Species, Treatment } from '@kauri/core/contract';
import { watchDebounced } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { call } from '../api/client';
import { plain, seedWork } from '../workers/seedWork';
import { latestOnly } from './latestOnly';
import { useNursery } from './nursery';
import { useOthers } from './others';
import { useSeason } from './season';
import { seedShares } from './seedShares';

export type RecordOf<K extends SeedRecord['values']['kind']> = SeedRecordOf<K>;

const empty: SeedRoom = { lots: [], moves: [], treatments: [], stockBeds: [], layers: [], records: [] };

/** The Seed station as the server has it, and what the core asks of it. */
export const useSeed = defineStore('seed', () => {
  const nursery = useNursery();
  const season = useSeason();
  const room = shallowRef<SeedRoom>(empty);
  const loaded = shallowRef<string | null>(null);

  async function load(again = false) {
    if (loaded.value === nursery.nurseryId && !again) return;
    room.value = await call('seedRoom', { params: nursery.params });
    loaded.value = nursery.nurseryId;
    start();
  }
  useOthers().follow(['seed'], async () => void (loaded.value !== null && (await load(true))));
  const take = (answer: SeedRoom) => (room.value = answer);

  /** Worked out in the worker whenever the date or what lies here changes. */
  const viability = shallowRef<Map<string, Worked<ViabilityOutlook>>>(new Map());
  const clocks = shallowRef<Map<string, Worked<TreatmentClock>>>(new Map());
  const layering = shallowRef<Map<string, Worked<LayerOutlook>>>(new Map());
  const fault = shallowRef<string | null>(null);
  /** Whether the figures have been worked out once for what lies here. */
  const settled = shallowRef(false);

  /** What was known by the date looked at. */
  const asOf = computed(() => Math.min(season.view, season.today));
  const known = computed(() => {
    const iso = isoOf(asOf.value);
    // What was sown of a batch after the date looked at lay in it still.
    const sownLater = new Map<string, number>();
    for (const { id, treatmentId, origin, sownOn } of nursery.lots.values()) {
      if (treatmentId === null || origin !== 'seed' || sownOn <= iso) continue;
      sownLater.set(treatmentId, (sownLater.get(treatmentId) ?? 0) + seedsSown(id));
    }
    const asItWas = (batch: Treatment): Treatment => {
      const later = sownLater.get(batch.id);
      const lot = later === undefined ? undefined : lotById.value.get(batch.seedLotId);
      if (later === undefined || !lot) return batch;
      return { ...batch, seeds: batch.seeds + later, grams: batch.grams + (later / lot.seedsPerKg) * 1000 };
    };
    const { lots, treatments, layers, stockBeds, moves, records } = room.value;
    return {
      lots: lots.filter((lot) => lot.receivedOn <= iso),
      treatments: treatments.filter((t) => t.startedOn <= iso).map(asItWas),
      underWay: treatments
        .map(asItWas)
        .filter(
          (t) => t.startedOn <= iso && (t.state === 'under way' || (t.endedOn !== null && t.endedOn > iso)),
        ),
      layers: layers.filter((layer) => layer.madeOn <= iso),
      onBranch: layers.filter((l) => l.madeOn <= iso && (l.severedOn === null || l.severedOn > iso)),
      stockBeds: stockBeds.filter((bed) => bed.plantedOn <= iso),
      moves: moves.filter((move) => move.on <= iso),
      records: records.filter((record) => record.on <= iso),
    };
  });

  const work = latestOnly(async () => {
    const day = asOf.value;
    const { lots, underWay, onBranch } = known.value;
    try {
      const worker = await seedWork();
      const outlooks = await Promise.all(lots.map((lot) => worker.viability(plain(stored(lot)), day)));
      viability.value = new Map(lots.map((lot, i) => [lot.id, outlooks[i]]));
      const faces = await worker.clocks(plain(underWay.map(clockFacts)), day);
      clocks.value = new Map(underWay.map((batch, i) => [batch.id, faces[i]]));
      const rooted = onBranch.filter((l) => startFor(l.speciesId).layer);
      const layers = await Promise.all(
        rooted.map((l) =>
          worker.layer(
            plain({ budburst: speciesOf(l.speciesId).values.budburst }),
            plain(startFor(l.speciesId).layer!.rootDd),
            l.branchMm,
            dayOf(l.madeOn),
            day,
          ),
        ),
      );
      layering.value = new Map(rooted.map((l, i) => [l.id, layers[i]]));
      fault.value = null;
      settled.value = true;
    } catch (error) {
      fault.value = error instanceof Error ? error.message : String(error);
    }
  });
  let started = false;
  /** Keeps the figures up with the date and the records, once the station is open. */
  function start() {
    if (started) return;
    started = true;
    // The date rests a moment first: the ribbon's other followers have the machine while it is dragged.
    watchDebounced([known, () => nursery.weatherVersion, () => nursery.catalogue], () => void work(), {
      immediate: true,
      debounce: 120,
    });
  }

  /** The room as Today reads it, and its figures. */
  const knownRoom = computed<KnownRoom>(() => ({
    ...known.value,
    held: (id) => held.value.get(id)?.seeds ?? 0,
  }));
  const outlooks = computed(() => ({
    viability: viability.value,
    clocks: clocks.value,
    layering: layering.value,
  }));
  const acts = computed<SeedAct[]>(() =>
    roomAsks(room.value, knownRoom.value, outlooks.value, nursery.lookup.species, asOf.value).map(
      ({ act }) => act,
    ),
  );

  const speciesOf = (id: string) => nursery.lookup.species.get(id) as Species;
  const startFor = (speciesId: string): StartValues => startOf(speciesOf(speciesId));
  const lotById = computed(() => new Map(room.value.lots.map((lot) => [lot.id, lot])));
  const treatmentById = computed(() => new Map(room.value.treatments.map((t) => [t.id, t])));

  const seedsSown = (lotId: string) =>
    (nursery.evidence.get(lotId)?.movements ?? []).reduce(
      (t, m) => t + (m.from === 'seed' && m.to === 'sown' ? m.count : 0),
      0,
    );

  const held = computed(() => {
    const byLot = new Map<string, { grams: number; seeds: number }[]>();
    for (const move of known.value.moves)
      byLot.set(move.seedLotId, [...(byLot.get(move.seedLotId) ?? []), move]);
    return new Map(
      room.value.lots.map((lot): [string, SeedHeld] => [lot.id, seedHeld(byLot.get(lot.id) ?? [])]),
    );
  });
  const recordsOf = <K extends SeedRecord['values']['kind']>(subjectId: string, kind: K): RecordOf<K>[] =>
    seedRecordsOf(known.value.records, subjectId, kind);

  /** A seed lot as the core reads it. */
  const stored = (lot: SeedLot): StoredLot => storedLot(lot, speciesOf(lot.speciesId), known.value.records);
  const clockFacts = (batch: Treatment): TreatmentFacts => {
    const bag = lotById.value.get(batch.seedLotId)!;
    const kind = speciesOf(bag.speciesId);
    const alive = viabilityOutlook(stored(bag), asOf.value).value.now.beta;
    return treatmentFacts(batch, bag, kind, alive, known.value.records);
  };

  const { outcomesOf, sharesOf, chainOf } = seedShares({
    lots: () => nursery.lots,
    evidence: () => nursery.evidence,
    schoolOf: (treatmentId) => treatmentById.value.get(treatmentId)?.school,
    speciesOf,
    outlookOf: (seedLotId) => viability.value.get(seedLotId)?.value,
    testsOf: (seedLotId) => recordsOf(seedLotId, 'test').length,
  });

  /** Lots sown of a seed lot, by code. */
  const sownOf = (seedLotId: string): LotRow[] =>
    [...nursery.lots.values()]
      .filter((lot) => lot.seedLotId === seedLotId && lot.origin === 'seed')
      .sort((a, b) => a.code.localeCompare(b.code));

  return {
    room,
    known,
    asOf,
    viability,
    clocks,
    layering,
    fault,
    settled,
    acts,
    knownRoom,
    outlooks,
    loaded,
    load,
    take,
    speciesOf,
    startFor,
    lotById,
    treatmentById,
    held,
    recordsOf,
    stored,
    clockFacts,
    outcomesOf,
    sharesOf,
    chainOf,
    sownOf,
  };
});
