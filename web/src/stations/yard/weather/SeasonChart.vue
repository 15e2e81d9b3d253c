<script setup lang="ts">
import { type SeasonCourse, say } from '@kauri/core';
import { computed } from 'vue';
import { dayAxis } from '../../../parts/chart/axes';
import type { Chart } from '../../../parts/chart/chart';
import DrawnChart from '../../../parts/chart/DrawnChart.vue';
import { usePreferences } from '../../../stores/preferences';
import { count } from '../../../words/numbers';
import { sumWords } from '../../../words/weather';

/** One sum of the season so far, over the band of the years before it. */
const props = defineProps<{ course: SeasonCourse }>();
const preferences = usePreferences();
const length = computed(() => Math.max(props.course.past.high.length, props.course.sofar.length, 2));
/** In the grower’s units. */
const shown = (value: number) =>
  props.course.unit === '°C·d'
    ? preferences.shown(value, 'warmth')
    : props.course.unit === 'mm'
      ? preferences.shown(value, 'rain')
      : value;
const unit = computed(() =>
  props.course.unit === '°C·d'
    ? preferences.unit('warmth')
    : props.course.unit === 'mm'
      ? preferences.unit('rain')
      : 'h',
);
const now = computed(() => props.course.sofar.length - 1);
const chart = computed<Chart>(() => {
  const { from, sofar, past, what } = props.course;
  const most = Math.max(1, past.high.at(-1) ?? 0, sofar.at(-1) ?? 0) * 1.04;
  const tell = (value: number) => `${count(shown(value))} ${unit.value}`;
  /** Every fourth day is enough to draw, and the last. */
  const thinned = <T,>(values: readonly T[]) =>
    values.flatMap((v, i) => (i % 4 === 0 || i === values.length - 1 ? [{ v, i }] : []));
  return {
    x: dayAxis(from, from + length.value - 1, from + Math.max(0, now.value)),
    y: {
      from: 0,
      to: most,
      name: sumWords(what, preferences.show),
      tell,
      ticks: [0, most / 2, most].map((at) => ({ at, words: count(shown(at)) })),
    },
    lines: [
      {
        name: say`past years`,
        ink: 'water',
        width: 1.5,
        dashed: true,
        band: 'frost',
        points: thinned(past.middle).map(({ v, i }) => ({
          x: from + i,
          y: v,
          low: past.low[i],
          high: past.high[i],
        })),
      },
      {
        name: say`this season`,
        ink: 'ink',
        points: thinned(sofar).map(({ v, i }) => ({ x: from + i, y: v })),
      },
    ],
    marks: [
      {
        name: say`today`,
        ink: 'ink',
        shape: 'dot',
        points: now.value >= 0 ? [{ x: from + now.value, y: sofar[now.value] }] : [],
      },
    ],
  };
});
/** Where this season stands among the past years on the same day. */
const words = computed(() => {
  const { sofar, past, pastYears } = props.course;
  const here = sofar[now.value];
  if (here === undefined) return say`Nothing measured yet.`;
  const figure = `${count(shown(here))} ${unit.value}`;
  if (pastYears < 3) return say`${figure}; too few past years to compare.`;
  const usual = past.middle[now.value];
  if (here > past.high[now.value]) return say`${figure}: higher than in nine years of ten.`;
  if (here < past.low[now.value]) return say`${figure}: lower than in nine years of ten.`;
  const off = Math.round(((here - usual) / Math.max(usual, 1)) * 100);
  return `${figure}: ${off === 0 ? say`as usual` : say`${Math.abs(off)} % ${off > 0 ? say`above` : say`below`} the middle year`}.`;
});
</script>

<template>
  <section class="panel p-3" :data-testid="`season-${course.what}`">
    <p>
      <span class="font-head block text-lg font-semibold">{{ sumWords(course.what, preferences.show) }}</span>
      {{ words }}
      <span v-if="course.missing" class="text-wrong font-bold">{{
        say`${count(course.missing)} days not measured.`
      }}</span>
    </p>
    <DrawnChart class="mt-1" :chart="chart" :label="`${sumWords(course.what, preferences.show)}: ${words}`" />
  </section>
</template>
