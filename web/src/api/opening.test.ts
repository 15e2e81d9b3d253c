import type { RouteName } from '@kauri/core/contract';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

/** A page begun anew, as every opening is one. */
async function begin({ kept = true } = {}) {
  vi.resetModules();
  vi.stubGlobal('navigator', { serviceWorker: { controller: kept ? {} : null } });
  const page = await import('./opening');
  const watcher = { shown: vi.fn(), over: vi.fn() };
  page.onLastSeen(watcher);
  return { ...page, watcher };
}
/** What a server answers when it is told to. */
function later<T>() {
  let answer!: (value: T) => void;
  let fail!: (error: Error) => void;
  const answered = new Promise<T>((resolve, reject) => ([answer, fail] = [resolve, reject]));
  return { answered, answer, fail };
}
const seen = { value: 'old', at: 7 };

describe('a page that opens', () => {
  beforeEach(() => void vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'performance'] }));
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  it('shows what the server says where it answers soon, and nothing else', async () => {
    const { orLastSeen, watcher } = await begin();
    const { answered, answer } = later<string>();
    const shown = orLastSeen('lotStamps', answered, seen);
    await vi.advanceTimersByTimeAsync(300);
    answer('new');
    await expect(shown).resolves.toBe('new');
    await vi.advanceTimersByTimeAsync(5_000);
    expect(watcher.shown).not.toHaveBeenCalled();
  });

  it('shows what was last seen where the server is slow, and tells whether it then says otherwise', async () => {
    const { orLastSeen, watcher } = await begin();
    for (const [now, isChanged] of [
      ['new', true],
      ['old', false],
    ] as const) {
      const { answered, answer } = later<string>();
      const shown = orLastSeen('lotStamps', answered, seen);
      await vi.advanceTimersByTimeAsync(400);
      await expect(shown).resolves.toBe('old');
      expect(watcher.shown).toHaveBeenLastCalledWith(7);
      answer(now);
      await vi.advanceTimersByTimeAsync(0);
      expect(watcher.over).toHaveBeenLastCalledWith('lotStamps', isChanged);
    }
    expect(watcher.over).toHaveBeenCalledTimes(2);
  });

  it('waits once: what is asked after the server was slow is shown at once', async () => {
    const { orLastSeen } = await begin();
    const first = orLastSeen('today', later<string>().answered, seen);
    await vi.advanceTimersByTimeAsync(400);
    await first;
    const next = orLastSeen('plan', later<string>().answered, seen);
    await vi.advanceTimersByTimeAsync(1);
    await expect(next).resolves.toBe('old');
  });

  it('says what failed only where nothing was shown in its place', async () => {
    const { orLastSeen, watcher } = await begin();
    const soon = later<string>();
    const refused = orLastSeen('lotStamps', soon.answered, seen);
    soon.fail(new Error('no'));
    await expect(refused).rejects.toThrow('no');
    const late = later<string>();
    const shown = orLastSeen('lotStamps', late.answered, seen);
    await vi.advanceTimersByTimeAsync(400);
    late.fail(new Error('no'));
    await expect(shown).resolves.toBe('old');
    await vi.advanceTimersByTimeAsync(0);
    expect(watcher.over).toHaveBeenLastCalledWith('lotStamps', false);
  });

  it.each([
    ['what was never seen', {}, null, 0],
    ['what nobody takes in anew', {}, seen, 0, 'papers'],
    ['where the application comes by the network too', { kept: false }, seen, 0],
    ['once it has opened', {}, seen, 20_000],
  ] as const)('waits for the server: %s', async (_, how, last, after, name: RouteName = 'lotStamps') => {
    const { orLastSeen, watcher } = await begin(how);
    await vi.advanceTimersByTimeAsync(after);
    const { answered, answer } = later<string>();
    const shown = orLastSeen(name, answered, last);
    await vi.advanceTimersByTimeAsync(3_000);
    expect(watcher.shown).not.toHaveBeenCalled();
    answer('new');
    await expect(shown).resolves.toBe('new');
  });

  it('looks for the first time once', async () => {
    const { isFirstLook } = await begin();
    expect(['/a', '/b', '/a'].map(isFirstLook)).toEqual([true, true, false]);
  });
});
