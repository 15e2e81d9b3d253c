import { describe, expect, it } from 'vitest';
import { mustAddUp, supplierRecords } from './arrival';

describe('plants from outside', () => {
  it('add up, or a sentence says which count does not', () => {
    const counts = { count: 100, accepted: 90, looked: 12, failing: 2 };
    expect(() => mustAddUp(counts)).not.toThrow();
    expect(() => mustAddUp({ ...counts, accepted: 99 })).toThrow(/2 were found with faults/);
    expect(() => mustAddUp({ ...counts, looked: 120 })).toThrow(/only 100 came/);
    expect(() => mustAddUp({ ...counts, failing: 13 })).toThrow(/only 12 looked at/);
  });
  it('are compared by supplier: what was taken, and what of that lived once planted', () => {
    const arrivals = [
      { supplier: 'Fell', count: 200, accepted: 190, lotId: 'a' },
      { supplier: 'Fell', count: 100, accepted: 96, lotId: 'b' },
      { supplier: 'Gill', count: 150, accepted: 90, lotId: 'c' },
      { supplier: 'Gill', count: 50, accepted: 0, lotId: null },
    ];
    const lived = [
      { lotId: 'a', alive: 40, dead: 4 },
      { lotId: 'c', alive: 20, dead: 20 },
      { lotId: 'own', alive: 9, dead: 1 },
    ];
    const [best, other] = supplierRecords(arrivals, lived);
    expect([best.supplier, other.supplier]).toEqual(['Fell', 'Gill']);
    expect(best).toMatchObject({ arrivals: 2, lived: { alive: 40, dead: 4 } });
    expect(other.taken).toMatchObject({ alive: 90, dead: 110 });
    expect(best.lived!.mean).toBeGreaterThan(other.lived!.mean);
    expect(supplierRecords([], [])).toEqual([]);
  });
});
