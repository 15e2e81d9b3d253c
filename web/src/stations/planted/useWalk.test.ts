import type { Planting, WalkSheet } from '@kauri/core/contract';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { OfflineError, ProblemError } from '../../api/problem';
import { useWalk } from './useWalk';

const { mark } = vi.hoisted(() => ({ mark: vi.fn() }));
vi.mock('../../stores/plantings', () => ({ usePlantings: () => ({ mark }) }));
vi.mock('../../stores/kept', () => ({ keptKey: (name: string) => name }));
const kept = new Map<string, string>();
vi.mock('@vueuse/core', async () => {
  const { ref, watch } = await import('vue');
  return {
    useEventListener: vi.fn(),
    useLocalStorage: (key: string, first: unknown) => {
      const held = ref(kept.has(key) ? JSON.parse(kept.get(key)!) : first);
      watch(held, (now) => kept.set(key, JSON.stringify(now)), { deep: true, flush: 'sync' });
      return held;
    },
  };
});

const planting = {
  layout: { kind: 'rows', rows: 3, perRow: 2, rowM: 1, treeM: 1 },
  parts: [
    { id: 'a', count: 3 },
    { id: 'b', count: 2 },
  ],
} as unknown as Planting;
const sheet = (more: Partial<WalkSheet> = {}): WalkSheet => ({
  walk: { id: 'w', endedAt: null } as WalkSheet['walk'],
  trees: [
    { partId: 'a', numbers: [1, 2, 3] },
    { partId: 'b', numbers: [1, 2] },
  ],
  marks: [],
  before: [],
  ...more,
});
const settled = () =>
  vi.waitFor(() => expect(mark.mock.settledResults.every(({ type }) => type !== 'incomplete')).toBe(true));
const sent = () =>
  mark.mock.calls.flatMap(([, { marks }]) => marks as { number: number; state: string | null }[]);

beforeEach(() => {
  kept.clear();
  mark.mockReset();
  mark.mockResolvedValue({ done: true });
});

describe('a walk tree by tree', () => {
  it('goes on to the next tree nobody looked at, row by row through the parts', async () => {
    const walk = useWalk(
      sheet({ marks: [{ partId: 'a', number: 2, state: 'dead', cause: null, note: '' }] }),
      planting,
    );
    expect(walk.current.value).toMatchObject({ partId: 'a', number: 1, at: { row: 1, at: 1 } });
    walk.mark('alive');
    expect(walk.current.value).toMatchObject({ number: 3, at: { row: 2, at: 1 } });
    walk.mark('missing');
    expect(walk.current.value).toMatchObject({ partId: 'b', number: 1, at: { row: 2, at: 2 } });
    walk.goTo(4);
    walk.mark('alive');
    expect(walk.current.value).toBeNull();
    await settled();
    expect(walk.done.value).toBe(4);
    expect(walk.unsent.value).toEqual([]);
  });
  it('a wrong tap is taken back where it was made, and its cause goes with it', async () => {
    const walk = useWalk(sheet(), planting);
    walk.mark('dead');
    walk.because('voles');
    expect(walk.causeOf(walk.trees[0])).toBe('voles');
    walk.back();
    expect(walk.current.value).toMatchObject({ number: 1 });
    expect(walk.done.value).toBe(0);
    await settled();
    await vi.waitFor(() => expect(walk.unsent.value).toEqual([]));
    expect(sent().at(-1)).toMatchObject({ number: 1, state: null });
  });
  it('without network it goes on, is there after a reload, and is sent when the network is back', async () => {
    mark.mockRejectedValue(new OfflineError());
    const walk = useWalk(sheet(), planting);
    walk.mark('alive');
    walk.mark('dying');
    await settled();
    expect(walk.unsent.value).toHaveLength(2);
    expect(walk.fault.value).toBeNull();
    mark.mockReset();
    mark.mockResolvedValue({ done: true });
    const again = useWalk(sheet(), planting);
    expect(again.current.value).toMatchObject({ number: 3 });
    await vi.waitFor(() => expect(again.unsent.value).toEqual([]));
    expect(sent().map(({ state }) => state)).toEqual(['alive', 'dying']);
  });
  it('a mark made in another tab while this one sends is not dropped', async () => {
    let answer = (_: unknown) => undefined as void;
    mark.mockImplementationOnce(() => new Promise((done) => (answer = done)));
    const walk = useWalk(sheet(), planting);
    walk.mark('alive');
    const other = { ...walk.unsent.value[0], id: 'other', number: 3, state: 'dead' as const };
    // The other tab sent ours already, and kept its own.
    walk.unsent.value = [other];
    mark.mockRejectedValue(new OfflineError());
    answer({ done: true });
    await vi.waitFor(() => expect(mark).toHaveBeenCalledTimes(2));
    expect(walk.unsent.value).toEqual([other]);
    expect(mark.mock.calls[0][1].marks[0]).not.toHaveProperty('id');
  });
  it('asked to send while it sends, it is done when all of it is', async () => {
    let answer = (_: unknown) => undefined as void;
    mark.mockImplementationOnce(() => new Promise((done) => (answer = done)));
    const walk = useWalk(sheet(), planting);
    walk.mark('alive');
    await vi.waitFor(() => expect(mark).toHaveBeenCalledTimes(1));
    walk.mark('alive');
    const flushed = walk.flush();
    answer({ done: true });
    await flushed;
    expect(walk.unsent.value).toEqual([]);
    expect(mark).toHaveBeenCalledTimes(2);
  });
  it('what is refused is said and stays', async () => {
    const refusal = { type: '/problems/invalid', title: '', status: 422, detail: 'This walk was ended.' };
    mark.mockRejectedValue(new ProblemError(refusal as never));
    const walk = useWalk(sheet(), planting);
    walk.mark('alive');
    await vi.waitFor(() => expect(walk.fault.value).toBe('This walk was ended.'));
    expect(walk.unsent.value).toHaveLength(1);
  });
  it('a tree found dead before is asked about before it lives', async () => {
    const walk = useWalk(sheet({ before: [{ partId: 'a', number: 1, state: 'dead' }] }), planting);
    walk.mark('leader dead');
    expect(walk.asked.value).toBe('leader dead');
    expect(walk.done.value).toBe(0);
    walk.mark('leader dead', true);
    expect(walk.asked.value).toBeNull();
    await settled();
    expect(sent()[0]).toMatchObject({ number: 1, state: 'leader dead', livesAgain: true });
  });
});
