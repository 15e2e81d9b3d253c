<script setup lang="ts">
import { say } from '@kauri/core';
import type { Layer } from '@kauri/core/contract';
import { computed } from 'vue';
import { usePreferences } from '../../../stores/preferences';

/** The branch with its ring and pouch, true to scale. */
const props = defineProps<{ layer: Layer }>();
const { show } = usePreferences();
const W = 420;
const scale = computed(() => Math.min((W - 40) / props.layer.freeMm, 60 / props.layer.branchMm));
const length = computed(() => props.layer.freeMm * scale.value);
const thick = computed(() => props.layer.branchMm * scale.value);
const ring = computed(() => props.layer.ringMm * scale.value);
const mid = computed(() => 20 + length.value / 2);
const Y = 80;
const pouch = computed(() => Math.max(ring.value * 1.9, ring.value + 24));
</script>

<template>
  <figure>
    <svg
      :viewBox="`0 0 ${W} 165`"
      class="w-full max-w-xl"
      role="img"
      :aria-label="say`Branch, ring and pouch to scale`"
    >
      <rect :x="20" :y="Y - thick / 2" :width="length" :height="thick" fill="var(--leaf-mid)" />
      <rect
        :x="mid - ring / 2"
        :y="Y - (thick * 0.86) / 2"
        :width="ring"
        :height="thick * 0.86"
        fill="var(--card)"
        stroke="var(--leaf)"
      />
      <ellipse
        :cx="mid"
        :cy="Y"
        :rx="pouch / 2"
        :ry="Math.max(thick * 1.15, 26)"
        fill="var(--soil)"
        fill-opacity="0.55"
        stroke="var(--soil-deep)"
        stroke-width="2"
      />
      <path
        v-if="layer.pouch === 'drained'"
        :d="`M${mid} ${Y + Math.max(thick * 1.15, 26) - 2}v12`"
        stroke="var(--water)"
        stroke-width="3"
      />
      <g font-size="13" fill="var(--ink)">
        <path
          :d="`M${mid - ring / 2} 20v-8M${mid + ring / 2} 20v-8M${mid - ring / 2} 16h${ring}`"
          stroke="var(--ink)"
          fill="none"
        />
        <text :x="mid + ring / 2 + 8" y="20">{{ say`ring ${show(layer.ringMm, 'timber')}` }}</text>
        <text x="20" y="158" fill="var(--muted)">
          {{ say`${show(layer.branchMm, 'diameter')} thick, ${show(layer.freeMm, 'timber')} clear` }}
        </text>
      </g>
    </svg>
  </figure>
</template>
