<script setup lang="ts">
import { firstsOfMonths, type EpochDay, type RoutePoint, type WeeksOfSowing } from '@kauri/core';
import { computed } from 'vue';
import { shortDate } from '../../words/dates';
import { percent } from '../../words/numbers';

/** Two curves over the weeks of sowing that close on the window: in time, and not yet past. */
const props = defineProps<{
  points: readonly RoutePoint[];
  weeks: WeeksOfSowing<RoutePoint>;
  chance: number;
  from: EpochDay;
  to: EpochDay;
}>();
const [W, H, LEFT, RIGHT, TOP, BOTTOM] = [680, 230, 44, 12, 10, 30];
const x = (day: EpochDay) =>
  LEFT + ((day - props.from) / Math.max(1, props.to - props.from)) * (W - LEFT - RIGHT);
const y = (share: number) => TOP + (1 - share) * (H - TOP - BOTTOM);
const path = (share: (point: RoutePoint) => number) =>
  props.points.map((p) => `${x(p.on).toFixed(1)},${y(share(p)).toFixed(1)}`).join(' ');
const band = computed(() => {
  const { isOpen, earliest, latest } = props.weeks;
  return isOpen ? { from: Math.max(earliest!, props.from), to: latest! } : null;
});
const months = computed(() => {
  const days = firstsOfMonths(props.from, 36).filter((day) => day <= props.to);
  const every = Math.ceil(days.length / 12);
  return days.filter((_, i) => i % every === 0);
});
const label = (day: EpochDay) => shortDate(day).replace(/^1 /, '');
</script>

<template>
  <svg :viewBox="`0 0 ${W} ${H}`" class="w-full max-w-3xl" aria-hidden="true">
    <rect
      v-if="band"
      :x="x(band.from)"
      :y="TOP"
      :width="Math.max(2, x(band.to) - x(band.from))"
      :height="H - TOP - BOTTOM"
      fill="var(--leaf-pale)"
    />
    <g font-size="13" fill="var(--muted)">
      <template v-for="share in [0, 0.5, chance]" :key="share">
        <line :x1="LEFT" :x2="W - RIGHT" :y1="y(share)" :y2="y(share)" stroke="var(--rule)" />
        <text :x="LEFT - 6" :y="y(share) + 4" text-anchor="end">{{ percent(share) }}</text>
      </template>
      <template v-for="day in months" :key="day">
        <line :x1="x(day)" :x2="x(day)" :y1="H - BOTTOM" :y2="H - BOTTOM + 5" stroke="var(--muted)" />
        <text :x="x(day)" :y="H - 8" text-anchor="middle">{{ label(day) }}</text>
      </template>
    </g>
    <polyline :points="path((p) => p.ready)" fill="none" stroke="var(--leaf)" stroke-width="2.5" />
    <polyline
      :points="path((p) => 1 - p.past)"
      fill="none"
      stroke="var(--root)"
      stroke-width="2.5"
      stroke-dasharray="7 4"
    />
    <polyline :points="path((p) => p.chance)" fill="none" stroke="var(--ink)" stroke-width="1.5" />
    <g v-if="weeks.best">
      <line
        :x1="x(weeks.best.on)"
        :x2="x(weeks.best.on)"
        :y1="y(weeks.best.chance)"
        :y2="H - BOTTOM"
        stroke="var(--ink)"
        stroke-dasharray="3 3"
      />
      <circle :cx="x(weeks.best.on)" :cy="y(weeks.best.chance)" r="5" fill="var(--ink)" />
    </g>
  </svg>
</template>
