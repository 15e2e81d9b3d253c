<script setup lang="ts">
import { watch } from 'vue';
import { useRoute } from 'vue-router';
import { useForecasts } from '../../stores/forecasts';
import MeasurementImport from './MeasurementImport.vue';
import WeatherImport from './WeatherImport.vue';

const route = useRoute();
const forecasts = useForecasts();
watch(
  () => route.name,
  (name) => name === 'records' && forecasts.select(null),
  { immediate: true },
);
</script>

<template>
  <div class="mx-auto max-w-4xl space-y-5 p-4 md:p-6">
    <h1 class="text-2xl">Records in and out</h1>
    <p>
      Tables come in as CSV in any column order. You see how each line is read, what is wrong is said by line,
      and nothing is taken until you say so.
    </p>
    <WeatherImport />
    <MeasurementImport />
  </div>
</template>
