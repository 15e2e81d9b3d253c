<script setup lang="ts">
import { say } from '@kauri/core';
import { RouterLink, useRoute } from 'vue-router';

/** The parts of a station, one row, in the order of the work. */
defineProps<{ label: string; parts: readonly { name: string; words: string; marked?: number }[] }>();
const route = useRoute();
const here = (name: string) => route.name === name;
</script>

<template>
  <nav class="border-rule flex overflow-x-auto border-b px-2" :aria-label="label">
    <RouterLink
      v-for="part in parts"
      :key="part.name"
      :to="{ name: part.name }"
      class="flex min-h-11 items-center gap-1 border-b-3 border-transparent px-3 whitespace-nowrap hover:bg-leaf-pale"
      :class="here(part.name) ? '!border-ink font-bold' : ''"
      :aria-current="here(part.name) ? 'page' : undefined"
    >
      {{ part.words }}
      <span v-if="part.marked" class="bg-tag text-tag-ink min-w-5 rounded px-1 text-center text-sm font-bold"
        >{{ part.marked }}<span class="sr-only"> {{ say` to do now` }}</span></span
      >
    </RouterLink>
  </nav>
</template>
