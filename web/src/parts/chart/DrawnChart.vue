<script setup lang="ts">
import { say } from '@kauri/core';
import { computed, ref, useTemplateRef, watch } from 'vue';
import ChartTable from './ChartTable.vue';
import { stopsOf, toldAt, type Chart } from './chart';
import { chartOption } from './chartOption';
import { useDrawing } from './useDrawing';

/** A chart in the house's look: its values under the pointer and by the arrow keys, and its series as a table. */
const props = defineProps<{
  chart: Chart;
  /** What it shows, said to who cannot see it. */
  label: string;
  /** How it is read. */
  caption?: string;
  /** px */
  height?: number;
}>();
const box = useTemplateRef('box');
const { chart: drawn, draw } = useDrawing(box, (ink) => chartOption(props.chart, ink));
watch(() => props.chart, draw, { flush: 'post' });

const stops = computed(() => stopsOf(props.chart));
/** Where the keys have gone to across it. */
const at = ref<number | null>(null);
const told = computed(() => {
  if (at.value === null) return '';
  const values = toldAt(props.chart, at.value).map(({ name, value }) => `${name}: ${value}`);
  return [props.chart.x.tell(at.value), ...values].join('; ');
});
function step(event: KeyboardEvent) {
  const all = stops.value;
  if (all.length === 0) return;
  const here = at.value === null ? -1 : all.findIndex((x) => x >= at.value!);
  const next = {
    ArrowRight: Math.min(all.length - 1, here + 1),
    ArrowLeft: here < 0 ? all.length - 1 : Math.max(0, here - 1),
    Home: 0,
    End: all.length - 1,
  }[event.key];
  if (next === undefined) {
    if (event.key === 'Escape' && at.value !== null) {
      event.stopPropagation();
      leave();
    }
    return;
  }
  event.preventDefault();
  at.value = all[next];
  const [x, y] = drawn.value?.convertToPixel({ gridIndex: 0 }, [at.value, props.chart.y.from]) ?? [];
  if (x !== undefined) drawn.value?.dispatchAction({ type: 'showTip', x, y: y - 10 });
}
function leave() {
  at.value = null;
  drawn.value?.dispatchAction({ type: 'hideTip' });
}
</script>

<template>
  <figure data-chart>
    <div
      ref="box"
      class="w-full"
      :style="{ height: `${height ?? 200}px` }"
      role="img"
      tabindex="0"
      :aria-label="`${label}. ${say`Arrow keys tell its values.`}`"
      @keydown="step"
      @blur="leave"
    />
    <p class="sr-only" aria-live="polite">{{ told }}</p>
    <figcaption v-if="caption" class="text-muted text-sm">{{ caption }}</figcaption>
    <ChartTable :chart="chart" :label="label" />
  </figure>
</template>
