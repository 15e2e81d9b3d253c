import type { Arrival, Arrivals, BodyInputOf } from '@kauri/core/contract';
import { defineStore } from 'pinia';
import { v7 as newId } from 'uuid';
import { computed, shallowRef } from 'vue';
import { call } from '../api/client';
import { useNursery } from './nursery';

/** Plants that came from outside, as the server has them. */
export const useArrivals = defineStore('arrivals', () => {
  const nursery = useNursery();
  const kept = shallowRef<readonly Arrival[]>([]);
  const loadedFor = shallowRef<string | null>(null);
  const loaded = computed(() => loadedFor.value === nursery.nurseryId);
  const all = computed(() => (loaded.value ? kept.value : []));

  async function load(): Promise<void> {
    const { nurseryId } = nursery;
    kept.value = (await call('arrivals', { params: nursery.params })).arrivals;
    loadedFor.value = nurseryId;
  }
  /** What comes, or is taken back, changes the lots. */
  async function changed({ arrivals }: Arrivals): Promise<void> {
    kept.value = arrivals;
    await nursery.fetchLots();
  }
  const at = (arrival: string) => ({ ...nursery.params, arrival });
  const add = async (body: BodyInputOf<'addArrival'>) =>
    changed(await call('addArrival', { params: nursery.params, body }));
  const takeBack = async (id: string) =>
    changed(await call('takeBackArrival', { params: at(id), body: { id: newId() } }));
  const keepApart = async (id: string, until: string | null) =>
    changed(await call('endQuarantine', { params: at(id), body: { id: newId(), until } }));
  return { all, loaded, load, add, takeBack, keepApart };
});
