<script setup lang="ts">
import { say } from '@kauri/core';
import type { CutPlan } from '@kauri/core';
import { computed } from 'vue';
import { usePreferences } from '../../../stores/preferences';

/** Boards of one section, each with where it is cut, to one scale. */
const props = defineProps<{ plan: CutPlan; kerfMm: number; board: string }>();
const { show } = usePreferences();
const W = 620;
const ROW = 34;
const longest = computed(() => Math.max(...props.plan.boards.map((b) => b.stockMm)));
const rows = computed(() => {
  const scale = (W - 70) / longest.value;
  return props.plan.boards.map((b, i) => {
    let at = 0;
    const cuts = b.cutsMm.map((mm) => {
      const piece = { x: 56 + at * scale, w: mm * scale, words: show(mm, 'timber') };
      at += mm + props.kerfMm;
      return piece;
    });
    return {
      y: i * ROW,
      count: b.count,
      cuts,
      w: b.stockMm * scale,
      stock: show(b.stockMm, 'timber'),
      waste: b.wasteMm,
    };
  });
});
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${rows.length * ROW + 4}`"
    class="w-full"
    role="img"
    :aria-label="
      say`Cutting diagram of ${board}: ${rows.map((r) => say`${r.count} of ${r.stock} cut to ${r.cuts.map((c) => c.words).join(', ')}`).join('; ')}`
    "
  >
    <g v-for="row in rows" :key="row.y">
      <text x="0" :y="row.y + 20" font-size="13" fill="var(--ink)" font-weight="700">{{ row.count }} ×</text>
      <rect x="56" :y="row.y + 3" :width="row.w" height="24" fill="url(#waste)" stroke="var(--ink)" />
      <g v-for="(c, i) in row.cuts" :key="i">
        <rect :x="c.x" :y="row.y + 3" :width="c.w" height="24" fill="var(--card)" stroke="var(--ink)" />
        <text
          v-if="c.w > 44"
          :x="c.x + c.w / 2"
          :y="row.y + 20"
          font-size="11.5"
          text-anchor="middle"
          fill="var(--ink)"
        >
          {{ c.words }}
        </text>
      </g>
    </g>
    <defs>
      <pattern id="waste" width="6" height="6" patternUnits="userSpaceOnUse">
        <path d="M0 6L6 0" stroke="var(--muted)" stroke-width="1" />
      </pattern>
    </defs>
  </svg>
</template>
