<script setup lang="ts">
import { onMounted, watch } from 'vue';
import { RouterView, useRoute } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import LotsHere from '../../parts/LotsHere.vue';
import { useForecasts } from '../../stores/forecasts';
import { useMessages } from '../../stores/messages';
import { useOthers } from '../../stores/others';
import { useYard } from '../../stores/yard';
import YardTabs from './YardTabs.vue';

const forecasts = useForecasts();
const yard = useYard();
const messages = useMessages();
const route = useRoute();
const load = (again = false) => yard.load(again).catch((error: unknown) => messages.say(sentenceOf(error)));
onMounted(() => load());
useOthers().follow(['yard', 'water'], async () => {
  if (!yard.saving) await load(true);
});
// No lot is chosen here, so the ribbon shows no lot's windows.
watch(
  () => route.name,
  (name) => String(name).startsWith('yard') && forecasts.select(null),
  { immediate: true },
);
</script>

<template>
  <div class="flex h-full flex-col">
    <YardTabs />
    <div data-station-scroll class="relative min-h-0 flex-1 overflow-y-auto">
      <LotsHere><RouterView /></LotsHere>
    </div>
  </div>
</template>
