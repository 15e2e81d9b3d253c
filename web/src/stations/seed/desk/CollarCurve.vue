<script setup lang="ts">
import { collarAtDensity, type SpeciesValues, say } from '@kauri/core';
import { computed } from 'vue';
import type { Chart } from '../../../parts/chart/chart';
import DrawnChart from '../../../parts/chart/DrawnChart.vue';
import { usePreferences } from '../../../stores/preferences';

/** Closer standing, thinner collars: what the density asked for gives up. */
const props = defineProps<{ species: SpeciesValues; depthMm: number; density: number; collarMm: number }>();
const { show } = usePreferences();
const POINTS = 40;

const chart = computed<Chart>(() => {
  const most = Math.max(600, props.density * 1.6);
  const collar = (density: number) => collarAtDensity(props.species, density, props.depthMm);
  const top = collar(0);
  const tell = (mm: number) => show(mm, 'diameter');
  return {
    x: {
      from: 0,
      to: most,
      name: say`Density`,
      tell: (density) => show(density, 'density'),
      ticks: [
        { at: 0, words: say`alone` },
        { at: most / 2, words: show(most / 2, 'density') },
        { at: most, words: show(most, 'density') },
      ],
    },
    y: {
      from: 0,
      to: top,
      name: say`Collar`,
      tell,
      ticks: [top / 2, top].map((at) => ({ at, words: tell(at) })),
    },
    lines: [
      {
        name: say`collar`,
        ink: 'leaf',
        points: Array.from({ length: POINTS + 1 }, (_, i) => {
          const x = (most * i) / POINTS;
          return { x, y: collar(x) };
        }),
      },
    ],
    rules: [{ x: props.density, ink: 'ink', dashed: true, upTo: props.collarMm }],
    marks: [
      { name: say`asked for`, ink: 'ink', shape: 'ring', points: [{ x: props.density, y: props.collarMm }] },
    ],
  };
});
</script>

<template>
  <DrawnChart
    :chart="chart"
    :height="190"
    :label="say`Collar after a season against density`"
    :caption="
      say`Collar after one season in ${show(depthMm, 'timber')} of settled medium, against how close its trees stand.`
    "
  />
</template>
