<script setup lang="ts">
import { say } from '@kauri/core';
import { computed, onMounted } from 'vue';
import { RouterView, useRoute } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import StationTabs from '../../parts/StationTabs.vue';
import { useForecasts } from '../../stores/forecasts';
import { useMessages } from '../../stores/messages';
import { useParcels } from '../../stores/parcels';
import { usePlantings } from '../../stores/plantings';

const plantings = usePlantings();
const parcels = useParcels();
const forecasts = useForecasts();
const messages = useMessages();
const route = useRoute();
onMounted(() => {
  forecasts.select(null);
  for (const load of [plantings.load, parcels.ready])
    load().catch((error: unknown) => messages.say(sentenceOf(error)));
});
/** On a walk the whole screen is the trees'. */
const isWalk = computed(() => route.name === 'planted-walk');
const parts = [
  { name: 'planted', words: say`Plantings` },
  { name: 'planted-lived', words: say`What lived` },
  { name: 'planted-year', words: say`The year` },
];
</script>

<template>
  <div class="flex h-full flex-col">
    <StationTabs v-if="!isWalk" :label="say`Parts of what is planted`" :parts="parts" />
    <div data-station-scroll class="relative min-h-0 flex-1 overflow-y-auto">
      <p v-if="!plantings.loaded" class="text-muted p-4" role="status">
        {{ say`Looking what is planted …` }}
      </p>
      <RouterView v-else />
    </div>
  </div>
</template>
