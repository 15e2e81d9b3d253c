import type { BodyInputOf, Hold, Holds } from '@kauri/core/contract';
import { defineStore } from 'pinia';
import { v7 as newId } from 'uuid';
import { computed, shallowRef } from 'vue';
import { call } from '../api/client';
import { useNursery } from './nursery';
import { useOthers } from './others';

/** Plants held in humid air, as the server has them. */
export const useHolds = defineStore('holds', () => {
  const nursery = useNursery();
  const kept = shallowRef<readonly Hold[]>([]);
  const loadedFor = shallowRef<string | null>(null);
  const loaded = computed(() => loadedFor.value === nursery.nurseryId);
  const all = computed(() => (loaded.value ? kept.value : []));

  async function load(): Promise<void> {
    const { nurseryId } = nursery;
    kept.value = (await call('holds', { params: nursery.params })).holds;
    loadedFor.value = nurseryId;
  }
  useOthers().follow(['holds'], async () => void (loaded.value && (await load())));
  const keep = ({ holds }: Holds) => void (kept.value = holds);
  const at = (hold: string) => ({ ...nursery.params, hold });
  const begin = async (lot: string, body: BodyInputOf<'beginHold'>) =>
    keep(await call('beginHold', { params: { ...nursery.params, lot }, body }));
  const note = async (hold: string, body: BodyInputOf<'noteHold'>) =>
    keep(await call('noteHold', { params: at(hold), body }));
  const takeBackStep = async (hold: string, step: string) =>
    keep(await call('takeBackHoldStep', { params: { ...at(hold), step }, body: { id: newId() } }));
  /** What does not come through leaves its lot. */
  async function end(hold: string, body: BodyInputOf<'endHold'>): Promise<void> {
    keep(await call('endHold', { params: at(hold), body }));
    await nursery.fetchLots();
  }
  async function takeBack(hold: string): Promise<void> {
    keep(await call('takeBackHold', { params: at(hold), body: { id: newId() } }));
    await nursery.fetchLots();
  }
  return { all, loaded, load, begin, note, takeBackStep, end, takeBack };
});
