<script setup lang="ts">
import { say } from '@kauri/core';
import type { ContainerType } from '@kauri/core/contract';
import { computed } from 'vue';
import { usePreferences } from '../../../stores/preferences';

/** One cell cut down its middle, to scale: its walls, solid or open, and the medium in it. */
const props = defineProps<{ values: ContainerType['values']; pxPerMm?: number }>();
const { show } = usePreferences();
const d = computed(() => {
  const { topMm, bottomMm, depthMm, wallOpenShare, baseOpenShare } = props.values;
  const s = props.pxPerMm ?? Math.min(110 / topMm, 150 / depthMm);
  const [t, b, h] = [topMm * s, bottomMm * s, depthMm * s];
  const mid = t / 2 + 4;
  return {
    w: t + 8,
    h: h + 10,
    body: `M${mid - t / 2} 4L${mid - b / 2} ${4 + h}H${mid + b / 2}L${mid + t / 2} 4Z`,
    left: `M${mid - t / 2} 4L${mid - b / 2} ${4 + h}`,
    right: `M${mid + t / 2} 4L${mid + b / 2} ${4 + h}`,
    base: `M${mid - b / 2} ${4 + h}H${mid + b / 2}`,
    // Ten dashes down the wall; what is open is left out of each.
    wall: `${Math.max(0.01, (1 - wallOpenShare) * (h / 10))} ${wallOpenShare * (h / 10)}`,
    floor: `${Math.max(0.01, (1 - baseOpenShare) * (b / 5))} ${baseOpenShare * (b / 5)}`,
  };
});
</script>

<template>
  <svg
    :width="d.w"
    :height="d.h"
    role="img"
    :aria-label="say`Section: ${show(values.topMm, 'timber')} across, ${show(values.depthMm, 'timber')} deep`"
  >
    <path :d="d.body" fill="var(--soil)" />
    <g stroke="var(--ink)" stroke-width="3" fill="none">
      <path :d="d.left" :stroke-dasharray="d.wall" />
      <path :d="d.right" :stroke-dasharray="d.wall" />
      <path :d="d.base" :stroke-dasharray="d.floor" />
    </g>
  </svg>
</template>
