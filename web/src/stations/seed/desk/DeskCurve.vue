<script setup lang="ts">
import { say } from '@kauri/core';
import type { SowingPlan } from '@kauri/core';
import { computed } from 'vue';
import { shareAxis } from '../../../parts/chart/axes';
import type { Chart } from '../../../parts/chart/chart';
import DrawnChart from '../../../parts/chart/DrawnChart.vue';
import { count, percent, surely } from '../../../words/numbers';

/** Chance against surplus, over the number of seeds; the handle sets the seeds. */
const props = defineProps<{
  plan: SowingPlan;
  target: number;
  seeds: number;
  chance: number;
  surplus: number;
}>();
const emit = defineEmits<{ seeds: [seeds: number] }>();
const low = computed(() => props.plan.curve[0].seeds);
const high = computed(() => props.plan.curve.at(-1)!.seeds);
const chart = computed<Chart>(() => ({
  x: {
    from: low.value,
    to: Math.max(high.value, low.value + 1),
    name: say`Seeds`,
    tell: (seeds) => say`${count(seeds)} seeds`,
    ticks: [
      { at: low.value, words: count(low.value) },
      { at: high.value, words: count(high.value) },
    ],
  },
  y: shareAxis(say`Chance`, [0, 0.5, 0.9], percent),
  lines: [
    {
      name: say`chance`,
      ink: 'ink',
      points: props.plan.curve.map(({ seeds, chance }) => ({ x: seeds, y: chance })),
    },
  ],
  rules: [{ x: props.seeds, ink: 'ink', dashed: true, upTo: props.chance }],
  marks: [
    {
      name: say`chosen`,
      ink: 'ink',
      shape: 'ring',
      points: [{ x: Math.min(high.value, Math.max(low.value, props.seeds)), y: props.chance }],
    },
  ],
}));
const step = computed(() => Math.max(1, Math.round((high.value - low.value) / 200)));
</script>

<template>
  <section aria-labelledby="surplus">
    <h2 id="surplus" class="text-lg">{{ say`More seed, surer: at what surplus?` }}</h2>
    <DrawnChart :chart="chart" :height="190" :label="say`Chance of enough trees, against seeds sown`" />
    <label class="sr-only" for="desk-seeds">{{ say`Seeds to sow` }}</label>
    <input
      id="desk-seeds"
      class="accent-ink h-11 w-full"
      type="range"
      :min="low"
      :max="high"
      :step="step"
      :value="seeds"
      :aria-valuetext="say`${count(seeds)} seeds, ${surely(chance)} chance`"
      @input="emit('seeds', Number(($event.target as HTMLInputElement).value))"
    />
    <p data-testid="trade">
      {{ say`${count(seeds)} seeds:` }} <b>{{ surely(chance) }}</b> {{ say`chance, and` }}
      <b>{{ surplus >= 0 ? say`${count(surplus)} trees over` : say`${count(-surplus)} trees short` }}</b>
      {{ say`on average.` }}
    </p>
  </section>
</template>
