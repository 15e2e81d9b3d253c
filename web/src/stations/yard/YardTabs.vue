<script setup lang="ts">
import StationTabs from '../../parts/StationTabs.vue';

/** The parts of the Yard: what stands where, and what is planned for it. */
const parts = [
  { name: 'yard', words: 'Places' },
  { name: 'yard-site', words: 'Site plan' },
  { name: 'yard-light', words: 'Light' },
  { name: 'yard-weather', words: 'Weather' },
  { name: 'yard-water', words: 'Water' },
  { name: 'yard-build', words: 'Build' },
  { name: 'yard-containers', words: 'Containers' },
  { name: 'yard-media', words: 'Media' },
] as const;
</script>

<template>
  <StationTabs label="Parts of the yard" :parts="parts" />
</template>
