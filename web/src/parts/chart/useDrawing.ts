import { useElementSize } from '@vueuse/core';
import type { EChartsCoreOption, EChartsType } from 'echarts/core';
import { onBeforeUnmount, shallowRef, watch, type Ref } from 'vue';
import { usePreferences } from '../../stores/preferences';

/** A colour by its name in the style sheet, without its dashes. */
export type NamedInk = (name: string) => string;

/**
 * Draws a chart into an element and keeps it true: to its size, to the scheme chosen, to the units. The engine is
 * fetched when the first one is drawn.
 * @param option made anew for each drawing; null while there is nothing to draw
 */
export function useDrawing(
  box: Readonly<Ref<HTMLElement | null>>,
  option: (ink: NamedInk, widthPx: number) => EChartsCoreOption | null,
) {
  const preferences = usePreferences();
  const { width, height } = useElementSize(box);
  const chart = shallowRef<EChartsType | null>(null);
  let gone = false;

  async function draw() {
    if (!box.value || width.value === 0) return;
    const { init } = await import('./engine');
    if (gone || !box.value) return;
    const style = getComputedStyle(document.documentElement);
    const made = option((name) => style.getPropertyValue(`--${name}`).trim(), width.value);
    if (!made) return;
    chart.value ??= init(box.value);
    const [w, h] = [Math.round(width.value), Math.round(height.value)];
    if (chart.value.getWidth() !== w || chart.value.getHeight() !== h) chart.value.resize();
    chart.value.setOption(made, { notMerge: true });
  }
  watch([width, height, () => preferences.theme, () => preferences.units], draw, { flush: 'post' });
  // Letters drawn before the font has loaded would keep the wrong shape.
  void document.fonts.ready.then(draw);
  onBeforeUnmount(() => {
    gone = true;
    chart.value?.dispose();
  });
  return { chart, draw, width };
}
