<script setup lang="ts">
import { say } from '@kauri/core';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { useLots } from '../../parts/useLots';
import { useForecasts } from '../../stores/forecasts';
import { useGrading } from '../../stores/grading';
import TallyRun from './TallyRun.vue';

/** Counting a lift at the bed: opens once the lot and its grades are known. */
const route = useRoute();
const forecasts = useForecasts();
const grading = useGrading();
const { lots } = useLots();
const lot = computed(() => lots.value.find(({ row }) => row.id === route.params.lot) ?? null);
</script>

<template>
  <p v-if="forecasts.viewsOf === null || !grading.kept" class="text-muted p-4" role="status">
    {{ say`Fetching the lot …` }}
  </p>
  <TallyRun v-else-if="lot" :key="lot.row.id" :lot="lot" />
  <p v-else class="p-4">
    {{ say`This lot is not there, or nothing of it stands.` }}
    <RouterLink class="quiet" :to="{ name: 'lift' }">{{ say`All to lift` }}</RouterLink>
  </p>
</template>
