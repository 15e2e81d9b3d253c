import fc from 'fast-check';
import { describe, expect, it, vi } from 'vitest';
import { inSlices, parts } from './slices';

describe('work in slices', () => {
  it('does every item, in order, however often it rests', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(fc.integer(), { maxLength: 60 }), async (items) => {
        const done: number[] = [];
        await inSlices(items, (item) => done.push(item));
        expect(done).toEqual(items);
      }),
    );
  });
  it('lets something else happen between long items', async () => {
    let now = 0;
    vi.spyOn(performance, 'now').mockImplementation(() => now);
    const seen: string[] = [];
    const work = inSlices(['a', 'b', 'c'], (item) => {
      now += 20;
      seen.push(item);
    });
    expect(seen).toEqual(['a']);
    await work;
    expect(seen).toEqual(['a', 'b', 'c']);
    vi.restoreAllMocks();
  });
  it('stops at an item that fails and says so', async () => {
    const fail = inSlices([1, 2], (item) => {
      if (item === 2) throw new Error('no');
    });
    await expect(fail).rejects.toThrow('no');
  });
  it('parts hold every item once, none more than the size', () => {
    fc.assert(
      fc.property(fc.array(fc.integer()), fc.integer({ min: 1, max: 9 }), (items, size) => {
        const cut = parts(items, size);
        expect(cut.flat()).toEqual(items);
        for (const part of cut) expect(part.length).toBeGreaterThan(0);
        expect(Math.max(0, ...cut.map((part) => part.length))).toBeLessThanOrEqual(size);
      }),
    );
  });
});
