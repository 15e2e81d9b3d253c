<script setup lang="ts">
import type { LateralRoot } from '@kauri/core';
import { computed } from 'vue';
import { bandSpot, lateralLine, pointAt, RIM, SIDE, widthOf } from './rosette';

/** The collar from above, each lateral where it stands; small in lists, large at the bench. */
const props = defineProps<{
  laterals: readonly LateralRoot[];
  needle?: number | null;
  chosen?: number | null;
  /** Without the letters of depth, for a small picture. */
  plain?: boolean;
}>();
const letters = { top: 'T', middle: 'M', low: 'L' } as const;
const lines = computed(() =>
  props.laterals.map((lateral) => ({
    d: lateralLine(lateral),
    width: widthOf(lateral.thicknessMm),
    spot: bandSpot(lateral),
    letter: letters[lateral.band],
    turned: !['straight', 'steep'].includes(lateral.path),
  })),
);
const needleTo = computed(() => (props.needle == null ? null : pointAt(props.needle, RIM + 16)));
</script>

<template>
  <g>
    <circle
      :cx="SIDE / 2"
      :cy="SIDE / 2"
      :r="RIM"
      fill="var(--soil)"
      stroke="var(--ink)"
      stroke-width="1.4"
      stroke-dasharray="4 3"
    />
    <path :d="`M${SIDE / 2 - 4} ${SIDE / 2 - RIM - 8}h8l-4 7z`" fill="var(--ink)" />
    <g fill="none" stroke="var(--root)" stroke-linecap="round" stroke-linejoin="round">
      <path
        v-for="(line, i) in lines"
        :key="i"
        :d="line.d"
        :stroke-width="line.width"
        :stroke="i === chosen ? 'var(--ink)' : 'var(--root)'"
      />
    </g>
    <text
      v-for="(line, i) in plain ? [] : lines"
      :key="`t${i}`"
      :x="line.spot[0]"
      :y="line.spot[1] + 3"
      class="fill-ink text-[8.5px]"
      text-anchor="middle"
    >
      {{ line.letter }}
    </text>
    <line
      v-if="needleTo"
      :x1="SIDE / 2"
      :y1="SIDE / 2"
      :x2="needleTo[0]"
      :y2="needleTo[1]"
      stroke="var(--ink)"
      stroke-width="1"
      stroke-dasharray="2 3"
    />
    <circle :cx="SIDE / 2" :cy="SIDE / 2" r="9" fill="var(--leaf)" stroke="var(--ink)" stroke-width="1" />
  </g>
</template>
