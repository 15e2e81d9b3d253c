import {
  dayOf,
  lotShares,
  moistureFactor,
  pooledShare,
  seedHeld,
  startOf,
  storeFactor,
  type Outcome,
  type PooledShare,
  type SeedHeld,
  type StartValues,
  type StoredLot,
  type TreatmentFacts,
} from '@kauri/core';
import type { LotRow, SeedLot, SeedRecord, SeedRoom, Species, Treatment } from '@kauri/core/contract';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { call } from '../api/client';
import { useNursery } from './nursery';

type Values<K extends SeedRecord['values']['kind']> = Extract<SeedRecord['values'], { kind: K }>;
export type RecordOf<K extends SeedRecord['values']['kind']> = Omit<SeedRecord, 'values'> & {
  values: Values<K>;
};

const empty: SeedRoom = { lots: [], moves: [], treatments: [], stockBeds: [], layers: [], records: [] };

/** The Seed station as the server has it, and what the core asks of it. */
export const useSeed = defineStore('seed', () => {
  const nursery = useNursery();
  const room = shallowRef<SeedRoom>(empty);
  const loaded = shallowRef<string | null>(null);

  async function load(again = false) {
    if (loaded.value === nursery.nurseryId && !again) return;
    room.value = await call('seedRoom', { params: nursery.params });
    loaded.value = nursery.nurseryId;
  }
  const take = (answer: SeedRoom) => (room.value = answer);

  const speciesOf = (id: string) => nursery.lookup.species.get(id) as Species;
  const startFor = (speciesId: string): StartValues => startOf(speciesOf(speciesId));
  const lotById = computed(() => new Map(room.value.lots.map((lot) => [lot.id, lot])));
  const treatmentById = computed(() => new Map(room.value.treatments.map((t) => [t.id, t])));

  const held = computed(() => {
    const byLot = new Map<string, { grams: number; seeds: number }[]>();
    for (const move of room.value.moves)
      byLot.set(move.seedLotId, [...(byLot.get(move.seedLotId) ?? []), move]);
    return new Map(room.value.lots.map((lot): [string, SeedHeld] => [lot.id, seedHeld(byLot.get(lot.id) ?? [])]));
  });
  function recordsOf<K extends SeedRecord['values']['kind']>(subjectId: string, kind: K): RecordOf<K>[] {
    return room.value.records.filter(
      (r) => r.subjectId === subjectId && r.values.kind === kind,
    ) as RecordOf<K>[];
  }

  /** A seed lot as the core reads it. */
  function stored(lot: SeedLot): StoredLot {
    const start = startFor(lot.speciesId);
    const { viability } = speciesOf(lot.speciesId).values;
    // The species' share at the weight of ten seeds.
    const mean = viability.alpha / (viability.alpha + viability.beta);
    const factor = storeFactor(start.storage, lot.store) * moistureFactor(start.storage, lot.moisturePct);
    return {
      since: dayOf(lot.collectedOn ?? lot.receivedOn),
      fresh: { alpha: mean * 10, beta: (1 - mean) * 10 },
      sigmaDays: { median: start.sigmaDays.median * factor, sdLog: start.sigmaDays.sdLog },
      tests: recordsOf(lot.id, 'test').map(({ on, values }) => ({
        day: dayOf(on),
        kind: values.test,
        n: values.n,
        k: values.k,
      })),
    };
  }

  function clockFacts(batch: Treatment): TreatmentFacts {
    const lot = lotById.value.get(batch.seedLotId)!;
    return {
      phases: batch.phases,
      startedOn: dayOf(batch.startedOn),
      store: batch.store,
      radicleDd: startFor(lot.speciesId).radicleDd,
      checks: recordsOf(batch.id, 'check').map(({ on, values }) => ({
        day: dayOf(on),
        n: values.n,
        radicles: values.radicles,
      })),
    };
  }

  /** What the nursery's lots of a species say of each share, by their ledgers. */
  function outcomesOf(speciesId: string): Record<'emergence' | 'establishment' | 'grade' | 'strike', Outcome[]> {
    const outcomes = { emergence: [], establishment: [], grade: [], strike: [] } as Record<
      'emergence' | 'establishment' | 'grade' | 'strike',
      Outcome[]
    >;
    const { viability } = speciesOf(speciesId).values;
    const alive = viability.alpha / (viability.alpha + viability.beta);
    for (const lot of nursery.lots.values()) {
      if (lot.speciesId !== speciesId || lot.origin === 'pricked') continue;
      const shares = lotShares(nursery.evidence.get(lot.id)?.movements ?? []);
      if (shares.emergenceOver) {
        if (lot.origin === 'cuttings') outcomes.strike.push({ k: shares.up, n: shares.sown });
        else {
          const live = Math.max(shares.up, Math.round(shares.sown * alive));
          outcomes.emergence.push({ k: shares.up, n: live });
        }
        if (shares.up > 0) outcomes.establishment.push(shares.established);
      }
      if (shares.grade.n > 0) outcomes.grade.push(shares.grade);
    }
    return outcomes;
  }

  /** The shares between a seed and a tree for a species. */
  function sharesOf(speciesId: string): Record<'emergence' | 'establishment' | 'grade', PooledShare> {
    const { values } = speciesOf(speciesId);
    const outcomes = outcomesOf(speciesId);
    return {
      emergence: pooledShare(values.emergence, outcomes.emergence),
      establishment: pooledShare(values.establishment, outcomes.establishment),
      grade: pooledShare(values.grade, outcomes.grade),
    };
  }

  /** Lots sown of a seed lot, by code. */
  const sownOf = (seedLotId: string): LotRow[] =>
    [...nursery.lots.values()]
      .filter((lot) => lot.seedLotId === seedLotId && lot.origin === 'seed')
      .sort((a, b) => a.code.localeCompare(b.code));

  return {
    room,
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
    sownOf,
  };
});
