import type { Landed } from '@kauri/core/contract';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { gathered, takingTurns, type Gathered } from './others';

describe('writes that came together', () => {
  it('are of all their areas, and about all their lots', () => {
    const news = gathered([
      { area: 'lots', lots: ['a', 'b'], page: 'p' },
      { area: 'today', lots: [], page: null },
      { area: 'lots', lots: ['b', 'c'], page: null },
    ]);
    expect([...news.areas!]).toEqual(['lots', 'today']);
    expect([...news.lots!]).toEqual(['a', 'b', 'c']);
  });

  it('may be anything where one of them may', () => {
    expect(
      gathered([
        { area: 'lots', lots: ['a'], page: null },
        { area: 'seed', lots: null, page: null },
      ]),
    ).toEqual({ areas: new Set(['lots', 'seed']), lots: null });
    expect(gathered([{ area: null, lots: null, page: null }]).areas).toBeNull();
  });
});

describe('taking in what is heard', () => {
  const landed = (lot: string): Landed => ({ area: 'lots', lots: [lot], page: null });
  const lotsOf = (news: Gathered) => [...news.lots!];
  beforeEach(() => void vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'performance'] }));
  afterEach(() => void vi.useRealTimers());

  it('takes what comes together in one turn, and the next after a rest', async () => {
    const took: string[][] = [];
    const turns = takingTurns(
      async (news) => took.push(lotsOf(news)),
      () => 0,
    );
    turns.hear(landed('a'));
    turns.hear(landed('b'));
    await vi.advanceTimersByTimeAsync(200);
    expect(took).toEqual([['a', 'b']]);
    turns.hear(landed('c'));
    await vi.advanceTimersByTimeAsync(500);
    expect(took).toHaveLength(1);
    await vi.advanceTimersByTimeAsync(600);
    expect(took).toEqual([['a', 'b'], ['c']]);
    // Rested, the next is taken in at once again.
    await vi.advanceTimersByTimeAsync(5_000);
    turns.hear(landed('d'));
    await vi.advanceTimersByTimeAsync(200);
    expect(took.at(-1)).toEqual(['d']);
  });

  it('never takes in twice at a time, and rests longer where it took long', async () => {
    let atOnce = 0;
    let most = 0;
    let turnsTaken = 0;
    const turns = takingTurns(
      async () => {
        most = Math.max(most, ++atOnce);
        await new Promise((done) => setTimeout(done, 1_000));
        atOnce--;
        turnsTaken++;
      },
      () => 0,
    );
    for (let i = 0; i < 50; i++) {
      turns.hear(landed('a'));
      await vi.advanceTimersByTimeAsync(200);
    }
    expect(most).toBe(1);
    // One of a second, and then eight of rest.
    expect(turnsTaken).toBe(1);
    await vi.advanceTimersByTimeAsync(4_000);
    expect(turnsTaken).toBe(2);
  });

  it('rests no longer than it can be borne on a slow machine', async () => {
    const took: number[] = [];
    const turns = takingTurns(
      async () => {
        took.push(performance.now());
        await new Promise((done) => setTimeout(done, 6_000));
      },
      () => 0,
    );
    turns.hear(landed('a'));
    await vi.advanceTimersByTimeAsync(6_500);
    turns.hear(landed('b'));
    await vi.advanceTimersByTimeAsync(8_000);
    expect(took).toHaveLength(2);
  });

  it('takes in once more what may be older than what was written here meanwhile', async () => {
    const took: string[][] = [];
    let written = 0;
    const turns = takingTurns(
      async (news) => {
        if (took.push(lotsOf(news)) === 1) written++;
      },
      () => written,
    );
    turns.hear(landed('a'));
    await vi.advanceTimersByTimeAsync(5_000);
    expect(took).toEqual([['a'], ['a']]);
  });
});
