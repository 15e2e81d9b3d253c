<script setup lang="ts">
import { computed, onMounted, watch } from 'vue';
import { RouterView, useRoute } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import StationTabs from '../../parts/StationTabs.vue';
import { useForecasts } from '../../stores/forecasts';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useOrders } from '../../stores/orders';
import { useParcels } from '../../stores/parcels';

const parcels = useParcels();
const orders = useOrders();
const nursery = useNursery();
const forecasts = useForecasts();
const messages = useMessages();
const route = useRoute();
const load = (work: () => Promise<unknown>) =>
  void work().catch((error: unknown) => messages.say(sentenceOf(error)));
onMounted(() => load(() => orders.load()));
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
const parts = computed(() => [
  { name: 'lift', words: 'To lift' },
  { name: 'lift-order', words: 'In what order' },
  { name: 'lift-lying', words: 'Lifted' },
  { name: 'lift-load', words: 'To load' },
]);
</script>

<template>
  <div class="flex h-full flex-col">
    <StationTabs label="Parts of lifting" :parts="parts" />
    <div class="relative min-h-0 flex-1 overflow-y-auto"><RouterView /></div>
  </div>
</template>
