<script setup lang="ts">
import { dayOf, type Viability, say } from '@kauri/core';
import type { SeedLot } from '@kauri/core/contract';
import { computed, shallowRef, watch } from 'vue';
import { dayAxis, shareAxis } from '../../../parts/chart/axes';
import type { Chart } from '../../../parts/chart/chart';
import DrawnChart from '../../../parts/chart/DrawnChart.vue';
import { useSeed } from '../../../stores/seed';
import { percent } from '../../../words/numbers';
import { plain, seedWork } from '../../../workers/seedWork';

/** How alive the seed was, is and will be: band, tests as they were made, today. */
const props = defineProps<{ lot: SeedLot }>();
const seed = useSeed();
const POINTS = 40;

const since = computed(() => dayOf(props.lot.collectedOn ?? props.lot.receivedOn));
const tests = computed(() => seed.recordsOf(props.lot.id, 'test'));
const span = computed(() => {
  const dead = seed.viability.get(props.lot.id)?.value.deadOn ?? Infinity;
  const past = seed.asOf - since.value;
  const most = Math.max(
    past + 365,
    Math.min(Number.isFinite(dead) ? dead - since.value + 60 : past + 1100, past + 1100),
  );
  return { from: since.value, to: since.value + most };
});
const life = shallowRef<{ day: number; v: Viability }[]>([]);
watch(
  [span, tests, () => props.lot],
  async () => {
    const { from, to } = span.value;
    const days = Array.from({ length: POINTS + 1 }, (_, i) => Math.round(from + ((to - from) * i) / POINTS));
    const values = await (await seedWork()).life(plain(seed.stored(props.lot)), days);
    life.value = values.map((v, i) => ({ day: days[i], v }));
  },
  { immediate: true },
);

const chart = computed<Chart>(() => {
  const { from, to } = span.value;
  const points = life.value.map(({ day, v }) => ({ x: day, y: v.mean, low: v.p10, high: v.p90 }));
  const step = (to - from) / POINTS;
  const line = { name: say`alive`, ink: 'ink' } as const;
  const dead = seed.viability.get(props.lot.id)?.value.deadOn ?? Infinity;
  const seen = (germination: boolean) =>
    tests.value
      .filter(({ values }) => (values.test === 'germination') === germination)
      .map(({ on, values }) => ({ x: dayOf(on), y: values.k / values.n }));
  return {
    x: dayAxis(from, to, seed.asOf),
    y: shareAxis(say`Alive`, [0, 0.5, 1], percent),
    lines: [
      { ...line, name: say`between`, ink: 'soil', width: 0, band: 'soil', told: false, points },
      { ...line, points: points.filter(({ x }) => x <= seed.asOf) },
      { ...line, dashed: true, width: 2, points: points.filter(({ x }) => x > seed.asOf - step) },
    ],
    rules: [
      { x: seed.asOf, ink: 'ink' },
      ...(dead <= to ? [{ x: dead, ink: 'wrong' as const, upTo: 0.35, words: say`a tenth left` }] : []),
    ],
    marks: [
      { name: say`germination test`, ink: 'ink', shape: 'ring', points: seen(true) },
      { name: say`cut or float test`, ink: 'ink', shape: 'plus', points: seen(false) },
    ],
  };
});
</script>

<template>
  <DrawnChart
    class="max-w-4xl"
    :chart="chart"
    :label="say`Share of the seed alive, through time`"
    :caption="
      say`Line: expected share alive. Band: eight chances in ten. Rings: germination tests; crosses: cut and float tests. Upright: the date looked at.`
    "
  />
</template>
