import { useElementSize } from '@vueuse/core';
import type { Box, Point } from '@kauri/core';
import { computed, ref, watch, type Ref } from 'vue';

const MARGIN_PX = 28;
const LEAST_SCALE = 1.5;
const MOST_SCALE = 240;

/**
 * Pan and zoom of a plan: pixels per metre, and where the site's corner lies. The plan is never lost: what is on
 * it always stays within the window, by a quarter at least.
 */
export function useView(
  frame: Ref<SVGElement | HTMLElement | null>,
  extent: Ref<Box>,
  /** Metres of the grower's own unit of length on the site. */
  unitM: () => number,
) {
  const { width, height } = useElementSize(frame);
  const scale = ref(20);
  const left = ref(0);
  const top = ref(0);
  /** Once panned or zoomed by hand, the view stays where it was put. */
  let byHand = false;

  function keepInSight() {
    const { west, east, south, north } = extent.value;
    const [w, h] = [(east - west) * scale.value, (north - south) * scale.value];
    const clamp = (at: number, from: number, size: number, window: number) => {
      const seen = Math.min(size, window) / 4;
      const low = seen - (from * scale.value + size);
      const high = window - seen - from * scale.value;
      return Math.max(low, Math.min(high, at));
    };
    left.value = clamp(left.value, west, w, width.value);
    top.value = clamp(top.value, -north, h, height.value);
  }

  function fit() {
    if (!(width.value > 0 && height.value > 0)) return;
    const { west, east, south, north } = extent.value;
    scale.value = Math.max(
      LEAST_SCALE,
      Math.min(
        (width.value - 2 * MARGIN_PX) / Math.max(1, east - west),
        (height.value - 2 * MARGIN_PX) / Math.max(1, north - south),
        90,
      ),
    );
    left.value = width.value / 2 - ((west + east) / 2) * scale.value;
    top.value = height.value / 2 + ((south + north) / 2) * scale.value;
  }
  watch([width, height, extent], () => (byHand ? keepInSight() : fit()));

  function zoom(by: number, atX = width.value / 2, atY = height.value / 2) {
    byHand = true;
    const next = Math.max(LEAST_SCALE, Math.min(MOST_SCALE, scale.value * by));
    const ratio = next / scale.value;
    left.value = atX - (atX - left.value) * ratio;
    top.value = atY - (atY - top.value) * ratio;
    scale.value = next;
    keepInSight();
  }
  function pan(dx: number, dy: number) {
    byHand = true;
    left.value += dx;
    top.value += dy;
    keepInSight();
  }

  function fitAll() {
    byHand = false;
    fit();
  }

  const transform = computed(() => `matrix(${scale.value} 0 0 ${-scale.value} ${left.value} ${top.value})`);
  /** Point of the plan under a pixel of the frame. */
  const toPlan = (x: number, y: number): Point => [
    (x - left.value) / scale.value,
    (top.value - y) / scale.value,
  ];
  const middle = computed<Point>(() => toPlan(width.value / 2, height.value / 2));
  /** A round length within a quarter of the window, for the scale bar. */
  const bar = computed(() => {
    const span = width.value / scale.value / 4;
    const metres = ([200, 100, 50, 20, 10, 5, 2, 1].find((n) => n * unitM() <= span) ?? 0.5) * unitM();
    return { metres, px: metres * scale.value };
  });
  return { width, height, scale, left, top, transform, toPlan, middle, bar, fit: fitAll, zoom, pan };
}
