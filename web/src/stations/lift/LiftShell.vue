<script setup lang="ts">
import { say } from '@kauri/core';
import { computed, onMounted, watch } from 'vue';
import { RouterView, useRoute } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import StationTabs from '../../parts/StationTabs.vue';
import { useForecasts } from '../../stores/forecasts';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useOthers } from '../../stores/others';
import { useOrders } from '../../stores/orders';
import { useGrading } from '../../stores/grading';
import { useLiftingPlan } from '../../stores/liftingPlan';
import { useParcels } from '../../stores/parcels';
import { useRoots } from '../../stores/roots';

const parcels = useParcels();
const grading = useGrading();
const liftingPlan = useLiftingPlan();
const roots = useRoots();
const orders = useOrders();
const nursery = useNursery();
const forecasts = useForecasts();
const messages = useMessages();
const route = useRoute();
const load = (work: () => Promise<unknown>) =>
  void work().catch((error: unknown) => messages.say(sentenceOf(error)));
onMounted(() => {
  load(() => orders.load());
  load(() => grading.load());
  load(() => liftingPlan.load());
  load(() => roots.load());
});
const others = useOthers();
others.follow(['plantings', 'arrivals'], parcels.load);
others.follow(['plan'], orders.load);
// What is lifted, lost or sent, here or by somebody else, changes the lots it came from.
watch(
  () => [nursery.facts, parcels.isStale],
  () => parcels.isStale && load(parcels.load),
  { immediate: true },
);
watch(
  () => route.name,
  (name) => name !== 'lift' && forecasts.select(null),
  { immediate: true },
);
/** At the bed the whole screen is the tally's. */
const isTally = computed(() => route.name === 'lift-tally');
const parts = computed(() => [
  { name: 'lift', words: say`To lift` },
  { name: 'lift-order', words: say`In what order` },
  { name: 'lift-lying', words: say`Lifted` },
  { name: 'lift-load', words: say`To load` },
]);
</script>

<template>
  <div class="flex h-full flex-col">
    <StationTabs v-if="!isTally" :label="say`Parts of lifting`" :parts="parts" />
    <div data-station-scroll class="relative min-h-0 flex-1 overflow-y-auto"><RouterView /></div>
  </div>
</template>
