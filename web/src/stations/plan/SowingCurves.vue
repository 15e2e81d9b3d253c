<script setup lang="ts">
import { say, type EpochDay, type RoutePoint, type WeeksOfSowing } from '@kauri/core';
import { computed } from 'vue';
import { dayAxis, shareAxis } from '../../parts/chart/axes';
import type { Chart, Line } from '../../parts/chart/chart';
import DrawnChart from '../../parts/chart/DrawnChart.vue';
import { useSeason } from '../../stores/season';
import { percent } from '../../words/numbers';

/** Two curves over the weeks of sowing that close on the window: in time, and not yet past. */
const props = defineProps<{
  points: readonly RoutePoint[];
  weeks: WeeksOfSowing<RoutePoint>;
  chance: number;
  from: EpochDay;
  to: EpochDay;
}>();
const season = useSeason();

const chart = computed<Chart>(() => {
  const { isOpen, earliest, latest, best } = props.weeks;
  const over = (share: (point: RoutePoint) => number): Line['points'] =>
    props.points.map((point) => ({ x: point.on, y: share(point) }));
  return {
    x: dayAxis(props.from, Math.max(props.to, props.from + 1), season.today),
    y: shareAxis(say`Chance`, [0, 0.5, props.chance], percent),
    stretches: isOpen
      ? [{ ink: 'leaf-pale', x: [Math.max(earliest!, props.from), Math.max(latest!, earliest! + 2)] }]
      : [],
    lines: [
      { name: say`ready and to size by the last day`, ink: 'leaf', points: over(({ ready }) => ready) },
      {
        name: say`not yet bound or too tall on the first`,
        ink: 'root',
        dashed: true,
        points: over(({ past }) => 1 - past),
      },
      { name: say`both`, ink: 'ink', width: 1.5, points: over(({ chance }) => chance) },
    ],
    rules: best ? [{ x: best.on, ink: 'ink', dashed: true, upTo: best.chance }] : [],
    marks: [
      {
        name: say`best`,
        ink: 'ink',
        shape: 'dot',
        points: best ? [{ x: best.on, y: best.chance }] : [],
      },
    ],
  };
});
</script>

<template>
  <DrawnChart
    class="max-w-3xl"
    :chart="chart"
    :height="240"
    :label="say`Chances by the week of sowing: ready in time, and not past`"
  />
</template>
