import type { BodyInputOf, Proposal } from '@kauri/core/contract';
import { useTimeoutPoll } from '@vueuse/core';
import { defineStore } from 'pinia';
import { v7 as newId } from 'uuid';
import { computed, shallowRef } from 'vue';
import { call } from '../api/client';
import { useNursery } from './nursery';
import { usePlan } from './plan';

/** How often a season being planned is asked after, ms. */
const ASK_MS = 700;

/** Seasons proposed, or being planned, as the server has them. */
export const useProposals = defineStore('proposals', () => {
  const nursery = useNursery();
  const plan = usePlan();
  const all = shallowRef<readonly Proposal[]>([]);
  const loadedFor = shallowRef<string | null>(null);
  const loaded = computed(() => loadedFor.value === nursery.nurseryId);
  const isBusy = computed(() => loaded.value && all.value.some(({ state }) => state === 'working'));
  /** Set while the server does not answer: what is shown may be older than it looks. */
  const isCut = shallowRef(false);

  function take(proposals: readonly Proposal[], of = nursery.nurseryId) {
    if (of !== nursery.nurseryId) return;
    all.value = proposals;
    loadedFor.value = of;
    if (isBusy.value) poll.resume();
    else poll.pause();
  }
  async function load(): Promise<void> {
    const { nurseryId } = nursery;
    take((await call('proposals', { params: nursery.params })).proposals, nurseryId);
  }
  const poll = useTimeoutPoll(
    async () => {
      try {
        await load();
        isCut.value = false;
      } catch {
        isCut.value = true;
      }
    },
    ASK_MS,
    { immediate: false },
  );

  const at = (id: string) => ({ ...nursery.params, proposal: id });
  const propose = async (body: BodyInputOf<'propose'>) =>
    take((await call('propose', { params: nursery.params, body })).proposals);
  const rename = async (id: string, name: string) =>
    take((await call('nameProposal', { params: at(id), body: { name } })).proposals);
  const stop = async (id: string) =>
    take((await call('stopProposal', { params: at(id), body: { id: newId() } })).proposals);
  const remove = async (id: string) =>
    take((await call('removeProposal', { params: at(id), body: { id: newId() } })).proposals);
  /** Makes it the plan. */
  async function choose(id: string): Promise<void> {
    await plan.replaced(() =>
      call('chooseProposal', { params: at(id), body: { version: plan.kept!.version } }),
    );
    await load();
  }
  return { all, loaded, isBusy, isCut, load, propose, rename, stop, remove, choose };
});
