<script setup lang="ts">
import { say } from '@kauri/core';
import StationTabs from '../../parts/StationTabs.vue';

/** The parts of the Yard: what stands where, and what is planned for it. */
const parts = [
  { name: 'yard', words: say`Places` },
  { name: 'yard-site', words: say`Site plan` },
  { name: 'yard-light', words: say`Light` },
  { name: 'yard-weather', words: say`Weather` },
  { name: 'yard-water', words: say`Water` },
  { name: 'yard-build', words: say`Build` },
  { name: 'yard-containers', words: say`Containers` },
  { name: 'yard-media', words: say`Media` },
] as const;
</script>

<template>
  <StationTabs :label="say`Parts of the yard`" :parts="parts" />
</template>
