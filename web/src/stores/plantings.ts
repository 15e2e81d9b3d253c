import type { BodyInputOf, Plantings, WalkSheet } from '@kauri/core/contract';
import { defineStore } from 'pinia';
import { v7 as newId } from 'uuid';
import { computed, shallowRef } from 'vue';
import { call } from '../api/client';
import { useNursery } from './nursery';
import { useOthers } from './others';
import { useParcels } from './parcels';

/** Where trees were planted for good, and the walks through them, as the server has them. */
export const usePlantings = defineStore('plantings', () => {
  const nursery = useNursery();
  const parcels = useParcels();
  const all = shallowRef<Plantings | null>(null);
  const loadedFor = shallowRef<string | null>(null);
  const loaded = computed(() => loadedFor.value === nursery.nurseryId);
  /** What is kept of this nursery; nothing while it is being fetched. */
  const kept = computed<Plantings>(() => (loaded.value ? all.value! : { plantings: [], walks: [] }));

  const keep = (answer: Plantings) => void (all.value = answer);
  async function load(): Promise<void> {
    const { nurseryId } = nursery;
    keep(await call('plantings', { params: nursery.params }));
    loadedFor.value = nurseryId;
  }
  useOthers().follow(['plantings'], async () => void (loaded.value && (await load())));
  const at = (planting: string) => ({ ...nursery.params, planting });
  const atWalk = (walk: string) => ({ ...nursery.params, walk });
  /** What moves trees changes the parcels and lots they came from. */
  async function moved(answer: Plantings): Promise<void> {
    keep(answer);
    await Promise.all([nursery.fetchLots(), parcels.load()]);
  }

  const put = async (planting: string, body: BodyInputOf<'putPlanting'>) =>
    keep(await call('putPlanting', { params: at(planting), body }));
  const plant = async (planting: string, body: BodyInputOf<'plantTrees'>) =>
    moved(await call('plantTrees', { params: at(planting), body }));
  const takeBack = async (planting: string, part: string) =>
    moved(await call('takeBackPlanted', { params: { ...at(planting), part }, body: { id: newId() } }));
  const changeGuard = async (planting: string, part: string, guard: BodyInputOf<'changeGuard'>['guard']) =>
    keep(await call('changeGuard', { params: { ...at(planting), part }, body: { id: newId(), guard } }));
  const beginWalk = (planting: string, body: BodyInputOf<'beginWalk'>): Promise<WalkSheet> =>
    call('beginWalk', { params: at(planting), body });
  const sheet = (walk: string): Promise<WalkSheet> => call('walk', { params: atWalk(walk) });
  const mark = (walk: string, body: BodyInputOf<'markTrees'>) =>
    call('markTrees', { params: atWalk(walk), body });
  const endWalk = async (walk: string, body: BodyInputOf<'endWalk'>) =>
    keep(await call('endWalk', { params: atWalk(walk), body }));
  const takeBackWalk = async (walk: string) =>
    keep(await call('takeBackWalk', { params: atWalk(walk), body: { id: newId() } }));
  return {
    kept,
    loaded,
    load,
    put,
    plant,
    takeBack,
    changeGuard,
    beginWalk,
    sheet,
    mark,
    endWalk,
    takeBackWalk,
  };
});
