<script setup lang="ts">
import { say } from '@kauri/core';
import { onMounted, watch } from 'vue';
import { RouterView, useRoute } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import StationTabs from '../../parts/StationTabs.vue';
import { useForecasts } from '../../stores/forecasts';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useOthers } from '../../stores/others';
import { useOrders } from '../../stores/orders';
import { useParcels } from '../../stores/parcels';
import { usePlan } from '../../stores/plan';
import { useRoutes } from '../../stores/routes';

const orders = useOrders();
const parcels = useParcels();
const plan = usePlan();
const routes = useRoutes();
const nursery = useNursery();
const forecasts = useForecasts();
const messages = useMessages();
const route = useRoute();
const load = () =>
  Promise.all([orders.load(), routes.load(), plan.load(), parcels.load()]).catch((error: unknown) =>
    messages.say(sentenceOf(error)),
  );
onMounted(load);
useOthers().follow(['plan', 'parcels'], () => Promise.all([orders.load(), routes.load()]));
// No lot is chosen here, so the ribbon shows no lot's windows.
watch(
  () => route.name,
  (name) => String(name).startsWith('plan') && forecasts.select(null),
  { immediate: true },
);
const parts = [
  { name: 'plan', words: say`Orders` },
  { name: 'plan-promise', words: say`Free to promise` },
  { name: 'plan-when', words: say`When to sow` },
  { name: 'plan-costs', words: say`Beds or pots` },
  { name: 'plan-season', words: say`The season` },
  { name: 'plan-board', words: say`The board` },
  { name: 'plan-lists', words: say`Lists` },
  { name: 'plan-routes', words: say`Routes` },
];
</script>

<template>
  <div class="flex h-full flex-col">
    <StationTabs :label="say`Parts of the plan`" :parts="parts" />
    <div
      v-if="orders.loaded && routes.loaded && plan.loaded && nursery.whole"
      data-station-scroll
      class="relative min-h-0 flex-1 overflow-y-auto"
    >
      <RouterView />
    </div>
    <p v-else class="text-muted p-6" role="status">{{ say`Opening the order book …` }}</p>
  </div>
</template>
