<script setup lang="ts">
import { RouterLink, useRoute } from 'vue-router';

const route = useRoute();
const here = (name: string) => route.name === name;

/** The parts of the Yard: what stands where, and what is planned for it. */
const parts = [
  { name: 'yard', words: 'Places' },
  { name: 'yard-site', words: 'Site plan' },
  { name: 'yard-light', words: 'Light' },
  { name: 'yard-water', words: 'Water' },
  { name: 'yard-build', words: 'Build' },
  { name: 'yard-containers', words: 'Containers' },
  { name: 'yard-media', words: 'Media' },
] as const;
</script>

<template>
  <nav class="border-rule flex overflow-x-auto border-b px-2" aria-label="Parts of the yard">
    <RouterLink
      v-for="part in parts"
      :key="part.name"
      :to="{ name: part.name }"
      class="flex min-h-11 items-center border-b-3 border-transparent px-3 whitespace-nowrap hover:bg-leaf-pale"
      :class="here(part.name) ? '!border-ink font-bold' : ''"
      :aria-current="here(part.name) ? 'page' : undefined"
    >
      {{ part.words }}
    </RouterLink>
  </nav>
</template>
