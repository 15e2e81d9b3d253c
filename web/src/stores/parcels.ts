import { dayOf, type LyingParcel } from '@kauri/core';
import type { BodyInputOf, Parcel, Parcels } from '@kauri/core/contract';
import { defineStore } from 'pinia';
import { v7 as newId } from 'uuid';
import { computed, shallowRef } from 'vue';
import { call } from '../api/client';
import { useNursery } from './nursery';
import { useOrders } from './orders';

/** Lifted trees that lie in the nursery, and what was sent. */
export const useParcels = defineStore('parcels', () => {
  const nursery = useNursery();
  const orders = useOrders();
  const kept = shallowRef<Parcels | null>(null);
  /** The nursery it is of, and its lots as they stood when it was asked: changed since, it is asked anew. */
  const keptFor = shallowRef<string | null>(null);
  const keptOf = shallowRef<unknown>(null);
  const loaded = computed(() => keptFor.value === nursery.nurseryId);
  const isStale = computed(() => keptOf.value !== nursery.facts);

  async function load(): Promise<void> {
    const { facts, nurseryId } = nursery;
    kept.value = await call('parcels', { params: nursery.params });
    keptOf.value = facts;
    keptFor.value = nurseryId;
  }
  const ready = async () => {
    if (isStale.value) await load();
  };

  /** Everything that a sending changes: the parcels, the line it serves, the lots it came from. */
  async function changed(answer: Parcels): Promise<void> {
    kept.value = answer;
    await Promise.all([nursery.fetchLots(), orders.load()]);
  }
  async function put(parcel: Parcel, place: string): Promise<void> {
    const params = { ...nursery.params, parcel: parcel.id };
    kept.value = await call('putParcel', { params, body: { id: newId(), place } });
  }
  const send = async (body: BodyInputOf<'sendTrees'>) =>
    changed(await call('sendTrees', { params: nursery.params, body }));
  const takeBack = async (sending: string) =>
    changed(await call('takeBackSending', { params: { ...nursery.params, sending }, body: { id: newId() } }));

  const all = computed(() => (loaded.value ? kept.value!.parcels : []));
  const lying = computed(() => all.value.filter(({ held }) => held > 0));
  const sendings = computed(() => (loaded.value ? kept.value!.sendings : []));
  /** What lies of a species, as promises are worked out from it. */
  const ofSpecies = (speciesId: string): LyingParcel[] =>
    lying.value
      .filter((parcel) => parcel.speciesId === speciesId)
      .map((parcel) => ({ ...parcel, since: dayOf(parcel.since) }));
  return { all, lying, sendings, loaded, isStale, load, ready, put, send, takeBack, ofSpecies };
});
