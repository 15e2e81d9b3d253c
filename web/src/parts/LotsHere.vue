<script setup lang="ts">
import { say } from '@kauri/core';
import { computed, watch } from 'vue';
import { useRoute } from 'vue-router';
import { useForecasts } from '../stores/forecasts';

/** A page that tells what stands where waits until every lot is worked out: a bed is not called empty before that is known. */
const forecasts = useForecasts();
const route = useRoute();
const needs = computed(() => route.meta.lots === true);
watch(needs, (needed) => needed && forecasts.wantAll(), { immediate: true });
</script>

<template>
  <slot v-if="!needs || forecasts.viewsOf !== null" />
  <div v-else-if="!forecasts.failure" class="p-6" role="status">
    <p class="text-muted mb-3">{{ say`Working out the lots …` }}</p>
    <div class="animate-pulse space-y-3" aria-hidden="true">
      <div v-for="i in 6" :key="i" class="bg-rule/50 h-16 rounded" />
    </div>
  </div>
</template>
