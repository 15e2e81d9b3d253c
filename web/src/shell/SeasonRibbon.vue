<script setup lang="ts">
import { dayFrom, partsOf, type EpochDay, say } from '@kauri/core';
import { useElementSize } from '@vueuse/core';
import { computed, useTemplateRef, watch } from 'vue';
import { RouterLink } from 'vue-router';
import { useForecasts } from '../stores/forecasts';
import { useSeason } from '../stores/season';
import { longDate, monthName, yearOf } from '../words/dates';
import { ribbonWindows } from './ribbonWindows';

const season = useSeason();
const forecasts = useForecasts();
const strip = useTemplateRef('strip');
const { width } = useElementSize(strip);
watch(width, (wide) => wide > 0 && forecasts.wantRibbon());

const HEIGHT = 88;
const WINDOWS = 20;
const MIDDLE = 54;
const WARM_SCALE = 1.7;
const CHILL_SCALE = 0.62;

const span = computed(() => season.strip.end - season.strip.start + 1);
const x = (day: EpochDay) => ((day - season.strip.start) / span.value) * width.value;

const paths = computed(() => {
  const ribbon = forecasts.ribbon;
  if (!ribbon || ribbon.start !== season.strip.start || width.value === 0) return null;
  const area = (height: (i: number) => number, from: number, to: number) => {
    let d = `M${x(ribbon.start + from)} ${MIDDLE}`;
    for (let i = from; i < to; i++)
      d += `L${x(ribbon.start + i).toFixed(1)} ${(MIDDLE + height(i)).toFixed(1)}`;
    return `${d}L${x(ribbon.start + to)} ${MIDDLE}Z`;
  };
  const first = ribbon.days.findIndex((d) => d.forecast);
  const ahead = first < 0 ? ribbon.days.length : first;
  const warm = (i: number) => -Math.min(MIDDLE - WINDOWS - 2, ribbon.days[i].warmth * WARM_SCALE);
  const chill = (i: number) => ribbon.days[i].chillHours * CHILL_SCALE;
  const n = ribbon.days.length;
  return {
    warmPast: area(warm, 0, ahead),
    warmAhead: area(warm, ahead, n),
    chillPast: area(chill, 0, ahead),
    chillAhead: area(chill, ahead, n),
    frosts: ribbon.days.flatMap((d, i) => (d.frost >= 0.5 ? [x(ribbon.start + i + 0.5)] : [])),
  };
});

const monthMarks = computed(() => {
  const { year, month } = partsOf(season.strip.start);
  // Names are left out where they would touch.
  const each = Math.max(1, Math.ceil(32 / (width.value / 15)));
  return Array.from({ length: 15 }, (_, i) => {
    const m = month - 1 + i;
    const itsYear = year + Math.floor(m / 12);
    const name = m % 12 > 0 ? monthName(m % 12) : each > 1 ? String(itsYear) : `${monthName(0)} ${itsYear}`;
    return { key: m, x: x(dayFrom(itsYear, (m % 12) + 1, 1)), words: i % each === 0 ? name : '' };
  });
});

const windows = computed(() => {
  const id = forecasts.selectedId;
  const view = id === null ? undefined : forecasts.views.get(id);
  return view ? ribbonWindows(view, season.strip) : [];
});

let dragging = false;
function pointTo(event: PointerEvent) {
  const box = strip.value!.getBoundingClientRect();
  const { start, end } = season.strip;
  const day = start + ((event.clientX - box.left) / box.width) * span.value;
  season.look(Math.max(start, Math.min(end, day)));
}
function press(event: PointerEvent) {
  dragging = true;
  season.hold();
  strip.value!.setPointerCapture(event.pointerId);
  pointTo(event);
}
function letGo() {
  dragging = false;
  season.release();
}
const steps: Record<string, number> = {
  ArrowLeft: -1,
  ArrowDown: -1,
  ArrowRight: 1,
  ArrowUp: 1,
  PageDown: -30,
  PageUp: 30,
};
function step(event: KeyboardEvent) {
  const by = steps[event.key];
  if (!by) return;
  event.preventDefault();
  season.look(season.view + (event.shiftKey ? by * 7 : by));
}
</script>

<template>
  <footer class="print:hidden border-ink bg-soil flex border-t-2" :aria-label="say`Season`">
    <RouterLink
      :to="{ name: 'records' }"
      class="hidden w-[5.25rem] shrink-0 flex-col justify-center gap-0.5 px-2 text-sm hover:underline md:flex"
    >
      <span class="font-bold">{{ say`Season` }}</span>
      <span class="flex items-center gap-1"
        ><i class="bg-leaf-mid size-3" aria-hidden="true" /> {{ say`warmth` }}</span
      >
      <span class="flex items-center gap-1"
        ><i class="bg-frost size-3" aria-hidden="true" /> {{ say`chill` }}</span
      >
      <span class="flex items-center gap-1"
        ><i class="bg-water mx-1 h-3 w-0.5" aria-hidden="true" /> {{ say`frost` }}</span
      >
    </RouterLink>
    <div
      ref="strip"
      class="relative h-[88px] flex-1 cursor-ew-resize touch-none select-none"
      role="slider"
      tabindex="0"
      :aria-label="say`Date shown`"
      :aria-valuemin="season.strip.start"
      :aria-valuemax="season.strip.end"
      :aria-valuenow="season.view"
      :aria-valuetext="longDate(season.view, yearOf(season.today))"
      data-testid="ribbon"
      @pointerdown="press"
      @pointermove="dragging && pointTo($event)"
      @pointerup="letGo"
      @pointercancel="letGo"
      @keydown="step"
    >
      <svg :width="width" :height="HEIGHT" class="absolute inset-0" aria-hidden="true">
        <g v-for="mark in monthMarks" :key="mark.key">
          <path :d="`M${mark.x} 0V${HEIGHT}`" stroke="var(--rule)" />
          <text :x="mark.x + 4" :y="HEIGHT - 4" font-size="13" fill="var(--ink)">{{ mark.words }}</text>
        </g>
        <g v-if="paths">
          <path :d="paths.warmPast" fill="var(--leaf-mid)" />
          <path :d="paths.warmAhead" fill="var(--leaf-mid)" opacity="0.5" />
          <path :d="paths.chillPast" fill="var(--frost)" />
          <path :d="paths.chillAhead" fill="var(--frost)" opacity="0.5" />
          <path
            v-for="at in paths.frosts"
            :key="at"
            :d="`M${at} ${MIDDLE - 4}v8`"
            stroke="var(--water)"
            stroke-width="1.5"
          />
        </g>
        <path :d="`M0 ${MIDDLE}H${width}`" stroke="var(--ink)" />
        <g v-for="w in windows" :key="w.words">
          <rect
            :x="x(w.from)"
            y="2"
            :width="Math.max(3, x(w.to) - x(w.from))"
            height="17"
            rx="3"
            fill="var(--card)"
            :stroke="w.colour"
            stroke-width="1.5"
            :stroke-dasharray="w.dashed ? '4 3' : undefined"
          />
          <text
            v-if="x(w.to) - x(w.from) > w.words.length * 6.5"
            :x="x(w.from) + 5"
            y="15"
            font-size="12.5"
            fill="var(--ink)"
          >
            {{ w.words }}
          </text>
        </g>
        <path
          v-if="season.today >= season.strip.start && season.today <= season.strip.end"
          :d="`M${x(season.today)} ${WINDOWS}V${HEIGHT - 18}`"
          stroke="var(--ink)"
          stroke-dasharray="2 3"
        />
        <g :transform="`translate(${x(season.view)} 0)`">
          <path :d="`M0 0V${HEIGHT}`" stroke="var(--ink)" stroke-width="2.5" />
          <rect x="-8" :y="MIDDLE - 12" width="16" height="24" rx="4" fill="var(--ink)" />
          <path :d="`M-2.5 ${MIDDLE - 6}v12M2.5 ${MIDDLE - 6}v12`" stroke="var(--tag)" stroke-width="2" />
        </g>
      </svg>
    </div>
  </footer>
</template>
