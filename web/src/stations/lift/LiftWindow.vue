<script setup lang="ts">
import { dayFrom, partsOf, type EpochDay, type LiftingWindow, say } from '@kauri/core';
import { useElementSize } from '@vueuse/core';
import { computed, useTemplateRef } from 'vue';
import { longDate, monthName, shortDate, yearOf } from '../../words/dates';

/** One winter's lifting window: when it opens and closes over the weather years, and where the date looked at lies. */
const props = defineProps<{ window: LiftingWindow; view: EpochDay }>();
const box = useTemplateRef('box');
const { width } = useElementSize(box);

const span = computed(() => {
  const finite = (day: number, otherwise: number) => (Number.isFinite(day) ? day : otherwise);
  return {
    from: Math.min(props.window.autumn - 31, props.view),
    to: Math.max(finite(props.window.closes.p90, 0) + 21, props.window.autumn + 215),
  };
});
const x = (day: EpochDay) =>
  ((Math.min(Math.max(day, span.value.from), span.value.to) - span.value.from) /
    (span.value.to - span.value.from)) *
  width.value;
const marks = computed(() => {
  const { year, month } = partsOf(span.value.from);
  return Array.from({ length: 10 }, (_, i) => {
    const m = month + i;
    return { day: dayFrom(year + Math.floor(m / 12), (m % 12) + 1, 1), words: monthName(m % 12) };
  }).filter((mark) => mark.day < span.value.to);
});
const words = computed(
  () =>
    say`Opens between ${longDate(props.window.opens.p10)} and ${longDate(props.window.opens.p90)}, closes between ${longDate(props.window.closes.p10)} and ${longDate(props.window.closes.p90)}.`,
);
</script>

<template>
  <div ref="box">
    <svg :width="width" height="74" role="img" :aria-label="words">
      <g v-for="mark in marks" :key="mark.day">
        <path :d="`M${x(mark.day)} 18V58`" stroke="var(--rule)" />
        <text :x="x(mark.day) + 4" y="71" font-size="13" fill="var(--ink)">{{ mark.words }}</text>
      </g>
      <rect
        :x="x(window.opens.p10)"
        y="26"
        :width="Math.max(0, x(window.closes.p90) - x(window.opens.p10))"
        height="24"
        fill="var(--frost)"
        opacity="0.35"
      />
      <rect
        :x="x(window.from)"
        y="26"
        :width="Math.max(0, x(window.until) - x(window.from))"
        height="24"
        fill="var(--frost)"
        stroke="var(--ink)"
        stroke-width="1.5"
      />
      <path
        v-if="Number.isFinite(window.bestBefore)"
        :d="`M${x(window.bestBefore)} 22V54`"
        stroke="var(--ink)"
        stroke-width="2"
        stroke-dasharray="3 3"
      />
      <text
        v-if="Number.isFinite(window.bestBefore)"
        :x="x(window.bestBefore) - 5"
        y="15"
        font-size="13"
        text-anchor="end"
        fill="var(--ink)"
      >
        {{ say`best before ${shortDate(window.bestBefore, yearOf(view))}` }}
      </text>
      <text
        :x="(x(window.from) + x(window.until)) / 2"
        y="43"
        font-size="13"
        text-anchor="middle"
        fill="var(--ink)"
      >
        {{ say`opened by ${window.openedBy}` }}
      </text>
      <path :d="`M${x(view)} 18V58`" stroke="var(--ink)" stroke-width="3" />
    </svg>
  </div>
</template>
