import type { Box } from '@kauri/core';
import { describe, expect, it, vi } from 'vitest';
import { effectScope, nextTick, ref, shallowRef } from 'vue';

const size = { width: ref(0), height: ref(0) };
vi.mock('@vueuse/core', () => ({ useElementSize: () => size }));
const { useView } = await import('./useView');

const yard: Box = { west: -9, east: 40, south: -6, north: 28 };
async function opened(extent = yard, unitM = 1) {
  size.width.value = 0;
  size.height.value = 0;
  const box = shallowRef(extent);
  const view = effectScope().run(() => useView(ref(null), box, () => unitM))!;
  size.width.value = 800;
  size.height.value = 500;
  await nextTick();
  return { view, box };
}
/** How much of the plan lies within the window, px across and down. */
function seen({ left, top, scale }: Awaited<ReturnType<typeof opened>>['view'], extent = yard) {
  const x = (e: number) => left.value + e * scale.value;
  const y = (n: number) => top.value - n * scale.value;
  const overlap = (from: number, to: number, size: number) => Math.min(to, size) - Math.max(from, 0);
  return {
    across: overlap(x(extent.west), x(extent.east), 800),
    down: overlap(y(extent.north), y(extent.south), 500),
  };
}

describe('the view of a plan', () => {
  it('opens on the whole of it, and follows it while it grows', async () => {
    const { view, box } = await opened();
    const first = view.scale.value;
    expect(seen(view).across).toBeCloseTo((yard.east - yard.west) * first, 6);
    expect(seen(view).down).toBeCloseTo((yard.north - yard.south) * first, 6);
    box.value = { ...yard, east: 90 };
    await nextTick();
    expect(view.scale.value).toBeLessThan(first);
  });
  it('never loses the plan, however it is panned and zoomed', async () => {
    const { view } = await opened();
    for (let i = 0; i < 400; i++) {
      if (i % 3) view.pan(Math.sin(i * 7.3) * 900, Math.cos(i * 3.1) * 900);
      else view.zoom(i % 2 ? 1.7 : 0.45, (i * 37) % 800, (i * 53) % 500);
      const { across, down } = seen(view);
      expect(across).toBeGreaterThan(0);
      expect(down).toBeGreaterThan(0);
    }
    view.fit();
    expect(seen(view).across).toBeGreaterThan(300);
  });
  it('zooms about the point under the hand', async () => {
    const { view } = await opened();
    view.zoom(2, 400, 250);
    const at = view.toPlan(420, 260);
    view.zoom(1.3, 420, 260);
    const again = view.toPlan(420, 260);
    expect(again[0]).toBeCloseTo(at[0], 6);
    expect(again[1]).toBeCloseTo(at[1], 6);
  });
  it('stays where it was put by hand when the plan grows', async () => {
    const { view, box } = await opened();
    view.zoom(2);
    const kept = view.scale.value;
    box.value = { ...yard, east: 60 };
    await nextTick();
    expect(view.scale.value).toBe(kept);
  });
  it('has a scale bar that is round in the grower’s own unit and fits a quarter of the window', async () => {
    for (const unitM of [1, 0.3048]) {
      const { view } = await opened(yard, unitM);
      const units = view.bar.value.metres / unitM;
      expect([0.5, 1, 2, 5, 10, 20, 50, 100, 200].some((n) => Math.abs(n - units) < 1e-9)).toBe(true);
      expect(view.bar.value.px).toBeLessThanOrEqual(200);
    }
  });
});
