import type { KeptPlan, PlannedSowing } from '@kauri/core/contract';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { call } from '../api/client';
import { ProblemError } from '../api/problem';
import { useNursery } from './nursery';
import { useOthers } from './others';

/** Sowings that are planned, as the server has them. */
export const usePlan = defineStore('plan', () => {
  const nursery = useNursery();
  const kept = shallowRef<KeptPlan | null>(null);
  const loadedFor = shallowRef<string | null>(null);
  const loaded = computed(() => loadedFor.value === nursery.nurseryId);
  const sowings = computed(() => kept.value?.plan.sowings ?? []);

  async function load(): Promise<void> {
    const { nurseryId } = nursery;
    kept.value = await call('plan', { params: nursery.params });
    loadedFor.value = nurseryId;
  }
  useOthers().follow(['plan'], async () => void (loaded.value && (await load())));
  /** @param write puts another plan in place of the one that stands */
  async function replaced(write: () => Promise<KeptPlan>): Promise<void> {
    try {
      kept.value = await write();
    } catch (error) {
      // Somebody planned meanwhile: told of, and writing again goes on from what stands now.
      if (error instanceof ProblemError && error.kind === 'stale-edit') await load();
      throw error;
    }
  }
  /** @param change what is planned after, from what is planned now */
  const write = (change: (now: readonly PlannedSowing[]) => PlannedSowing[]) =>
    replaced(() => {
      const { version, plan } = kept.value!;
      const sowings = change(plan.sowings);
      return call('setPlan', { params: nursery.params, body: { version, plan: { schema: 1, sowings } } });
    });
  /** Puts all that was planned before back. */
  const restore = (before: readonly PlannedSowing[]) => write(() => [...before]);
  /** Puts sowings into the plan, each in the place of the one with its id where there is one. */
  const put = (...sowings: PlannedSowing[]) =>
    write((now) => {
      const kept = now.map((other) => sowings.find(({ id }) => id === other.id) ?? other);
      const known = new Set(now.map(({ id }) => id));
      return [...kept, ...sowings.filter(({ id }) => !known.has(id))];
    });
  const remove = (...ids: string[]) => write((now) => now.filter((sowing) => !ids.includes(sowing.id)));
  return { kept, sowings, loaded, load, put, remove, replaced, restore };
});
