<script setup lang="ts">
import { say } from '@kauri/core';
import { computed } from 'vue';
import { dayAxis } from '../../../parts/chart/axes';
import type { Chart } from '../../../parts/chart/chart';
import DrawnChart from '../../../parts/chart/DrawnChart.vue';
import { useSeed } from '../../../stores/seed';
import { count } from '../../../words/numbers';
import type { RisingLot } from './useComingUp';

/** Seedlings above the soil line through time: counted, and forecast. */
const props = defineProps<{ rising: RisingLot; since: number }>();
const seed = useSeed();

const chart = computed<Chart>(() => {
  const { counts, outlook } = props.rising;
  const { course, final, countLastOn } = outlook!.value;
  const from = Math.min(props.since, counts[0]?.day ?? props.since) - 4;
  const to = Math.max(course.at(-1)?.day ?? from + 60, (counts.at(-1)?.day ?? 0) + 5, from + 40);
  const top = Math.max(10, final.p90, ...counts.map(({ up }) => up)) * 1.08;
  const points = course.map(({ day, up }) => ({ x: day, y: up }));
  const line = { name: say`up`, ink: 'leaf' } as const;
  return {
    x: dayAxis(from, to, seed.asOf),
    y: {
      from: 0,
      to: top,
      name: say`Seedlings up`,
      tell: count,
      ticks: [0, final.p50].map((at) => ({ at, words: count(at) })),
    },
    stretches: [{ ink: 'leaf-pale', y: [final.p10, Math.max(final.p90, final.p10 + top / 200)] }],
    lines: [
      { ...line, points: points.filter(({ x }) => x <= seed.asOf) },
      { ...line, dashed: true, points: points.filter(({ x }) => x >= seed.asOf - 1) },
    ],
    rules: seed.asOf <= to ? [{ x: seed.asOf, ink: 'ink' }] : [],
    marks: [
      {
        name: say`counted`,
        ink: 'leaf',
        shape: 'ring',
        stems: true,
        points: counts.map(({ day, up }) => ({ x: day, y: up })),
      },
      {
        name: say`count last`,
        ink: 'ink',
        shape: 'arrow',
        points: countLastOn <= to ? [{ x: countLastOn, y: 0 }] : [],
      },
    ],
  };
});
</script>

<template>
  <DrawnChart
    class="max-w-4xl"
    :chart="chart"
    :height="230"
    :label="say`Seedlings up, through time`"
    :caption="
      say`Rings: all ever up at each count. Shaded: where the final number lies eight times in ten. Arrow: count last.`
    "
  />
</template>
