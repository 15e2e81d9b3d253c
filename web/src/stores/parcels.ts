import {
  asideByLine,
  asideByParcel,
  coldStores,
  lyingParcels,
  wantedLines,
  type LyingParcel,
  type WantedLine,
} from '@kauri/core';
import type { BodyInputOf, Parcel, Parcels } from '@kauri/core/contract';
import { defineStore } from 'pinia';
import { v7 as newId } from 'uuid';
import { computed, shallowRef } from 'vue';
import { call } from '../api/client';
import { useNursery } from './nursery';
import { useOthers } from './others';
import { useOrders } from './orders';

/** So many trees of a parcel. */
export interface Part {
  parcelId: string;
  count: number;
}

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
  useOthers().follow(['parcels'], async () => void (loaded.value && (await load())));
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
  /** @param id of the write: sent again, it is taken once; a new one where none is given */
  const setAside = async (
    id: string | null,
    order: { id: string; lineId: string },
    parts: readonly Part[],
  ): Promise<void> => {
    const body = { id: id ?? newId(), order, parts: [...parts] };
    kept.value = await call('setAside', { params: nursery.params, body });
  };
  const look = async (body: BodyInputOf<'look'>): Promise<void> => {
    kept.value = await call('look', { params: nursery.params, body });
  };
  const takeBackLook = async (id: string): Promise<void> => {
    const params = { ...nursery.params, look: id };
    kept.value = await call('takeBackLook', { params, body: { id: newId() } });
  };
  const takeBack = async (sending: string) =>
    changed(await call('takeBackSending', { params: { ...nursery.params, sending }, body: { id: newId() } }));
  const bringBack = async (sending: string, body: BodyInputOf<'bringBack'>) =>
    changed(await call('bringBack', { params: { ...nursery.params, sending }, body }));
  const takeBackReturn = async (sending: string, returned: string) => {
    const params = { ...nursery.params, sending, returned };
    await changed(await call('takeBackReturn', { params, body: { id: newId() } }));
  };

  const all = computed(() => (loaded.value ? kept.value!.parcels : []));
  const lying = computed(() => all.value.filter(({ held }) => held > 0));
  /** Trees set aside for lines of orders. */
  const asides = computed(() => (loaded.value ? kept.value!.asides : []));
  const byLine = computed(() => asideByLine(asides.value));
  const byParcel = computed(() => asideByParcel(asides.value));
  const asideOfLine = (id: string) => byLine.value.get(id) ?? 0;
  const asideOfParcel = (id: string) => byParcel.value.get(id) ?? 0;
  /** Trees of a parcel that may go to a line, or to nobody named: what is not set aside for others. */
  const freeFor = (parcel: Parcel, lineId?: string): number =>
    asides.value
      .filter((aside) => aside.parcelId === parcel.id && aside.lineId !== lineId)
      .reduce((free, aside) => free - aside.count, parcel.held);
  const sendings = computed(() => (loaded.value ? kept.value!.sendings : []));
  /** Every line of orders as promises are worked out from it; one may be left out. */
  const wanted = (but?: string): WantedLine[] => wantedLines(orders.all, asides.value, but);
  /** What was seen where they lie, the last first; and the cold stores of the site. */
  const looks = computed(() => (loaded.value ? kept.value!.looks : []));
  const stores = computed(() => coldStores(nursery.plan, looks.value));
  /** What lies there, as promises and the store clock read it. */
  const whole = computed(() => lyingParcels(all.value, asides.value, stores.value));
  /** What lies of a species, as promises are worked out from it. */
  const ofSpecies = (speciesId: string): LyingParcel[] =>
    whole.value.filter((parcel) => parcel.speciesId === speciesId);
  return {
    all,
    lying,
    sendings,
    asides,
    asideOfLine,
    asideOfParcel,
    freeFor,
    loaded,
    isStale,
    load,
    ready,
    put,
    setAside,
    looks,
    stores,
    whole,
    look,
    takeBackLook,
    send,
    takeBack,
    bringBack,
    takeBackReturn,
    ofSpecies,
    wanted,
  };
});
