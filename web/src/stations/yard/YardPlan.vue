<script setup lang="ts">
import { useElementSize } from '@vueuse/core';
import { computed, useTemplateRef } from 'vue';
import { usePreferences } from '../../stores/preferences';
import { planParts } from './planParts';
import { roomWords } from './placeWords';
import type { ShownPlace } from './usePlaces';

/** The yard from above, to scale, north up. */
const props = defineProps<{ places: readonly ShownPlace[]; chosenId: string }>();
const emit = defineEmits<{ choose: [id: string] }>();
const preferences = usePreferences();
const box = useTemplateRef('box');
const { width } = useElementSize(box);

const MARGIN = 26;
const MOST_HEIGHT = 300;

const extent = computed(() => {
  const f = props.places.map((p) => p.footprint);
  const west = Math.min(...f.map((p) => p.eastM)) - 0.6;
  const east = Math.max(...f.map((p) => p.eastM + p.widthM)) + 0.6;
  const south = Math.min(...f.map((p) => p.northM)) - 0.6;
  const north = Math.max(...f.map((p) => p.northM + p.heightM)) + 0.6;
  return { west, east, south, north };
});
const scale = computed(() => {
  const { west, east, south, north } = extent.value;
  return Math.max(
    2,
    Math.min((width.value - 2 * MARGIN) / (east - west), (MOST_HEIGHT - MARGIN) / (north - south), 90),
  );
});
const height = computed(() => (extent.value.north - extent.value.south) * scale.value + MARGIN + 14);
const x = (eastM: number) =>
  (width.value - (extent.value.east - extent.value.west) * scale.value) / 2 +
  (eastM - extent.value.west) * scale.value;
const y = (northM: number) => 8 + (extent.value.north - northM) * scale.value;

const drawn = computed(() =>
  props.places.map((shown) => {
    const { eastM, northM, widthM, heightM } = shown.footprint;
    const rect = { x: x(eastM), y: y(northM + heightM), w: widthM * scale.value, h: heightM * scale.value };
    return {
      id: shown.place.id,
      name: shown.place.place.name,
      words: `${shown.place.place.name}, ${roomWords(shown.occupancy, preferences)}`,
      rect,
      bed: shown.place.place.kind === 'bed',
      parts: planParts(shown, rect),
      short: rect.w < shown.place.place.name.length * 7.5 && rect.h > rect.w,
    };
  }),
);
/** A round length near a fifth of the plan. */
const bar = computed(() => {
  const span = (extent.value.east - extent.value.west) / 5;
  const metres = [1, 2, 5, 10, 20, 50, 100].find((m) => m >= span) ?? 100;
  return { metres, px: metres * scale.value };
});

function step(event: KeyboardEvent, id: string) {
  const by = { ArrowRight: [1, 0], ArrowLeft: [-1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
  if (!by) return;
  event.preventDefault();
  const here = drawn.value.find((d) => d.id === id)!;
  const middle = (d: (typeof drawn.value)[number]) => [d.rect.x + d.rect.w / 2, d.rect.y + d.rect.h / 2];
  const [hx, hy] = middle(here);
  let best: { id: string; far: number } | null = null;
  for (const other of drawn.value) {
    const [ox, oy] = middle(other);
    const ahead = (ox - hx) * by[0] + (oy - hy) * by[1];
    const aside = Math.abs((ox - hx) * by[1]) + Math.abs((oy - hy) * by[0]);
    if (other.id === id || ahead <= 4) continue;
    const far = ahead + 2 * aside;
    if (!best || far < best.far) best = { id: other.id, far };
  }
  if (!best) return;
  emit('choose', best.id);
  box.value?.querySelector<SVGElement>(`[data-place="${best.id}"]`)?.focus();
}
</script>

<template>
  <div ref="box" class="border-rule border-b px-2 pt-2">
    <svg
      :width="width"
      :height="height"
      role="group"
      aria-label="Plan of the yard, to scale"
      data-testid="plan"
    >
      <g
        v-for="d in drawn"
        :key="d.id"
        role="button"
        :tabindex="d.id === chosenId ? 0 : -1"
        :aria-label="d.words"
        :aria-pressed="d.id === chosenId"
        :data-place="d.id"
        class="plan-place cursor-pointer"
        @click="emit('choose', d.id)"
        @keydown.enter.prevent="emit('choose', d.id)"
        @keydown.space.prevent="emit('choose', d.id)"
        @keydown="step($event, d.id)"
      >
        <rect
          :x="d.rect.x"
          :y="d.rect.y"
          :width="d.rect.w"
          :height="d.rect.h"
          :fill="d.bed ? 'var(--soil)' : 'var(--card)'"
        />
        <rect
          v-for="(p, i) in d.parts"
          :key="i"
          :x="p.x"
          :y="p.y"
          :width="p.w"
          :height="p.h"
          fill="var(--soil-deep)"
          :opacity="d.bed ? 0.75 : 0.55"
          stroke="var(--card)"
          stroke-width="0.8"
        />
        <rect
          class="edge"
          :x="d.rect.x"
          :y="d.rect.y"
          :width="d.rect.w"
          :height="d.rect.h"
          fill="none"
          stroke="var(--ink)"
          :stroke-width="d.id === chosenId ? 3.5 : 1.4"
          :stroke-dasharray="d.bed ? undefined : '6 3'"
        />
        <text
          :transform="
            d.short
              ? `translate(${d.rect.x - 5} ${d.rect.y + d.rect.h}) rotate(-90)`
              : `translate(${d.rect.x} ${d.rect.y - 5})`
          "
          font-size="13"
          :font-weight="d.id === chosenId ? 700 : 400"
          fill="var(--ink)"
        >
          {{ d.name }}
        </text>
      </g>
      <g :transform="`translate(${width - 30} ${height - 12})`" aria-hidden="true">
        <path :d="`M${-bar.px} 0H0M${-bar.px} -4v8M0 -4v8`" stroke="var(--ink)" stroke-width="1.5" />
        <text :x="-bar.px - 6" y="4" font-size="13" text-anchor="end" fill="var(--ink)">
          {{ preferences.show(bar.metres, 'site', preferences.units === 'us' ? 1 : 0) }}
        </text>
        <path d="M14 4V-12M14 -18l-5 9h10z" stroke="var(--ink)" fill="var(--ink)" />
        <text x="14" y="-20" font-size="12" text-anchor="middle" fill="var(--ink)">N</text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.plan-place:focus {
  outline: none;
}
.plan-place:focus-visible .edge {
  stroke: var(--water);
  stroke-width: 4;
}
.plan-place:hover .edge {
  stroke-width: 3;
}
</style>
