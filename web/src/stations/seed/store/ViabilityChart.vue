<script setup lang="ts">
import { dayOf, partsOf, dayFrom, type Viability, say } from '@kauri/core';
import type { SeedLot } from '@kauri/core/contract';
import { computed, shallowRef, watch } from 'vue';
import { useSeed } from '../../../stores/seed';
import { monthName } from '../../../words/dates';
import { percent } from '../../../words/numbers';
import { plain, seedWork } from '../../../workers/seedWork';

/** How alive the seed was, is and will be: band, tests as they were made, today. */
const props = defineProps<{ lot: SeedLot }>();
const seed = useSeed();
const POINTS = 40;
const [W, H, LEFT, TOP, BOTTOM] = [720, 190, 44, 12, 26];

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

const x = (day: number) =>
  LEFT + ((day - span.value.from) / (span.value.to - span.value.from)) * (W - LEFT - 8);
const y = (share: number) => TOP + (1 - share) * (H - TOP - BOTTOM);
const line = (pick: (v: Viability) => number, points = life.value) =>
  points.map(({ day, v }) => `${x(day).toFixed(1)},${y(pick(v)).toFixed(1)}`).join(' ');
const band = computed(() => `${line((v) => v.p90)} ${line((v) => v.p10, [...life.value].reverse())}`);
const past = computed(() =>
  line(
    (v) => v.mean,
    life.value.filter((p) => p.day <= seed.asOf),
  ),
);
const ahead = computed(() =>
  line(
    (v) => v.mean,
    life.value.filter((p) => p.day > seed.asOf - (span.value.to - span.value.from) / POINTS),
  ),
);
const ticks = computed(() => {
  const { from, to } = span.value;
  const years = (to - from) / 365;
  const every = years > 4 ? 12 : years > 2 ? 6 : 3;
  const out: { day: number; words: string }[] = [];
  const { year } = partsOf(from);
  for (let m = 0; m < 240; m++) {
    if (m % every) continue;
    const day = dayFrom(year + Math.floor(m / 12), (m % 12) + 1, 1);
    if (day > to) break;
    if (day >= from) out.push({ day, words: m % 12 === 0 ? String(year + m / 12) : monthName(m % 12) });
  }
  return out;
});
const dead = computed(() => seed.viability.get(props.lot.id)?.value.deadOn ?? Infinity);
</script>

<template>
  <figure>
    <svg
      :viewBox="`0 0 ${W} ${H}`"
      class="w-full max-w-4xl"
      role="img"
      :aria-label="say`Share of the seed alive, through time`"
    >
      <g class="text-muted" font-size="13" fill="currentColor">
        <template v-for="share in [0, 0.5, 1]" :key="share">
          <line :x1="LEFT" :x2="W - 8" :y1="y(share)" :y2="y(share)" stroke="var(--rule)" />
          <text :x="LEFT - 6" :y="y(share) + 4" text-anchor="end">{{ percent(share) }}</text>
        </template>
        <text v-for="tick in ticks" :key="tick.day" :x="x(tick.day)" :y="H - 8" text-anchor="middle">
          {{ tick.words }}
        </text>
      </g>
      <polygon v-if="life.length" :points="band" fill="var(--soil)" />
      <polyline :points="past" fill="none" stroke="var(--ink)" stroke-width="2.5" />
      <polyline :points="ahead" fill="none" stroke="var(--ink)" stroke-width="2" stroke-dasharray="5 5" />
      <line
        v-if="dead <= span.to"
        :x1="x(dead)"
        :x2="x(dead)"
        :y1="y(0.35)"
        :y2="y(0)"
        stroke="var(--wrong)"
        stroke-width="2"
      />
      <text
        v-if="dead <= span.to"
        :x="x(dead) - 5"
        :y="y(0.28)"
        font-size="13"
        text-anchor="end"
        fill="var(--wrong)"
      >
        {{ say`a tenth left` }}
      </text>
      <line :x1="x(seed.asOf)" :x2="x(seed.asOf)" :y1="TOP" :y2="H - BOTTOM" stroke="var(--ink)" />
      <g v-for="test in tests" :key="test.id">
        <circle
          v-if="test.values.test === 'germination'"
          :cx="x(dayOf(test.on))"
          :cy="y(test.values.k / test.values.n)"
          r="5"
          fill="var(--card)"
          stroke="var(--ink)"
          stroke-width="2.5"
        />
        <path
          v-else
          :d="`M${x(dayOf(test.on)) - 5} ${y(test.values.k / test.values.n)}h10m-5-5v10`"
          stroke="var(--ink)"
          stroke-width="2.5"
        />
      </g>
    </svg>
    <figcaption class="text-muted text-sm">
      {{
        say`Line: expected share alive. Band: eight chances in ten. Rings: germination tests; crosses: cut and float tests. Upright: the date looked at.`
      }}
    </figcaption>
  </figure>
</template>
