<script setup lang="ts">
import { collarAtDensity, type SpeciesValues, say } from '@kauri/core';
import { computed } from 'vue';
import { usePreferences } from '../../../stores/preferences';

/** Closer standing, thinner collars: what the density asked for gives up. */
const props = defineProps<{ species: SpeciesValues; depthMm: number; density: number; collarMm: number }>();
const { show } = usePreferences();
const [W, H, LEFT, BOTTOM] = [420, 180, 58, 28];
const most = computed(() => Math.max(600, props.density * 1.6));
const top = computed(() => collarAtDensity(props.species, 0, props.depthMm));
const x = (density: number) => LEFT + (density / most.value) * (W - LEFT - 12);
const y = (mm: number) => 10 + (1 - mm / top.value) * (H - 10 - BOTTOM);
const line = computed(() =>
  Array.from({ length: 41 }, (_, i) => {
    const density = (most.value * i) / 40;
    return `${x(density).toFixed(1)},${y(collarAtDensity(props.species, density, props.depthMm)).toFixed(1)}`;
  }).join(' '),
);
</script>

<template>
  <figure>
    <svg
      :viewBox="`0 0 ${W} ${H}`"
      class="w-full"
      role="img"
      :aria-label="say`Collar after a season against density`"
    >
      <g font-size="13" fill="var(--muted)">
        <line :x1="LEFT" :x2="W - 12" :y1="y(0)" :y2="y(0)" stroke="var(--soil-deep)" stroke-width="2" />
        <line :x1="LEFT" :x2="W - 12" :y1="y(top / 2)" :y2="y(top / 2)" stroke="var(--rule)" />
        <text :x="LEFT - 6" :y="y(top / 2) + 4" text-anchor="end">{{ show(top / 2, 'diameter') }}</text>
        <text :x="LEFT - 6" y="16" text-anchor="end">{{ show(top, 'diameter') }}</text>
        <text :x="W - 12" :y="H - 8" text-anchor="end">{{ show(most, 'density') }}</text>
        <text :x="LEFT" :y="H - 8">{{ say`alone` }}</text>
      </g>
      <polyline :points="line" fill="none" stroke="var(--leaf)" stroke-width="2.5" />
      <line
        :x1="x(density)"
        :x2="x(density)"
        :y1="y(collarMm)"
        :y2="y(0)"
        stroke="var(--ink)"
        stroke-dasharray="3 3"
      />
      <circle
        :cx="x(density)"
        :cy="y(collarMm)"
        r="6"
        fill="var(--card)"
        stroke="var(--ink)"
        stroke-width="3"
      />
    </svg>
    <figcaption class="text-muted text-sm">
      {{
        say`Collar after one season in ${show(depthMm, 'timber')} of settled medium, against trees a square metre.`
      }}
    </figcaption>
  </figure>
</template>
