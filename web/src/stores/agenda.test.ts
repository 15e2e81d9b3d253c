import { dayOf } from '@kauri/core';
import { createPinia, setActivePinia } from 'pinia';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { reactive } from 'vue';
import { useAgenda } from './agenda';

const TODAY = dayOf('2026-06-01');
const world = vi.hoisted(() => ({ call: vi.fn() }) as Record<string, any>); // eslint-disable-line @typescript-eslint/no-explicit-any
vi.mock('../api/client', () => ({ call: world.call }));
vi.mock('./nursery', () => ({ useNursery: () => world.nursery }));
vi.mock('./season', () => ({ useSeason: () => world.season }));

const answer = (now: number, more: object = {}) => ({
  on: '2026-06-01',
  acts: [],
  counts: { now, week: 0, weeks: 0, watch: 0 },
  workedAt: '2026-06-01T03:00:00Z',
  working: false,
  ...more,
});

beforeEach(() => {
  vi.useFakeTimers();
  setActivePinia(createPinia());
  world.call.mockReset();
  world.nursery = reactive({ nurseryId: 'n', params: { nursery: 'n' } });
  world.season = reactive({ view: TODAY, today: TODAY });
});
afterEach(() => {
  vi.useRealTimers();
});

describe('what presses today', () => {
  it('is unknown until the server says it, and then its', async () => {
    const agenda = useAgenda();
    expect(agenda.now).toBeNull();
    world.call.mockResolvedValue(answer(12));
    await agenda.load();
    expect(agenda.now).toBe(12);
    // Wherever the ribbon looks, it is today's.
    world.season.view = TODAY + 90;
    expect(agenda.now).toBe(12);
  });

  it('is this browser’s own where that is of today', async () => {
    const agenda = useAgenda();
    world.call.mockResolvedValue(answer(12));
    await agenda.load();
    const counts = { now: 11, week: 0, weeks: 0, watch: 0 };
    agenda.own = { day: TODAY, counts };
    expect(agenda.now).toBe(11);
    agenda.own = { day: TODAY + 90, counts };
    expect(agenda.now).toBe(12);
  });

  it('of yesterday is not today’s, nor another nursery’s this one’s', async () => {
    const agenda = useAgenda();
    world.call.mockResolvedValue(answer(12));
    await agenda.load();
    world.nursery.nurseryId = 'other';
    expect(agenda.now).toBeNull();
    world.nursery.nurseryId = 'n';
    world.season.today = TODAY + 1;
    expect(agenda.now).toBeNull();
  });

  it('is asked for again while the server works it out, and no more once it has', async () => {
    const agenda = useAgenda();
    world.call.mockResolvedValueOnce(answer(0, { workedAt: null, working: true }));
    world.call.mockResolvedValueOnce(answer(12, { working: true }));
    world.call.mockResolvedValueOnce(answer(11));
    await agenda.load();
    expect(agenda.now).toBeNull();
    await vi.advanceTimersByTimeAsync(1000);
    expect(agenda.now).toBe(12);
    await vi.runAllTimersAsync();
    expect(agenda.now).toBe(11);
    expect(world.call).toHaveBeenCalledTimes(3);
  });

  it('is asked for ever less often where the server never comes to it', async () => {
    const agenda = useAgenda();
    world.call.mockResolvedValue(answer(0, { workedAt: null, working: true }));
    await agenda.load();
    await vi.advanceTimersByTimeAsync(10_000);
    const soon = world.call.mock.calls.length;
    expect(soon).toBeGreaterThan(3);
    await vi.advanceTimersByTimeAsync(3_600_000);
    // Once a minute at most in the end.
    expect(world.call.mock.calls.length - soon).toBeLessThan(70);
    agenda.stop();
  });

  it('follows what was written, once for all that is written together', async () => {
    const agenda = useAgenda();
    world.call.mockResolvedValue(answer(12));
    agenda.follow();
    agenda.follow();
    expect(world.call).not.toHaveBeenCalled();
    await vi.runAllTimersAsync();
    expect(world.call).toHaveBeenCalledTimes(1);
    // Where the list is worked out here, nobody is asked.
    agenda.own = { day: TODAY, counts: { now: 3, week: 0, weeks: 0, watch: 0 } };
    agenda.follow();
    await vi.runAllTimersAsync();
    expect(world.call).toHaveBeenCalledTimes(1);
  });

  it('of a nursery that was left meanwhile is let go', async () => {
    const agenda = useAgenda();
    world.call.mockImplementation(async () => {
      world.nursery.nurseryId = 'other';
      return answer(12, { working: true });
    });
    await agenda.load();
    expect(agenda.now).toBeNull();
    world.nursery.nurseryId = 'n';
    expect(agenda.now).toBeNull();
    await vi.runAllTimersAsync();
    expect(world.call).toHaveBeenCalledTimes(1);
  });
});
