<script setup lang="ts">
import { dayFrom, partsOf, type SeasonCourse, say } from '@kauri/core';
import { computed } from 'vue';
import { usePreferences } from '../../../stores/preferences';
import { monthName } from '../../../words/dates';
import { count } from '../../../words/numbers';
import { sumWords } from '../../../words/weather';

/** One sum of the season so far, over the band of the years before it. */
const props = defineProps<{ course: SeasonCourse }>();
const preferences = usePreferences();
const [W, H, LEFT, TOP, BOTTOM] = [460, 200, 54, 12, 28];
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
const most = computed(
  () => Math.max(1, props.course.past.high.at(-1) ?? 0, props.course.sofar.at(-1) ?? 0) * 1.04,
);
const x = (i: number) => LEFT + (i / (length.value - 1)) * (W - LEFT - 6);
const y = (value: number) => H - BOTTOM - (value / most.value) * (H - TOP - BOTTOM);
const line = (values: readonly number[]) =>
  values
    .map((v, i) => ({ v, i }))
    .filter(({ i }) => i % 4 === 0 || i === values.length - 1)
    .map(({ v, i }) => `${x(i).toFixed(1)},${y(v).toFixed(1)}`);
const band = computed(() =>
  [...line(props.course.past.high), ...line(props.course.past.low).reverse()].join(' '),
);
const ticks = computed(() => {
  const out: { at: number; words: string }[] = [];
  const { year, month } = partsOf(props.course.from);
  for (let m = 0; m <= 12; m += 2) {
    const at =
      dayFrom(year + Math.floor((month - 1 + m) / 12), ((month - 1 + m) % 12) + 1, 1) - props.course.from;
    if (at < length.value) out.push({ at, words: monthName((month - 1 + m) % 12) });
  }
  return out;
});
const now = computed(() => props.course.sofar.length - 1);
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
  <figure class="panel p-3" :data-testid="`season-${course.what}`">
    <figcaption>
      <span class="font-head block text-lg font-semibold">{{ sumWords(course.what, preferences.show) }}</span>
      {{ words }}
      <span v-if="course.missing" class="text-wrong font-bold">{{
        say`${count(course.missing)} days not measured.`
      }}</span>
    </figcaption>
    <svg
      :viewBox="`0 0 ${W} ${H}`"
      class="mt-1 w-full"
      role="img"
      :aria-label="`${sumWords(course.what, preferences.show)}: ${words}`"
    >
      <g class="text-muted" font-size="15" fill="currentColor">
        <template v-for="share in [0, 0.5, 1]" :key="share">
          <line :x1="LEFT" :x2="W - 6" :y1="y(share * most)" :y2="y(share * most)" stroke="var(--rule)" />
          <text :x="LEFT - 5" :y="y(share * most) + 4" text-anchor="end">
            {{ count(shown(share * most)) }}
          </text>
        </template>
        <text v-for="tick in ticks" :key="tick.at" :x="x(tick.at)" :y="H - 7" text-anchor="middle">
          {{ tick.words }}
        </text>
      </g>
      <polygon :points="band" fill="var(--frost)" opacity="0.45" />
      <polyline
        :points="line(course.past.middle).join(' ')"
        fill="none"
        stroke="var(--water)"
        stroke-width="1.5"
        stroke-dasharray="5 4"
      />
      <polyline :points="line(course.sofar).join(' ')" fill="none" stroke="var(--ink)" stroke-width="2.6" />
      <circle v-if="now >= 0" :cx="x(now)" :cy="y(course.sofar[now])" r="4" fill="var(--ink)" />
    </svg>
  </figure>
</template>
