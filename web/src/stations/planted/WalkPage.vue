<script setup lang="ts">
import { say } from '@kauri/core';
import type { WalkSheet } from '@kauri/core/contract';
import { computed, onMounted, shallowRef } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import { usePlantings } from '../../stores/plantings';
import WalkRun from './WalkRun.vue';

/** A walk through a planting: fetched whole, then walked tree by tree. */
const plantings = usePlantings();
const route = useRoute();
const sheet = shallowRef<WalkSheet | null>(null);
const fault = shallowRef<string | null>(null);
onMounted(async () => {
  try {
    sheet.value = await plantings.sheet(String(route.params.walk));
  } catch (error) {
    fault.value = sentenceOf(error);
  }
});
const planting = computed(
  () => plantings.kept.plantings.find(({ id }) => id === sheet.value?.walk.plantingId) ?? null,
);
</script>

<template>
  <div class="h-full">
    <p v-if="fault" class="text-wrong p-4 font-bold" role="alert">
      {{ fault }} <RouterLink class="quiet" :to="{ name: 'planted' }">{{ say`To the plantings` }}</RouterLink>
    </p>
    <p v-else-if="!sheet || !planting" class="text-muted p-4" role="status">
      {{ say`Fetching the trees …` }}
    </p>
    <WalkRun v-else :sheet="sheet" :planting="planting" />
  </div>
</template>
