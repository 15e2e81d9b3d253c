<script setup lang="ts">
import { say } from '@kauri/core';
import { computed } from 'vue';
import { usePreferences } from '../../../stores/preferences';
import type { WateredPlace } from './wateredPlace';

/** The drip on its bed from above, to scale: manifold, lines, every emitter. */
const props = defineProps<{ watered: WateredPlace }>();
const { show } = usePreferences();
const W = 460;
const PAD = 26;
const d = computed(() => {
  const { insideLengthMm, insideWidthMm, grid, drip } = props.watered;
  const scale = (W - 2 * PAD) / insideLengthMm;
  const height = insideWidthMm * scale;
  return {
    scale,
    height,
    lines: grid.lineAtMm.map((mm) => PAD + mm * scale),
    emitters: grid.emitterAtMm.map((mm) => PAD + mm * scale),
    looped: drip.looped,
  };
});
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${d.height + 2 * PAD + 16}`"
    class="w-full max-w-lg"
    role="img"
    :aria-label="
      say`${watered.grid.lines} lines of ${watered.grid.emittersPerLine} emitters, ${show(watered.drip.lineSpacingMm, 'timber')} apart, on ${show(watered.insideLengthMm, 'timber')} by ${show(watered.insideWidthMm, 'timber')}`
    "
  >
    <rect
      :x="PAD"
      :y="PAD"
      :width="W - 2 * PAD"
      :height="d.height"
      fill="var(--soil)"
      stroke="var(--ink)"
      stroke-width="2"
    />
    <path
      :d="`M${PAD - 10} ${PAD - 14}V${d.lines[d.lines.length - 1]}`"
      stroke="var(--water)"
      stroke-width="4"
      fill="none"
    />
    <path
      v-for="y in d.lines"
      :key="y"
      :d="`M${PAD - 10} ${y}H${d.looped ? W - PAD + 8 : W - PAD - 4}`"
      stroke="var(--water)"
      stroke-width="2"
    />
    <path
      v-if="d.looped"
      :d="`M${W - PAD + 8} ${d.lines[0]}V${d.lines[d.lines.length - 1]}`"
      stroke="var(--water)"
      stroke-width="2"
    />
    <template v-for="y in d.lines" :key="`e${y}`">
      <circle
        v-for="x in d.emitters"
        :key="x"
        :cx="x"
        :cy="y"
        r="3.2"
        fill="var(--card)"
        stroke="var(--water)"
        stroke-width="1.5"
      />
    </template>
    <text :x="PAD" :y="PAD - 9" font-size="12.5" fill="var(--ink)">
      {{
        say`manifold; lines ${show(watered.drip.lineSpacingMm, 'timber')} apart, the first ${show(watered.grid.lineAtMm[0], 'timber')} in`
      }}
    </text>
    <text :x="PAD" :y="d.height + PAD + 17" font-size="12.5" fill="var(--ink)">
      {{
        say`emitters ${show(watered.drip.emitterSpacingMm, 'timber')} apart, the first ${show(watered.grid.emitterAtMm[0], 'timber')} from the end`
      }}
    </text>
  </svg>
</template>
