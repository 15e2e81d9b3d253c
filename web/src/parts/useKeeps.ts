import type { Keeps, Worked } from '@kauri/core';
import { createSharedComposable } from '@vueuse/core';
import { shallowRef, watch } from 'vue';
import { useForecasts } from '../stores/forecasts';
import { latestOnly } from '../stores/latestOnly';
import { useNursery } from '../stores/nursery';
import { useParcels } from '../stores/parcels';
import { useSeason } from '../stores/season';

/** Until when what was lifted keeps where it lies, worked out once for all who ask; null until it is. */
export const useKeeps = createSharedComposable(() => {
  const parcels = useParcels();
  const forecasts = useForecasts();
  const nursery = useNursery();
  const season = useSeason();
  const keeps = shallowRef<ReadonlyMap<string, Worked<Keeps>> | null>(null);
  const work = latestOnly(async () => {
    keeps.value = parcels.whole.length ? await forecasts.keeps(parcels.whole) : new Map();
  });
  watch(
    [
      () => parcels.loaded && parcels.whole,
      () => nursery.whole,
      () => nursery.weatherVersion,
      () => season.today,
    ],
    () => parcels.loaded && nursery.whole && void work(),
    { immediate: true },
  );
  return { keeps };
});
