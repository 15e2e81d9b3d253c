<script setup lang="ts">
import { computed } from 'vue';
import { planParts } from './plan/planParts';
import type { ShownPlace } from './usePlaces';

/** A place from above, stretched to a strip: what is taken of its length. */
const props = defineProps<{ shown: ShownPlace }>();
const parts = computed(() => planParts(props.shown, { x: 0, y: 0, w: 100, h: 6 }));
</script>

<template>
  <svg viewBox="0 0 100 6" preserveAspectRatio="none" class="h-2.5 w-full" aria-hidden="true">
    <rect x="0" y="0" width="100" height="6" fill="var(--soil)" />
    <rect
      v-for="(p, i) in parts"
      :key="i"
      :x="p.x"
      :y="p.y"
      :width="p.w"
      :height="p.h"
      fill="var(--soil-deep)"
    />
  </svg>
</template>
