import type { BodyInputOf, KeptOrder } from '@kauri/core/contract';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { call } from '../api/client';
import { useNursery } from './nursery';

/** What is wanted: orders and hopes, as the server has them. */
export const useOrders = defineStore('orders', () => {
  const nursery = useNursery();
  const all = shallowRef<readonly KeptOrder[]>([]);
  const loadedFor = shallowRef<string | null>(null);
  const loaded = computed(() => loadedFor.value === nursery.nurseryId);

  async function load(): Promise<void> {
    const { nurseryId } = nursery;
    const { orders } = await call('orders', { params: nursery.params });
    all.value = orders;
    loadedFor.value = nurseryId;
  }
  /** @param id of the write: sent again, it is taken once */
  async function add(id: string, orders: BodyInputOf<'addOrders'>['orders']): Promise<void> {
    all.value = (await call('addOrders', { params: nursery.params, body: { id, orders } })).orders;
  }
  async function edit(id: string, body: BodyInputOf<'editOrder'>): Promise<KeptOrder> {
    const kept = await call('editOrder', { params: { ...nursery.params, order: id }, body });
    all.value = all.value.map((order) => (order.id === id ? kept : order));
    return kept;
  }
  async function remove(id: string, version: number): Promise<void> {
    const params = { ...nursery.params, order: id };
    all.value = (await call('removeOrder', { params, body: { version } })).orders;
  }

  return { all, loaded, load, add, edit, remove };
});
