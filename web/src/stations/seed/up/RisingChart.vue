<script setup lang="ts">
import { partsOf, say } from '@kauri/core';
import { computed } from 'vue';
import { useSeed } from '../../../stores/seed';
import { monthName } from '../../../words/dates';
import { count } from '../../../words/numbers';
import type { RisingLot } from './useComingUp';

/** Seedlings above the soil line through time: counted, and forecast. */
const props = defineProps<{ rising: RisingLot; since: number }>();
const seed = useSeed();
const [W, H, LEFT, GROUND] = [720, 220, 56, 190];
const o = computed(() => props.rising.outlook!.value);
const from = computed(() => Math.min(props.since, props.rising.counts[0]?.day ?? props.since) - 4);
const to = computed(() =>
  Math.max(
    o.value.course.at(-1)?.day ?? from.value + 60,
    (props.rising.counts.at(-1)?.day ?? 0) + 5,
    from.value + 40,
  ),
);
const top = computed(() => Math.max(10, o.value.final.p90, ...props.rising.counts.map((c) => c.up)) * 1.08);
const x = (day: number) => LEFT + ((day - from.value) / (to.value - from.value)) * (W - LEFT - 12);
const y = (up: number) => GROUND - (up / top.value) * (GROUND - 14);
const points = (ahead: boolean) =>
  o.value.course
    .filter((p) => p.day > seed.asOf - 2 === ahead || p.day === seed.asOf)
    .map((p) => `${x(p.day).toFixed(1)},${y(p.up).toFixed(1)}`)
    .join(' ');
const ticks = computed(() => {
  const out: { day: number; words: string }[] = [];
  const every = to.value - from.value > 130 ? 30 : 14;
  for (let day = from.value + 7; day < to.value - 4; day += every) {
    const { month, day: date } = partsOf(day);
    out.push({ day, words: `${date} ${monthName(month - 1)}` });
  }
  return out;
});
</script>

<template>
  <figure>
    <svg
      :viewBox="`0 0 ${W} ${H}`"
      class="w-full max-w-4xl"
      role="img"
      :aria-label="say`Seedlings up, through time`"
    >
      <rect :x="LEFT" :y="GROUND" :width="W - LEFT - 12" height="8" fill="var(--soil)" />
      <rect
        :x="LEFT"
        :y="y(o.final.p90)"
        :width="W - LEFT - 12"
        :height="Math.max(1, y(o.final.p10) - y(o.final.p90))"
        fill="var(--leaf-pale)"
      />
      <g font-size="13" fill="var(--muted)">
        <text :x="LEFT - 6" :y="y(o.final.p50) + 4" text-anchor="end">{{ count(o.final.p50) }}</text>
        <text :x="LEFT - 6" :y="GROUND + 4" text-anchor="end">0</text>
        <text v-for="tick in ticks" :key="tick.day" :x="x(tick.day)" :y="H - 6" text-anchor="middle">
          {{ tick.words }}
        </text>
      </g>
      <polyline :points="points(false)" fill="none" stroke="var(--leaf)" stroke-width="2.5" />
      <polyline
        :points="points(true)"
        fill="none"
        stroke="var(--leaf)"
        stroke-width="2.5"
        stroke-dasharray="5 5"
      />
      <line :x1="LEFT" :x2="W - 12" :y1="GROUND" :y2="GROUND" stroke="var(--soil-deep)" stroke-width="3" />
      <line
        v-if="seed.asOf <= to"
        :x1="x(seed.asOf)"
        :x2="x(seed.asOf)"
        y1="10"
        :y2="GROUND"
        stroke="var(--ink)"
      />
      <g v-for="c in rising.counts" :key="c.day">
        <path :d="`M${x(c.day)} ${y(c.up)}v${GROUND - y(c.up)}`" stroke="var(--leaf-mid)" stroke-width="2" />
        <circle
          :cx="x(c.day)"
          :cy="y(c.up)"
          r="5"
          fill="var(--card)"
          stroke="var(--leaf)"
          stroke-width="2.5"
        />
      </g>
      <path
        v-if="Number.isFinite(o.countLastOn) && o.countLastOn <= to"
        :d="`M${x(o.countLastOn)} ${GROUND}v-14m-4 8l4 6 4-6`"
        stroke="var(--ink)"
        fill="none"
        stroke-width="2"
      />
    </svg>
    <figcaption class="text-muted text-sm">
      {{
        say`Rings: all ever up at each count. Shaded: where the final number lies eight times in ten. Arrow: count last.`
      }}
    </figcaption>
  </figure>
</template>
