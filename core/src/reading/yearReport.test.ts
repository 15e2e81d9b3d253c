import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { origins, type Year } from '../contract';
import { accounts, causeTerms, type OutCause } from '../ledger/ledger';
import { recompute } from '../working/working';
import { lostGrowing, paidForLiving, yearBySpecies, yearSums, yearWorth } from './yearReport';

type Flow = Year['flows'][number];
const flow = (from: string, to: string, count: number, more: Partial<Flow> = {}): Flow => ({
  speciesId: 'alder',
  origin: 'seed',
  from,
  to,
  count,
  ...more,
});

describe('a year by the ledger', () => {
  const year: Year = {
    opening: [
      { speciesId: 'alder', account: 'standing', count: 100 },
      { speciesId: 'alder', account: 'lifted', count: 20 },
      { speciesId: 'alder', account: 'sent', count: 900 },
      // All sent in years before: nothing of them belongs to this one.
      { speciesId: 'willow', account: 'sent', count: 300 },
    ],
    flows: [
      flow('seed', 'sown', 500),
      flow('sown', 'standing', 300),
      flow('sown', 'out:not-emerged', 150),
      flow('standing', 'out:frost', 30),
      flow('standing', 'out:culled', 25),
      flow('standing', 'out:pricked-out', 60),
      // Pricked out into cells: a lot of its own, sown and up on one day. And bought in.
      flow('seed', 'sown', 60, { origin: 'pricked' }),
      flow('sown', 'standing', 58, { origin: 'pricked' }),
      flow('sown', 'standing', 40, { origin: 'bought' }),
      flow('standing', 'lifted', 120),
      flow('lifted', 'sent', 70),
      flow('lifted', 'planted', 40),
      flow('lifted', 'out:rot', 5),
      flow('lifted', 'out:split', 10),
      flow('supply', 'seed', 800),
      flow('standing', 'lifted', 4, { speciesId: 'oak' }),
    ],
    culls: [
      { speciesId: 'alder', why: 'roots', count: 6 },
      { speciesId: 'alder', why: 'small', count: 11 },
      { speciesId: 'oak', why: 'sick', count: 2 },
    ],
  };
  it('tells what was sown, came up, was lifted, left, and is there', () => {
    const [{ speciesId, sums }, oak, ...others] = yearBySpecies(year);
    expect(others).toEqual([]);
    expect(speciesId).toBe('alder');
    expect(sums).toMatchObject({
      sown: 500,
      up: 300,
      neverUp: 150,
      came: 40,
      apart: 70,
      fromApart: 58,
      lifted: 120,
      heldOver: 10,
      sent: 70,
      planted: 40,
      standing: 100 + 300 + 58 + 40 - 30 - 25 - 60 - 120,
      lying: 20 + 120 - 70 - 40 - 5 - 10,
    });
    expect(sums.gone).toEqual([
      { cause: 'frost', count: 30 },
      { cause: 'culled', count: 25 },
      { cause: 'rot', count: 5 },
    ]);
    expect(sums.culledFor).toEqual([
      { why: 'small', count: 11 },
      { why: 'roots', count: 6 },
    ]);
    expect(lostGrowing(sums)).toBe(35);
    const worth = yearWorth(sums, { priced: 50, fetched: 40 })!;
    expect(worth.value).toEqual({
      price: 0.8,
      lost: { trees: 35, worth: 28 },
      culled: { trees: 25, worth: 20 },
    });
    for (const { expression, result } of worth.working)
      expect(recompute(expression!)).toBeCloseTo(result as number, 6);
    expect(yearWorth(sums, { priced: 0, fetched: 0 })).toBeNull();
    expect(paidForLiving(0.4, { lower: 0.5, upper: 0.8 })).toEqual({ from: 0.5, to: 0.8 });
    expect(oak.sums.lifted).toBe(4);
  });
  it('adds up, whatever moved', () => {
    const account = fc.constantFrom(...accounts);
    const flows = fc.array(
      fc
        .tuple(account, account, fc.integer({ min: 1, max: 500 }), fc.constantFrom(...origins))
        .filter(([from, to]) => from !== to && !from.startsWith('out:') && from !== 'planted')
        // What was sent comes back to lie here, or dead.
        .filter(([from, to]) => from !== 'sent' || to === 'lifted' || to.startsWith('out:'))
        .filter(([from, to]) => !(from === 'lifted' && to === 'standing'))
        .map(([from, to, count, origin]) => flow(from, to, count, { origin })),
      { maxLength: 30 },
    );
    fc.assert(
      fc.property(flows, (all) => {
        // What the ledger itself writes: trees are sent, planted and lifted as they do, and nothing comes back into the ground.
        const kept = all.filter(
          ({ from, to }) =>
            !(to === 'sown' && from === 'standing') &&
            !(['sent', 'planted'].includes(to) && from !== 'lifted') &&
            !(to === 'lifted' && from !== 'standing' && from !== 'sent') &&
            !(from === 'standing' && ['seed', 'supply'].includes(to)) &&
            !(from === 'lifted' && ['seed', 'supply', 'sown'].includes(to)),
        );
        const sums = yearSums({ opening: [], flows: kept, culls: [] });
        const gone = sums.gone.reduce((total, { count }) => total + count, 0);
        const { living, dead } = sums.cameBack;
        expect(sums.standing + sums.lying).toBe(
          sums.up + sums.came + sums.fromApart + living - sums.apart - gone - sums.sent - sums.planted,
        );
        expect(living + dead).toBe(
          kept.reduce((total, { from, count }) => total + (from === 'sent' ? count : 0), 0),
        );
      }),
    );
  });
  it('tells what came back of a year before, and takes it from nothing sent in this one', () => {
    const sums = yearSums({
      opening: [{ speciesId: 'alder', account: 'sent', count: 90 }],
      flows: [flow('sent', 'lifted', 12), flow('sent', 'out:rot', 3)],
      culls: [],
    });
    expect(sums).toMatchObject({ sent: 0, cameBack: { living: 12, dead: 3 }, lying: 12, gone: [] });
  });
  it('counts every cause once, in one of its kinds', () => {
    for (const cause of Object.keys(causeTerms) as OutCause[]) {
      const sums = yearSums({ opening: [], flows: [flow('standing', `out:${cause}`, 7)], culls: [] });
      expect(sums.apart + sums.gone.reduce((total, { count }) => total + count, 0)).toBe(7);
    }
  });
});
