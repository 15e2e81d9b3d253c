import { dayOf, type TodayItem } from '@kauri/core';
import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { effectScope, nextTick, reactive, ref } from 'vue';
import { leadsTo, lotOf, useToday } from './useToday';

const TODAY = dayOf('2026-06-01');
const world = vi.hoisted(() => ({ call: vi.fn() }) as Record<string, any>); // eslint-disable-line @typescript-eslint/no-explicit-any
vi.mock('../../api/client', () => ({ call: world.call }));
vi.mock('../../stores/nursery', () => ({ useNursery: () => world.nursery }));
vi.mock('../../stores/forecasts', () => ({ useForecasts: () => world.forecasts }));
vi.mock('../../stores/season', () => ({ useSeason: () => world.season }));
vi.mock('../../stores/seed', () => ({ useSeed: () => world.seed }));
vi.mock('../../stores/plan', () => ({ usePlan: () => world.plan }));
vi.mock('../../stores/plantings', () => ({ usePlantings: () => world.plantings }));
vi.mock('../../stores/holds', () => ({ useHolds: () => world.holds }));
vi.mock('../../stores/parcels', () => ({ useParcels: () => world.parcels }));
vi.mock('../../parts/useKeeps', () => ({ useKeeps: () => ({ keeps: world.keeps }) }));
vi.mock('../../stores/roots', () => ({ useRoots: () => world.roots }));
vi.mock('../../stores/todayBook', () => ({ useTodayBook: () => world.book }));
vi.mock('../../parts/useLots', () => ({ useLots: () => ({ lots: world.lots }) }));
vi.mock('../seed/up/useComingUp', () => ({
  useComingUp: () => ({ shown: world.rising, settled: world.risen }),
}));

/** A root-bound lot in cells, as its forecast asks for it to be moved. */
const bound = (id: string) => ({
  row: { id },
  facts: { id, code: id, counts: [] },
  view: {
    forecast: { asOf: TODAY, state: { day: TODAY }, emergence: { seen: TODAY - 60 } },
    standing: { tally: { sown: 0, standing: 400 }, decision: { kind: 'shift-now' }, status: 'bound' },
    acts: [
      {
        rule: 'root-bound',
        lotId: id,
        code: id,
        when: 'now',
        by: null,
        trees: 400,
        figures: { chance: 0.8, fill: 1.1, since: TODAY - 20 },
        words: {},
      },
    ],
  },
});
const empty = { lots: [], moves: [], treatments: [], stockBeds: [], layers: [], records: [] };
const serverAct = (subjectId: string, when = 'now') => ({
  rule: 'root-bound',
  part: 'lot',
  of: 'lot',
  subjectId,
  about: subjectId,
  when,
  by: null,
  trees: 400,
  loss: 40,
  minutes: 60,
  lossPerHour: 40,
  title: `Move ${subjectId}`,
  reason: 'Bound.',
  waiting: '',
  assignedTo: null,
});
const serverToday = (
  acts: ReturnType<typeof serverAct>[],
  counts = { now: acts.length, week: 0, weeks: 0, watch: 0 },
) => ({
  on: '2026-06-01',
  acts,
  counts,
  faults: [],
  forecast: 0,
  workedAt: '2026-06-01T03:00:00Z',
  working: false,
});

beforeEach(() => {
  setActivePinia(createPinia());
  world.call.mockReset().mockRejectedValue(new Error('no network'));
  world.nursery = reactive({
    whole: false,
    lots: new Map(),
    nurseryId: 'n',
    params: { nursery: 'n' },
    lookup: { species: new Map() },
    series: { start: TODAY, tMinC: [], tMaxC: [] },
    catalogue: { nursery: { latitudeDeg: 54.6 } },
  });
  world.forecasts = reactive({ viewsOf: null as number | null });
  world.season = reactive({ view: TODAY, today: TODAY });
  world.seed = reactive({
    settled: false,
    load: async () => undefined,
    room: empty,
    knownRoom: { ...empty, underWay: [], onBranch: [], held: () => 0 },
    outlooks: { viability: new Map(), clocks: new Map(), layering: new Map() },
  });
  world.roots = reactive({
    rules: null as object | null,
    verdictOf: () => null,
    load: async () => undefined,
  });
  world.plan = reactive({ loaded: false, sowings: [], load: async () => undefined });
  const nothing = { loaded: false, load: async () => undefined };
  world.plantings = reactive({ ...nothing, kept: { plantings: [], walks: [] } });
  world.holds = reactive({ ...nothing, all: [] });
  world.parcels = reactive({
    ...nothing,
    ready: async () => undefined,
    isStale: false,
    all: [],
    looks: [],
    stores: new Map(),
  });
  world.keeps = ref(null);
  world.book = reactive({ book: null as object | null, load: async () => undefined });
  world.lots = ref<unknown[]>([]);
  world.rising = ref([]);
  world.risen = ref(false);
});
function everythingIsHere(lots: unknown[]) {
  world.lots.value = lots;
  world.nursery.whole = true;
  world.forecasts.viewsOf = TODAY;
  world.seed.settled = true;
  world.roots.rules = {};
  for (const store of ['plan', 'plantings', 'holds', 'parcels']) world[store].loaded = true;
  world.risen.value = true;
  world.keeps.value = new Map();
  world.book.book = { marks: [], rules: { schema: 1, rules: {} }, people: [] };
}
const opened = <T>(work: (today: ReturnType<typeof useToday>) => T) =>
  effectScope().run(() => work(useToday()))!;

describe('today’s list', () => {
  it('is nothing yet, then the server’s, then this browser’s own', () =>
    opened(async (today) => {
      expect([today.shown.value, today.isOwn.value]).toEqual([false, false]);
      world.call.mockResolvedValue(serverToday([serverAct('a')], { now: 712, week: 3, weeks: 0, watch: 0 }));
      await today.load();
      expect(today.shown.value).toBe(true);
      expect(today.isOwn.value).toBe(false);
      expect(today.agenda.value.lines.map(({ item }) => item.words.title)).toEqual(['Move a']);
      // What it did not send it still counts.
      expect(today.counts.value).toMatchObject({ now: 712, week: 3 });
      everythingIsHere([bound('a'), bound('b')]);
      await vi.waitFor(() => expect(today.isOwn.value).toBe(true));
      expect(today.agenda.value.lines.map(({ item }) => item.subjectId).sort()).toEqual(['a', 'b']);
      expect(today.counts.value.now).toBe(2);
    }));

  it('of another day is not the server’s, which knows today alone', () =>
    opened(async (today) => {
      world.call.mockResolvedValue(serverToday([serverAct('a')]));
      await today.load();
      world.season.view = TODAY + 30;
      await nextTick();
      expect(today.shown.value).toBe(false);
      expect(today.agenda.value.lines).toEqual([]);
    }));

  it('is not shown while the server has none', () =>
    opened(async (today) => {
      world.call.mockResolvedValue({ ...serverToday([]), workedAt: null, working: true });
      await today.load();
      expect(today.shown.value).toBe(false);
    }));

  it('asks to look at what was lifted and lies there, and leads to it', () =>
    opened(async (today) => {
      everythingIsHere([]);
      world.parcels.all = [
        { id: 'p', lotId: 'l', code: 'A', speciesId: 's', place: 'Trench', since: '2026-05-01', held: 40 },
      ];
      world.keeps.value = new Map([['p', { value: { until: TODAY + 90, by: 'buds' }, working: [] }]]);
      await vi.waitFor(() => expect(today.isOwn.value).toBe(true));
      const items = today.agenda.value.lines.map(({ item }) => item);
      expect(items.map(({ part, rule, about }) => [part, rule, about])).toEqual([
        ['lifted', 'look-lying', 'Trench'],
      ]);
      expect(leadsTo(items[0])).toEqual({ name: 'lift-lying', query: { parcel: 'p' } });
    }));

  it('is worked out only once everything it is made of is here', () =>
    opened(async (today) => {
      everythingIsHere([bound('a')]);
      world.seed.settled = false;
      await nextTick();
      await nextTick();
      expect(today.isOwn.value).toBe(false);
      world.seed.settled = true;
      await vi.waitFor(() => expect(today.isOwn.value).toBe(true));
    }));

  it('leaves out what was marked done, and says so', () =>
    opened(async (today) => {
      everythingIsHere([bound('a'), bound('b')]);
      const mark = {
        id: 'm',
        rule: 'root-bound',
        subjectId: 'a',
        mark: 'done',
        on: '2026-06-01',
        until: '2026-06-20',
      };
      world.book.book = {
        ...world.book.book,
        marks: [{ ...mark, reason: '', minutes: null, trees: 400, assignedTo: null, by: 'p' }],
      };
      await vi.waitFor(() =>
        expect(today.agenda.value.lines.map(({ item }) => item.subjectId)).toEqual(['b']),
      );
      expect(today.agenda.value.hidden.map(({ mark: { id } }) => id)).toEqual(['m']);
    }));
});

describe('an act', () => {
  const item = (part: string, of: string) => ({ part, of, subjectId: 'x' }) as unknown as TodayItem;
  it('leads to whose it is', () => {
    expect(leadsTo(item('plan', 'plan'))).toMatchObject({ name: 'plan-board', query: { sowing: 'x' } });
    expect(leadsTo(item('roots', 'lot'))).toMatchObject({ name: 'roots', params: { lot: 'x' } });
    expect(leadsTo(item('lot', 'lot'))).toMatchObject({ name: 'grow', params: { lot: 'x' } });
    expect(leadsTo(item('seed', 'store'))).toMatchObject({ name: 'seed', params: { seedLot: 'x' } });
    expect(leadsTo(item('seed', 'clock'))).toMatchObject({ name: 'seed-clock', params: { batch: 'x' } });
    expect(leadsTo(item('seed', 'layers'))).toMatchObject({ name: 'seed-layers', params: { layer: 'x' } });
    expect(leadsTo(item('seed', 'up'))).toMatchObject({ name: 'seed-up', params: { lot: 'x' } });
  });
  it('has a lot beside it only where it is about one that is here', () => {
    const byId = new Map([['x', bound('x') as never]]);
    expect(lotOf(byId, { item: item('lot', 'lot') } as never)).toBe(byId.get('x'));
    expect(lotOf(byId, { item: item('seed', 'up') } as never)).toBeNull();
    expect(lotOf(new Map(), { item: item('lot', 'lot') } as never)).toBeNull();
  });
});
