import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { effectScope, nextTick, reactive } from 'vue';
import type { useForecasts } from './forecasts';

/* eslint-disable @typescript-eslint/no-explicit-any */
const world = vi.hoisted(() => ({}) as Record<string, any>);
vi.mock('comlink', () => ({ wrap: () => world.worker }));
vi.mock('./nursery', () => ({ useNursery: () => world.nursery }));
vi.mock('./season', () => ({ useSeason: () => world.season }));

/** A worker that forecasts nothing: it answers with what it was given, in the parts it is asked for. */
function aWorker() {
  const lots = new Map<string, { id: string }>();
  let ready: object[] = [];
  const handed: number[] = [];
  const taken: number[] = [];
  return {
    lots,
    handed,
    taken,
    setWeather: vi.fn(async () => undefined),
    putLots: vi.fn(async (changed: { id: string }[], gone: string[]) => {
      if (changed.length) handed.push(changed.length);
      for (const lot of changed) lots.set(lot.id, lot);
      for (const id of gone) lots.delete(id);
    }),
    all: vi.fn(async (view: number) => {
      ready = [...lots.values()].map((facts) => ({ forecast: { lotId: facts.id, view }, facts }));
      return { ids: [...lots.keys()], changed: ready.length, faults: [] as object[] };
    }),
    more: vi.fn(async (count: number) => {
      const part = ready.splice(0, count);
      taken.push(part.length);
      return part;
    }),
    one: vi.fn(async (lotId: string) => ({ lotId })),
    ribbon: vi.fn(async () => []),
  };
}
const facts = (...ids: string[]) => new Map(ids.map((id) => [id, { id }]));
const many = (n: number) => facts(...Array.from({ length: n }, (_, i) => `L${i}`));

let scope: ReturnType<typeof effectScope>;
let store: ReturnType<typeof useForecasts>;
async function started() {
  scope = effectScope();
  const { useForecasts: use } = await import('./forecasts');
  store = scope.run(() => use())!;
  store.start();
  store.wantAll();
}
beforeEach(() => {
  vi.stubGlobal('Worker', class {});
  setActivePinia(createPinia());
  world.worker = aWorker();
  world.nursery = reactive({
    series: {},
    weatherVersion: 1,
    catalogue: { nursery: { latitudeDeg: 54, elevationM: 100 } },
    facts: many(3),
    whole: false,
  });
  world.season = reactive({ view: 100, today: 100, strip: { start: 0, end: 400 } });
});

describe('forecasts of all lots', () => {
  it('are not asked for before every lot is here, then handed over and taken in parts', async () => {
    world.nursery.facts = many(130);
    await started();
    expect(world.worker.all).not.toHaveBeenCalled();
    expect(store.viewsOf).toBeNull();
    world.nursery.whole = true;
    await vi.waitFor(() => expect(store.viewsOf).toBe(100));
    expect(world.worker.handed).toEqual([60, 60, 10]);
    expect(world.worker.taken).toEqual([60, 60, 10]);
    expect([...store.views.keys()]).toEqual([...world.nursery.facts.keys()]);
  });

  it('are not worked out for who looks at something else, until somebody shows all lots', async () => {
    world.nursery.whole = true;
    await started();
    await vi.waitFor(() => expect(store.viewsOf).toBe(100));
    // Somebody else signs in: nothing is wanted yet.
    world.worker.all.mockClear();
    store.start();
    world.season.view = 130;
    await nextTick();
    expect(world.worker.all).not.toHaveBeenCalled();
    store.wantAll();
    await vi.waitFor(() => expect(store.viewsOf).toBe(130));
  });

  it('go over only for lots that changed, and let go of those that are gone', async () => {
    world.nursery.whole = true;
    await started();
    await vi.waitFor(() => expect(store.viewsOf).toBe(100));
    const before = new Map<string, { id: string }>(world.nursery.facts);
    before.delete('L0');
    world.nursery.facts = new Map([...before, ['L1', { id: 'L1' }]]);
    await vi.waitFor(() => expect([...store.views.keys()]).toEqual(['L1', 'L2']));
    expect(world.worker.handed).toEqual([3, 1]);
  });

  it('follow the date, the weather, and the day', async () => {
    world.nursery.whole = true;
    await started();
    await vi.waitFor(() => expect(store.viewsOf).toBe(100));
    world.season.view = 130;
    await vi.waitFor(() => expect(store.viewsOf).toBe(130));
    world.nursery.weatherVersion = 2;
    await vi.waitFor(() => expect(world.worker.setWeather).toHaveBeenCalledTimes(2));
    world.season.today = 101;
    await vi.waitFor(() => expect(world.worker.all).toHaveBeenLastCalledWith(130, 101));
  });

  it('say what failed, of one lot or of all, and go on afterwards', async () => {
    world.nursery.whole = true;
    world.worker.all.mockRejectedValueOnce(new Error('out of memory'));
    await started();
    await vi.waitFor(() => expect(store.failure).toBe('out of memory'));
    world.worker.all.mockResolvedValueOnce({
      ids: [],
      changed: 0,
      faults: [{ lotId: 'L1', fault: 'no depth' }],
    });
    world.season.view = 101;
    await vi.waitFor(() => expect(store.failure).toBeNull());
    expect(store.faults.get('L1')).toBe('no depth');
  });
});

describe('the lot that is looked at', () => {
  it('is asked for at once when it is chosen, and forgotten when another is', async () => {
    world.nursery.whole = true;
    await started();
    store.select('L1');
    await vi.waitFor(() => expect(store.selected).toEqual({ lotId: 'L1' }));
    store.select('L2');
    expect(store.selected).toBeNull();
    await vi.waitFor(() => expect(store.selected).toEqual({ lotId: 'L2' }));
    store.select(null);
    expect(store.selected).toBeNull();
  });
});
