<script setup lang="ts">
import { onMounted, watch } from 'vue';
import { RouterView, useRoute } from 'vue-router';
import { useForecasts } from '../../stores/forecasts';
import { useYard } from '../../stores/yard';
import YardTabs from './YardTabs.vue';

const forecasts = useForecasts();
const yard = useYard();
const route = useRoute();
onMounted(() => void yard.load());
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
    <div class="min-h-0 flex-1 overflow-y-auto">
      <RouterView />
    </div>
  </div>
</template>
