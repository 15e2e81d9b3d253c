<script setup lang="ts">
import { sequentialPlan, type SequentialTerms, say } from '@kauri/core';
import { computed } from 'vue';
import type { Chart } from '../../parts/chart/chart';
import DrawnChart from '../../parts/chart/DrawnChart.vue';

/** Plants pulled across, plants failing up, between the line that accepts and the line that rejects. */
const props = defineProps<{ terms: SequentialTerms; fails: readonly boolean[]; cap: number }>();

const chart = computed<Chart>(() => {
  const plan = sequentialPlan(props.terms).value;
  const { fails, cap } = props;
  const across = Math.max(10, Math.min(cap, Math.max(12, fails.length + 6)), fails.length);
  const up = Math.max(4, fails.filter(Boolean).length + 2, plan.rejectIntercept + plan.slope * across);
  /** Below nothing failing a line is not drawn. */
  const line = (intercept: number) => {
    const from = Math.min(across, Math.max(0, -intercept / plan.slope));
    return [from, across].map((x) => ({ x, y: Math.max(0, intercept + plan.slope * x) }));
  };
  let failing = 0;
  const pulled = [
    { x: 0, y: 0, fail: false },
    ...fails.map((fail, i) => ({ x: i + 1, y: (failing += Number(fail)), fail })),
  ];
  const whole = (n: number) => ({ at: n, words: String(n) });
  return {
    x: {
      from: 0,
      to: across,
      name: say`Plants pulled`,
      tell: (n) => say`${Math.round(n)} pulled`,
      ticks: [0, Math.round(across / 2), across].map(whole),
    },
    y: {
      from: 0,
      to: up,
      name: say`Plants failing`,
      tell: (k) => String(Number(k.toFixed(1))),
      ticks: [0, Math.floor(up / 2), Math.floor(up)].map(whole),
    },
    lines: [
      { name: say`reject from`, ends: say`reject`, ink: 'ink', width: 2, points: line(plan.rejectIntercept) },
      {
        name: say`accept up to`,
        ends: say`accept`,
        ink: 'ink',
        width: 2,
        dashed: true,
        points: line(plan.acceptIntercept),
      },
      { name: say`failing`, ink: 'root', width: 2, points: pulled },
    ],
    marks: [
      { name: say`fails`, ink: 'root', shape: 'cross', points: pulled.filter(({ fail }) => fail) },
      {
        name: say`passes`,
        ink: 'root',
        shape: 'ring',
        points: pulled.filter(({ fail, x }) => x > 0 && !fail),
      },
    ],
  };
});
</script>

<template>
  <DrawnChart
    class="max-w-xl"
    :chart="chart"
    :height="190"
    :label="say`Plants failing against plants pulled, with the accept and reject lines`"
    :caption="
      say`Across: plants pulled. Up: plants failing. Ring: passes, cross: fails. On or above the upper line reject, on or below the broken one accept.`
    "
  />
</template>
