<script setup lang="ts">
import { say } from '@kauri/core';
import type { LotFacts, LotForecast, Standing } from '@kauri/core';
import { useDebounceFn, useElementSize } from '@vueuse/core';
import { CustomChart, LineChart } from 'echarts/charts';
import { GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { init, use, type EChartsType } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { computed, onBeforeUnmount, useTemplateRef, watch } from 'vue';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { longDate, yearOf } from '../../words/dates';
import { groundLine } from './groundLine';
import { acrossPx, dayAt, DRAWN_FROM_PX, DRAWN_TO_PX, groundLineOption } from './groundLineOption';

use([
  LineChart,
  CustomChart,
  GridComponent,
  MarkLineComponent,
  MarkAreaComponent,
  TooltipComponent,
  CanvasRenderer,
]);

const props = defineProps<{ facts: LotFacts; forecast: LotForecast; standing: Standing }>();
const preferences = usePreferences();
const season = useSeason();
const box = useTemplateRef('box');
const { width, height } = useElementSize(box);

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

let chart: EChartsType | null = null;
function draw() {
  if (!box.value || width.value === 0 || !line.value) return;
  if (!chart) {
    chart = init(box.value);
    chart.getZr().on('click', (event) => {
      const point = [event.offsetX, event.offsetY];
      const grid = [0, 1].find((index) => chart!.containPixel({ gridIndex: index }, point));
      if (grid !== undefined)
        season.look(dayAt(chart!.convertFromPixel({ xAxisIndex: grid }, event.offsetX) as unknown as number));
    });
  }
  const style = getComputedStyle(document.documentElement);
  if (chart.getWidth() !== Math.round(width.value) || chart.getHeight() !== Math.round(height.value))
    chart.resize();
  chart.setOption(
    groundLineOption(
      line.value,
      (name) => style.getPropertyValue(name).trim(),
      preferences,
      width.value > 560,
    ),
    { notMerge: true },
  );
}
/** While the ribbon is dragged the chart is drawn now and then, and when it rests; its date goes with every frame. */
const drawSoon = useDebounceFn(draw, 60, { maxWait: 300 });
watch(line, (_, before) => (before && chart ? drawSoon() : draw()), { flush: 'post' });
watch([width, height, () => preferences.theme, () => preferences.units], draw, { flush: 'post' });
// Letters drawn before the font has loaded would keep the wrong shape.
void document.fonts.ready.then(draw);
onBeforeUnmount(() => chart?.dispose());
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
    </figcaption>
  </figure>
</template>
