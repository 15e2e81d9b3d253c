<script setup lang="ts">
import { say } from '@kauri/core';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { useNursery } from '../stores/nursery';
import { several } from '../words/numbers';

/** Says when the weather has been silent so long that forecasts rest on usual days. */
const nursery = useNursery();
const SILENT_DAYS = 3;
const behind = computed(() => nursery.weatherBehind);
</script>

<template>
  <p
    v-if="behind > SILENT_DAYS && Number.isFinite(behind)"
    class="bg-tag text-tag-ink rounded p-3"
    role="alert"
    data-testid="weather-behind"
  >
    <b>{{ say`No weather for ${several(behind, 'day')}.` }}</b>
    {{ say`Forecasts fill them with usual days.` }}
    <RouterLink class="underline underline-offset-4" :to="{ name: 'yard-weather' }">{{
      say`Read the station`
    }}</RouterLink>{{ say`, or take a table in.` }}
  </p>
</template>
