import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { accounts, balancesAt, countToMovements, outCauses, tallyAt, type Movement } from './ledger';

const movement: fc.Arbitrary<Movement> = fc.record({
  day: fc.integer({ min: 0, max: 500 }),
  from: fc.constantFrom(...accounts),
  to: fc.constantFrom(...accounts),
  count: fc.integer({ min: 1, max: 1000 }),
});

describe('the ledger', () => {
  it('conserves: whatever is moved, all accounts together hold nothing more or less', () => {
    fc.assert(
      fc.property(
        fc.array(movement, { maxLength: 40 }),
        fc.integer({ min: 0, max: 500 }),
        (movements, day) => {
          const total = [...balancesAt(movements, day).values()].reduce((a, b) => a + b, 0);
          expect(total).toBe(0);
          expect(tallyAt(movements, day).balances).toBe(true);
        },
      ),
    );
  });
  it('comes back to what it was when movements are reversed', () => {
    fc.assert(
      fc.property(fc.array(movement, { maxLength: 20 }), (movements) => {
        const back = movements.map((m) => ({ ...m, from: m.to, to: m.from }));
        for (const held of balancesAt([...movements, ...back]).values()) expect(held).toBe(0);
      }),
    );
  });
  it('tells what stood on any day', () => {
    const movements: Movement[] = [
      { day: 1, from: 'supply', to: 'seed', count: 100 },
      { day: 1, from: 'seed', to: 'sown', count: 100 },
      { day: 30, from: 'sown', to: 'standing', count: 70 },
      { day: 60, from: 'standing', to: 'out:drought', count: 5 },
      { day: 200, from: 'standing', to: 'lifted', count: 60 },
    ];
    expect(tallyAt(movements, 0)).toMatchObject({ seeds: 0, sown: 0 });
    expect(tallyAt(movements, 29)).toMatchObject({ seeds: 100, sown: 100, standing: 0 });
    expect(tallyAt(movements, 60)).toMatchObject({ sown: 30, standing: 65, out: 5 });
    expect(tallyAt(movements)).toMatchObject({ sown: 30, standing: 5, lifted: 60, out: 5, balances: true });
  });
});

describe('a count', () => {
  const whole = fc.integer({ min: 0, max: 5000 });
  it('leaves as many standing as were counted, whatever stood before', () => {
    fc.assert(
      fc.property(whole, whole, whole, fc.constantFrom(...outCauses), (counted, standing, sown, cause) => {
        fc.pre(counted <= standing + sown);
        let now = standing;
        for (const m of countToMovements(counted, standing, sown, cause)) {
          expect(m.count).toBeGreaterThan(0);
          now += m.to === 'standing' ? m.count : -m.count;
        }
        expect(now).toBe(counted);
      }),
    );
  });
  it('of more than were sown is refused, and a fall needs a cause', () => {
    expect(() => countToMovements(11, 5, 5, null)).toThrow(/only 10 seeds/);
    expect(() => countToMovements(4, 5, 5, null)).toThrow(/what became of them/);
  });
});
