import type { LabelWords } from '@kauri/core/contract';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { call } from '../api/client';
import { ProblemError } from '../api/problem';
import { useNursery } from '../stores/nursery';

/** Where the codes on labels lead: the nursery's own address of Kauri, or the one it is open at. */
export const useLabelAddress = defineStore('labelAddress', () => {
  const nursery = useNursery();
  const kept = shallowRef<{ version: number; words: LabelWords; of: string } | null>(null);
  const loaded = computed(() => kept.value?.of === nursery.nurseryId);
  async function load(): Promise<void> {
    if (loaded.value) return;
    const of = nursery.nurseryId;
    kept.value = { ...(await call('labelWords', { params: nursery.params })), of };
  }
  const address = computed(() => (loaded.value ? kept.value!.words.address : ''));
  async function set(to: string): Promise<void> {
    const of = nursery.nurseryId;
    const body = { version: kept.value?.version ?? 0, words: { schema: 1 as const, address: to.trim() } };
    try {
      kept.value = { ...(await call('setLabelWords', { params: nursery.params, body })), of };
    } catch (error) {
      // Somebody else set it meanwhile: kept again, this takes its place.
      if (error instanceof ProblemError && error.kind === 'stale-edit' && kept.value)
        kept.value = { ...kept.value, version: (error.problem.current as { version: number }).version };
      throw error;
    }
  }
  /** The address of a page, as a label bears it. */
  const at = (path: string) => `${address.value || location.origin}${path}`;
  return { load, loaded, address, set, at };
});
