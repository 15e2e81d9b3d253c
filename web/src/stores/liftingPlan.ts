import { dayOf, type EpochDay } from '@kauri/core';
import type { KeptLiftingPlan, LiftingPlan } from '@kauri/core/contract';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { call } from '../api/client';
import { ProblemError } from '../api/problem';
import { useNursery } from './nursery';
import { useOthers } from './others';

/** Times a change is made anew over what others wrote meanwhile. */
const TRIES = 4;

/** How the weeks of lifting are planned here: the hands there are, and lots moved to a day by somebody. */
export const useLiftingPlan = defineStore('liftingPlan', () => {
  const nursery = useNursery();
  const kept = shallowRef<KeptLiftingPlan | null>(null);
  const loadedFor = shallowRef<string | null>(null);
  const loaded = computed(() => loadedFor.value === nursery.nurseryId);

  async function load(): Promise<void> {
    const { nurseryId } = nursery;
    kept.value = await call('liftingPlan', { params: nursery.params });
    loadedFor.value = nurseryId;
  }
  useOthers().follow(['parcels'], () => (loaded.value ? load() : Promise.resolve()));

  /** Changes the plan as it stands: over what somebody else wrote meanwhile, too. */
  async function change(next: (plan: LiftingPlan) => LiftingPlan): Promise<void> {
    for (let left = TRIES; ; left--) {
      const { version, plan } = kept.value!;
      try {
        kept.value = await call('setLiftingPlan', {
          params: nursery.params,
          body: { version, plan: next(plan) },
        });
        return;
      } catch (error) {
        if (left === 1 || !(error instanceof ProblemError) || error.kind !== 'stale-edit') throw error;
        await load();
      }
    }
  }
  /** @param day null, and the lot is lifted when the order has it */
  const move = (lotId: string, day: string | null) =>
    change((plan) => ({
      ...plan,
      moved: [...plan.moved.filter((one) => one.lotId !== lotId), ...(day === null ? [] : [{ lotId, day }])],
    }));

  const hands = computed(() => kept.value?.plan.hands ?? null);
  const moved = computed(
    (): ReadonlyMap<string, EpochDay> =>
      new Map(kept.value?.plan.moved.map(({ lotId, day }) => [lotId, dayOf(day)])),
  );
  return { loaded, hands, moved, load, change, move };
});
