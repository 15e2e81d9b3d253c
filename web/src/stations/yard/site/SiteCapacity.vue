<script setup lang="ts">
import { yardCapacity, say } from '@kauri/core';
import { useLocalStorage } from '@vueuse/core';
import { computed } from 'vue';
import SelectField from '../../../parts/SelectField.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { count, several } from '../../../words/numbers';
import { DENSITY_KEY, USUAL_DENSITY } from '../bedForm';
import type { ShownPlace } from '../usePlaces';
import { keptKey } from '../../../stores/kept';

/** What the whole yard can carry, and how much of it is taken at the ribbon's date. */
const props = defineProps<{ places: readonly ShownPlace[] }>();
const nursery = useNursery();
const { show } = usePreferences();
const density = useLocalStorage(DENSITY_KEY, USUAL_DENSITY);
const containers = computed(() => nursery.catalogue!.containers.filter((c) => c.values.cellsPerTray > 1));
const containerId = useLocalStorage(keptKey('capacity.container'), '');
const container = computed(
  () => containers.value.find((c) => c.id === containerId.value) ?? containers.value[0],
);
const capacity = computed(() => {
  const { trayLengthMm, trayWidthMm, cellsPerTray } = container.value.values;
  return yardCapacity(
    props.places.map((p) => p.place.place),
    density.value,
    { lengthMm: trayLengthMm, widthMm: trayWidthMm },
    cellsPerTray,
  );
});
const taken = computed(() => {
  let bedM2 = 0;
  let trays = 0;
  for (const { occupancy } of props.places) {
    if (occupancy.kind === 'bed') bedM2 += occupancy.usedM2;
    else trays += occupancy.layout.laid.length;
  }
  return { bedM2, trays };
});
</script>

<template>
  <section aria-labelledby="carries" data-testid="capacity">
    <h2 id="carries" class="text-lg">{{ say`What the yard can carry` }}</h2>
    <dl class="text-[0.95rem]">
      <div class="border-rule flex justify-between border-b py-1">
        <dt class="text-muted">{{ several(capacity.value.beds, 'bed') }}, {{ show(density, 'density') }}</dt>
        <dd>
          <b>{{ say`${count(capacity.value.bedTrees)} trees` }}</b>
        </dd>
      </div>
      <div class="border-rule flex justify-between border-b py-1">
        <dt class="text-muted">{{ say`Taken of ${show(capacity.value.bedM2, 'area')}` }}</dt>
        <dd>
          <b>{{ show(taken.bedM2, 'area') }}</b>
        </dd>
      </div>
      <div class="border-rule flex justify-between border-b py-1">
        <dt class="text-muted">{{ several(capacity.value.benches, 'bench', say`benches and grounds`) }}</dt>
        <dd>
          <b>{{ say`${count(capacity.value.trays)} trays, ${count(capacity.value.cells)} cells` }}</b>
        </dd>
      </div>
      <div class="border-rule flex justify-between border-b py-1">
        <dt class="text-muted">{{ say`Trays standing` }}</dt>
        <dd>
          <b>{{ count(taken.trays) }}</b>
        </dd>
      </div>
    </dl>
    <SelectField
      class="mt-2"
      :model-value="container.id"
      :label="say`Counted in`"
      :options="containers.map((c) => ({ value: c.id, words: c.values.name }))"
      @update:model-value="(id: string) => (containerId = id)"
    />
    <ShowWorking :steps="capacity.working" />
  </section>
</template>
