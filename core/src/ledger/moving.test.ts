import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { goneInMoving, movingToMovements } from './moving';

const roots = { looked: 40, circling: 9, teased: 6, shaved: 3, rejected: 2 };

describe('what goes while a lot is moved on', () => {
  it('leaves by its own cause, and rejected roots are culled', () => {
    expect(movingToMovements({ lost: 3, cause: 'died', roots })).toEqual([
      { from: 'standing', to: 'out:died', count: 3 },
      { from: 'standing', to: 'out:culled', count: 2 },
    ]);
    expect(movingToMovements({ lost: 0, cause: null, roots: null })).toEqual([]);
    expect(movingToMovements({ lost: 0, cause: null, roots: { ...roots, rejected: 0 } })).toEqual([]);
  });
  it('adds up to what is gone', () => {
    const count = fc.nat(1000);
    fc.assert(
      fc.property(count, fc.option(count), (lost, rejected) => {
        const moving = {
          lost,
          cause: 'died' as const,
          roots: rejected === null ? null : { ...roots, rejected },
        };
        const moves = movingToMovements(moving);
        expect(moves.reduce((sum, move) => sum + move.count, 0)).toBe(goneInMoving(moving));
        expect(moves.every((move) => move.count > 0)).toBe(true);
      }),
    );
  });
});
