import { nothingLearnt, routesOf } from '@kauri/core';
import type { KeptRoutes, RaisingRoute } from '@kauri/core/contract';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { call } from '../api/client';
import { ProblemError } from '../api/problem';
import { useNursery } from './nursery';

/** How species are raised here: the nursery's own routes, and those a species' habit suggests where it has none. */
export const useRoutes = defineStore('routes', () => {
  const nursery = useNursery();
  const kept = shallowRef<KeptRoutes | null>(null);
  const loadedFor = shallowRef<string | null>(null);
  const loaded = computed(() => loadedFor.value === nursery.nurseryId);

  async function load(): Promise<void> {
    const { nurseryId } = nursery;
    kept.value = await call('routes', { params: nursery.params });
    loadedFor.value = nurseryId;
  }
  /** Writes all of a species' routes, its best first; none: what its habit suggests stands again. */
  async function write(speciesId: string, routes: readonly RaisingRoute[]): Promise<void> {
    const { version, routes: all } = kept.value!;
    const others = all.routes.filter((route) => route.speciesId !== speciesId);
    try {
      kept.value = await call('setRoutes', {
        params: nursery.params,
        body: { version, routes: { schema: 1, routes: [...others, ...routes] } },
      });
    } catch (error) {
      // Somebody wrote meanwhile: told of, and writing again goes on from what stands now.
      if (error instanceof ProblemError && error.kind === 'stale-edit') await load();
      throw error;
    }
  }
  /** What the nursery's own lots and recorded hours say of stages. */
  const learnt = computed(() => kept.value?.learnt ?? nothingLearnt);
  const of = (speciesId: string) =>
    routesOf(
      nursery.lookup.species.get(speciesId)!,
      kept.value?.routes.routes ?? [],
      nursery.lookup,
      learnt.value,
    );
  return { kept, loaded, learnt, load, write, of };
});
