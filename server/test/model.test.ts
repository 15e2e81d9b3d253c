import fc from 'fast-check';
import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestServer, setUpLots, type TestServer } from './harness';

let server: TestServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
let lots = 0;
beforeAll(async () => {
  server = await openTestServer();
  yard = await setUpLots(server);
});
afterAll(() => server.close());

interface Held {
  sown: number;
  standing: number;
  lifted: number;
  out: number;
}
type Step =
  | { do: 'count'; counted: number }
  | { do: 'lift'; lifted: number; culled: number }
  | { do: 'write-off'; from: 'sown' | 'standing' | 'lifted'; count: number }
  | { do: 'undo' };

const some = fc.integer({ min: 0, max: 120 });
const step: fc.Arbitrary<Step> = fc.oneof(
  fc.record({ do: fc.constant('count' as const), counted: some }),
  fc.record({ do: fc.constant('lift' as const), lifted: some, culled: fc.integer({ min: 0, max: 20 }) }),
  fc.record({
    do: fc.constant('write-off' as const),
    from: fc.constantFrom('sown' as const, 'standing' as const, 'lifted' as const),
    count: fc.integer({ min: 1, max: 60 }),
  }),
  fc.record({ do: fc.constant('undo' as const) }),
);

/** What a step makes of a lot; null where it has to be refused. */
function after(held: Held, s: Exclude<Step, { do: 'undo' }>): Held | null {
  switch (s.do) {
    case 'count': {
      const change = s.counted - held.standing;
      if (change > held.sown) return null;
      return change >= 0
        ? { ...held, sown: held.sown - change, standing: s.counted }
        : { ...held, standing: s.counted, out: held.out - change };
    }
    case 'lift': {
      const gone = s.lifted + s.culled;
      if (gone === 0 || gone > held.standing) return null;
      return {
        ...held,
        standing: held.standing - gone,
        lifted: held.lifted + s.lifted,
        out: held.out + s.culled,
      };
    }
    case 'write-off':
      if (s.count > held[s.from]) return null;
      return { ...held, [s.from]: held[s.from] - s.count, out: held.out + s.count };
  }
}

describe('whatever is recorded of a lot, in whatever order', () => {
  it('leaves it holding what a plain account of it would, and every seed somewhere', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 10 }), async (steps) => {
        const at = await yard.sow(
          `M-${++lots}`,
          { kind: 'bed', id: newId(), placeId: yard.bed.id, densityPerM2: 100, areaM2: 0.01 },
          0,
        );
        let held: Held = { sown: 100, standing: 0, lifted: 0, out: 0 };
        const done: { entry: string; before: Held }[] = [];
        for (const s of steps) {
          const id = newId();
          const entry = { id, on: '2026-11-20' };
          if (s.do === 'undo') {
            const last = done.pop();
            if (!last) continue;
            await yard.owner.ok('undoEntry', { params: { ...at, entry: last.entry }, body: entry });
            held = last.before;
          } else {
            const expected = after(held, s);
            const response =
              s.do === 'count'
                ? await yard.owner.send('countEmergence', {
                    params: at,
                    body: { ...entry, counted: s.counted, cause: 'died' },
                  })
                : s.do === 'lift'
                  ? await yard.owner.send('liftLot', {
                      params: at,
                      body: { ...entry, lifted: s.lifted, culled: s.culled },
                    })
                  : await yard.owner.send('writeOff', {
                      params: at,
                      body: { ...entry, from: s.from, cause: 'lost', count: s.count },
                    });
            expect(response.ok, JSON.stringify({ held, s })).toBe(expected !== null);
            if (expected) {
              done.push({ entry: id, before: held });
              held = expected;
            }
          }
          const { lot } = await yard.owner.ok('lot', { params: at });
          expect(lot.held).toEqual({ seed: 0, sent: 0, planted: 0, ...held });
          expect(held.sown + held.standing + held.lifted + held.out).toBe(100);
        }
      }),
      { numRuns: 15 },
    );
  });
});
