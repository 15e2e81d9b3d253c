<script setup lang="ts">
import { say } from '@kauri/core';
import type { LotFacts, LotForecast, Standing } from '@kauri/core';
import { useDebounceFn } from '@vueuse/core';
import { computed, useTemplateRef, watch } from 'vue';
import { dayAxis } from '../../parts/chart/axes';
import type { Line, Series } from '../../parts/chart/chart';
import IdeaHelp from '../../help/IdeaHelp.vue';
import ChartTable from '../../parts/chart/ChartTable.vue';
import { useDrawing } from '../../parts/chart/useDrawing';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { longDate, yearOf } from '../../words/dates';
import { groundLine, type GroundLine } from './groundLine';
import { acrossPx, dayAt, DRAWN_FROM_PX, DRAWN_TO_PX, groundLineOption } from './groundLineOption';

const props = defineProps<{ facts: LotFacts; forecast: LotForecast; standing: Standing }>();
const preferences = usePreferences();
const season = useSeason();
const box = useTemplateRef('box');

const line = computed(() => groundLine(props.facts, props.forecast, props.standing));
const words = computed(() => {
  const l = line.value;
  if (!l) return say`No course to draw.`;
  const now = props.forecast.state;
  return (
    say`Course from ${longDate(l.from, yearOf(l.view))} to ${longDate(l.to, yearOf(l.view))}: ` +
    say`height ${preferences.show(now.heightCm.p50, 'height')}, root fill ${now.fill.p50.toFixed(2)} on ${longDate(l.view, yearOf(l.view))}; ` +
    say`${l.samples.length} samples, ${l.pulls.length} pulls.`
  );
});

const drawing = useDrawing(box, (ink, widthPx) =>
  line.value ? groundLineOption(line.value, (name) => ink(name.slice(2)), preferences, widthPx > 560) : null,
);
const { draw, width } = drawing;
/** The lot's courses in figures. */
const series = computed<Series | null>(() => {
  const l = line.value;
  if (!l) return null;
  const fill = (share: number) => share.toFixed(2);
  const course = (points: GroundLine['height']): Line['points'] =>
    points.map(({ day, low, middle, high }) => ({ x: day, y: middle, low, high }));
  const marks = (seen: GroundLine['samples']) => seen.map(({ day, value }) => ({ x: day, y: value }));
  return {
    x: dayAxis(l.from, l.to, season.today),
    y: { from: 0, to: l.tallest, name: say`Height`, tell: (cm) => preferences.show(cm, 'height'), ticks: [] },
    lines: [
      { name: say`Height`, ink: 'leaf', points: course(l.height) },
      { name: say`Root fill`, ink: 'root', tell: fill, points: course(l.fill) },
    ],
    marks: [
      { name: say`Sample`, ink: 'leaf', shape: 'ring', points: marks(l.samples) },
      { name: say`Plugs pulled`, ink: 'root', shape: 'ring', tell: fill, points: marks(l.pulls) },
    ],
  };
});
/** The date looked at goes with the ribbon, whatever the chart still has to draw. */
const viewLine = computed(() => {
  const l = line.value;
  if (!l || width.value === 0 || season.view < l.from || season.view > l.to) return null;
  return {
    transform: `translateX(${acrossPx(l, season.view, width.value) - 1}px)`,
    top: `${DRAWN_FROM_PX}px`,
    bottom: `${DRAWN_TO_PX}px`,
  };
});

watch(drawing.chart, (chart) =>
  chart!.getZr().on('click', (event) => {
    const point = [event.offsetX, event.offsetY];
    const grid = [0, 1].find((index) => chart!.containPixel({ gridIndex: index }, point));
    if (grid !== undefined)
      season.look(dayAt(chart!.convertFromPixel({ xAxisIndex: grid }, event.offsetX) as unknown as number));
  }),
);
/** While the ribbon is dragged the chart is drawn now and then, and when it rests; its date goes with every frame. */
const drawSoon = useDebounceFn(draw, 60, { maxWait: 300 });
watch(line, (_, before) => (before && drawing.chart.value ? drawSoon() : draw()), { flush: 'post' });
</script>

<template>
  <figure>
    <div class="relative">
      <div ref="box" class="h-[25rem] w-full" role="img" :aria-label="words" data-testid="ground-line" />
      <i
        v-if="viewLine"
        class="bg-ink pointer-events-none absolute left-0 w-0.5"
        :style="viewLine"
        aria-hidden="true"
      />
    </div>
    <figcaption class="text-muted text-sm">
      {{ say`○ sample, mean and spread · □ plugs pulled · broken line and band: forecast` }}
      <IdeaHelp idea="groundLine" />
    </figcaption>
    <ChartTable v-if="series" :chart="series" :label="words" />
  </figure>
</template>
