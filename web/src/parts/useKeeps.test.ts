import { beforeEach, describe, expect, it, vi } from 'vitest';
import { effectScope, nextTick, reactive } from 'vue';
import { useKeeps } from './useKeeps';

const world = vi.hoisted(() => ({}) as Record<string, any>); // eslint-disable-line @typescript-eslint/no-explicit-any
vi.mock('../stores/nursery', () => ({ useNursery: () => world.nursery }));
vi.mock('../stores/forecasts', () => ({ useForecasts: () => world.forecasts }));
vi.mock('../stores/season', () => ({ useSeason: () => world.season }));
vi.mock('../stores/parcels', () => ({ useParcels: () => world.parcels }));

const kept = (until: number) => new Map([['p', { value: { until, by: 'buds' }, working: [] }]]);
beforeEach(() => {
  world.nursery = reactive({ whole: false, weatherVersion: 1 });
  world.season = reactive({ today: 100 });
  world.parcels = reactive({ loaded: false, whole: [] as object[] });
  world.forecasts = { keeps: vi.fn(async () => kept(200)) };
});
const opened = <T>(work: (keeps: ReturnType<typeof useKeeps>) => T) =>
  effectScope().run(() => work(useKeeps()))!;

describe('until when lifted trees keep', () => {
  it('is not known until both the trees and the nursery are here, whichever comes first', () =>
    opened(async ({ keeps }) => {
      world.parcels.whole = [{ id: 'p' }];
      world.parcels.loaded = true;
      await nextTick();
      expect(keeps.value).toBeNull();
      // The lots arrive behind: nothing else changes then.
      world.nursery.whole = true;
      await vi.waitFor(() => expect(keeps.value?.get('p')?.value.until).toBe(200));
    }));
  it('is worked out anew with the weather and the day, and asks nobody where nothing lies', () =>
    opened(async ({ keeps }) => {
      world.nursery.whole = true;
      world.parcels.loaded = true;
      await vi.waitFor(() => expect(keeps.value?.size).toBe(0));
      expect(world.forecasts.keeps).not.toHaveBeenCalled();
      world.parcels.whole = [{ id: 'p' }];
      await vi.waitFor(() => expect(keeps.value?.size).toBe(1));
      world.nursery.weatherVersion++;
      await vi.waitFor(() => expect(world.forecasts.keeps).toHaveBeenCalledTimes(2));
      world.season.today++;
      await vi.waitFor(() => expect(world.forecasts.keeps).toHaveBeenCalledTimes(3));
    }));
});
