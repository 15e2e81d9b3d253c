<script setup lang="ts">
import { say } from '@kauri/core';
import type { SeedAct } from '@kauri/core';
import { computed, onMounted, watch } from 'vue';
import { RouterView, useRoute } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import LotsHere from '../../parts/LotsHere.vue';
import StationTabs from '../../parts/StationTabs.vue';
import { useForecasts } from '../../stores/forecasts';
import { useNursery } from '../../stores/nursery';
import { useOthers } from '../../stores/others';
import { useMessages } from '../../stores/messages';
import { useSeed } from '../../stores/seed';

const seed = useSeed();
const forecasts = useForecasts();
const messages = useMessages();
const nursery = useNursery();
const route = useRoute();
// What lots of the past came to is learnt from here too.
const load = (again = false) =>
  Promise.all([seed.load(again), nursery.lookBack()]).catch((error: unknown) =>
    messages.say(sentenceOf(error)),
  );
onMounted(() => void load());
useOthers().follow(['lots'], () => load(true));
// No lot is chosen here, so the ribbon shows no lot's windows.
watch(
  () => route.name,
  (name) => String(name).startsWith('seed') && forecasts.select(null),
  { immediate: true },
);

const now = (part: SeedAct['part']) => seed.acts.filter((a) => a.when === 'now' && a.part === part).length;
const parts = computed(() => [
  { name: 'seed', words: say`Store`, marked: now('store') },
  { name: 'seed-clock', words: say`Dormancy`, marked: now('clock') },
  { name: 'seed-desk', words: say`Sowing desk` },
  { name: 'seed-up', words: say`Coming up` },
  { name: 'seed-cuttings', words: say`Cuttings` },
  { name: 'seed-layers', words: say`Air layers`, marked: now('layers') },
  { name: 'seed-arrivals', words: say`Arrivals` },
  { name: 'seed-labels', words: say`Labels` },
  { name: 'seed-species', words: say`Species` },
]);
</script>

<template>
  <div class="flex h-full flex-col">
    <StationTabs :label="say`Parts of the seed room`" :parts="parts" />
    <p v-if="seed.fault" class="text-wrong px-4 py-2 font-bold" role="alert">{{ seed.fault }}</p>
    <div
      v-if="seed.loaded && nursery.past === 'here'"
      data-station-scroll
      class="relative min-h-0 flex-1 overflow-y-auto"
    >
      <LotsHere><RouterView /></LotsHere>
    </div>
    <p v-else class="text-muted p-6" role="status">{{ say`Opening the seed room …` }}</p>
  </div>
</template>
