import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { freeToPromise, servePromises, type Promised, type StandingStock } from './freeToPromise';

/** Tree by tree: how many of the promises can be met at once, by growing a matching. */
function matched(lots: readonly StandingStock[], promised: readonly Promised[]): number {
  const trees = lots.flatMap((lot) => new Array<StandingStock>(lot.count).fill(lot));
  const wants = promised.flatMap((promise) => new Array<Promised>(promise.count).fill(promise));
  const of = new Array<number>(trees.length).fill(-1);
  const find = (want: number, seen: Set<number>): boolean =>
    trees.some((tree, i) => {
      const { on, lots: only } = wants[want];
      if (seen.has(i) || !(tree.from <= on && on <= tree.until)) return false;
      if (only?.length && !only.includes(tree.id)) return false;
      seen.add(i);
      if (of[i] >= 0 && !find(of[i], seen)) return false;
      of[i] = want;
      return true;
    });
  return wants.filter((_, want) => find(want, new Set())).length;
}

const lots = fc
  .array(
    fc.record({
      from: fc.integer({ min: 0, max: 12 }),
      long: fc.integer({ min: 0, max: 8 }),
      count: fc.integer({ min: 0, max: 5 }),
    }),
    { maxLength: 5 },
  )
  .map((all) =>
    all.map(({ from, long, count }, i): StandingStock => ({
      id: `lot ${i}`,
      from,
      until: from + long,
      count,
    })),
  );
const promises = fc.array(
  fc.record({
    on: fc.integer({ min: 0, max: 20 }),
    count: fc.integer({ min: 0, max: 4 }),
    // Some are set against lots of their own.
    lots: fc.constantFrom([], [], ['lot 0'], ['lot 1', 'lot 2']),
  }),
  { maxLength: 5 },
);

describe('what can still be promised', () => {
  it('is what tree by tree comes to', () => {
    fc.assert(
      fc.property(lots, promises, fc.integer({ min: 0, max: 20 }), (stock, promised, on) => {
        const all = promised.reduce((t, p) => t + p.count, 0);
        const free = freeToPromise({ lots: stock, promised, on });
        if (matched(stock, promised) < all) {
          expect(free).toBeNull();
          return;
        }
        expect(matched(stock, [...promised, { on, count: free! }])).toBe(all + free!);
        expect(matched(stock, [...promised, { on, count: free! + 1 }])).toBe(all + free!);
      }),
      { numRuns: 400 },
    );
  });
  it('says from which lots each promise comes, and what is short of it', () => {
    fc.assert(
      fc.property(lots, promises, (stock, promised) => {
        const { short, from } = servePromises(stock, promised);
        const used = new Map<string, number>();
        promised.forEach(({ on, count, lots: only }, i) => {
          let got = 0;
          for (const [id, n] of from[i]) {
            const lot = stock.find((l) => l.id === id)!;
            expect(lot.from <= on && on <= lot.until).toBe(true);
            if (only?.length) expect(only).toContain(id);
            used.set(id, (used.get(id) ?? 0) + n);
            got += n;
          }
          expect(got + short[i]).toBe(count);
        });
        for (const lot of stock) expect(used.get(lot.id) ?? 0).toBeLessThanOrEqual(lot.count);
        const all = promised.reduce((t, p) => t + p.count, 0);
        expect(all - short.reduce((t, n) => t + n, 0)).toBe(matched(stock, promised));
      }),
    );
  });
  it('asks for windows that end after they begin', () => {
    const lot = { id: 'a', from: 5, until: 4, count: 3 };
    expect(() => freeToPromise({ lots: [lot], promised: [], on: 4 })).toThrow(/begins before it ends/);
  });
});
