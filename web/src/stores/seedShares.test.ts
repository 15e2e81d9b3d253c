import { speciesLibrary, type Movement } from '@kauri/core';
import type { Evidence, LotRow, SeedLot, Species } from '@kauri/core/contract';
import { describe, expect, it } from 'vitest';
import { seedShares } from './seedShares';

const species = { ...speciesLibrary[0], id: 'alder', version: 1 } as never as Species;
type Made = {
  origin?: string;
  treatmentId?: string | null;
  cutting?: string | null;
  moves: [string, string, number][];
};
/** A nursery of lots, each with what moved in its ledger. */
function nursery(made: Record<string, Made>, schools: Record<string, string> = {}) {
  const lots = new Map<string, LotRow>();
  const evidence = new Map<string, Evidence>();
  for (const [id, { origin = 'seed', treatmentId = null, cutting = null, moves }] of Object.entries(made)) {
    lots.set(id, { id, speciesId: 'alder', origin, treatmentId, cutting } as never as LotRow);
    const movements = moves.map(([from, to, count], i) => ({
      id: `${id}${i}`,
      entry: `${id}${i}`,
      on: '2026-05-01',
      from,
      to,
      count,
      note: '',
      reverses: null,
    })) as never as (Movement & { on: string })[];
    evidence.set(id, { lotId: id, movements } as never as Evidence);
  }
  return seedShares({
    lots: () => lots,
    evidence: () => evidence,
    schoolOf: (id) => schools[id] as never,
    speciesOf: () => species,
    outlookOf: () => undefined,
    testsOf: () => 0,
  });
}
/** Sown, so many up, the rest written off, so many of those up lost. */
const sown = (seeds: number, up: number, died = 0): Made['moves'] => [
  ['supply', 'seed', seeds],
  ['seed', 'sown', seeds],
  ['sown', 'standing', up],
  ['sown', 'out:not-emerged', seeds - up],
  ...(died ? ([['standing', 'out:died', died]] as Made['moves']) : []),
];

describe('the shares between a seed and a tree', () => {
  it('are the starting ones where no lot has said anything', () => {
    const { emergence, establishment, grade } = nursery({}).sharesOf('alder');
    for (const share of [emergence, establishment, grade]) expect(share).toMatchObject({ lots: 0 });
    const open = nursery({
      a: {
        moves: [
          ['supply', 'seed', 100],
          ['seed', 'sown', 100],
        ],
      },
    });
    expect(open.sharesOf('alder').emergence.lots).toBe(0);
  });
  it('lean on the nursery’s own lots, of the same species alone', () => {
    const few = nursery({ a: { moves: sown(1000, 200) }, b: { moves: sown(1000, 220) } });
    const many = nursery({ a: { moves: sown(1000, 800) }, b: { moves: sown(1000, 780) } });
    const mean = ({ sharesOf }: typeof few) => {
      const { alpha, beta } = sharesOf('alder').emergence.beta;
      return alpha / (alpha + beta);
    };
    expect(mean(few)).toBeLessThan(mean(many));
    expect(few.sharesOf('alder').emergence.lots).toBe(2);
    expect(few.sharesOf('oak').emergence.lots).toBe(0);
  });
  it('count what died in growing, and not what was pulled to be looked at', () => {
    const { outcomesOf } = nursery({
      a: { moves: [...sown(1000, 600, 60), ['standing', 'out:sampled', 20]] },
    });
    expect(outcomesOf('alder').establishment).toEqual([expect.objectContaining({ n: expect.any(Number) })]);
    const [{ k, n }] = outcomesOf('alder').establishment;
    expect(n - k).toBe(60);
  });
  it('ask lots treated alike, where they are asked of one treatment', () => {
    const { outcomesOf } = nursery(
      {
        a: { treatmentId: 'warm', moves: sown(500, 300) },
        b: { treatmentId: 'cold', moves: sown(500, 100) },
        c: { moves: sown(500, 200) },
      },
      { warm: 'gentle', cold: 'quick' },
    );
    expect(outcomesOf('alder').emergence).toHaveLength(3);
    // One whose treatment is not known speaks for either.
    expect(
      outcomesOf('alder', 'gentle' as never)
        .emergence.map(({ k }) => k)
        .sort(),
    ).toEqual([200, 300]);
  });
  it('keep strikes of cuttings apart by kind, and out of what seed does', () => {
    const { outcomesOf } = nursery({
      a: { origin: 'cuttings', cutting: 'hardwood', moves: sown(100, 80) },
      b: { origin: 'cuttings', cutting: 'softwood', moves: sown(100, 40) },
    });
    expect(outcomesOf('alder').strike).toHaveLength(2);
    expect(outcomesOf('alder', null, 'softwood' as never).strike).toEqual([{ k: 40, n: 100 }]);
    expect(outcomesOf('alder').emergence).toEqual([]);
  });
  it('begin with the species’ own viability where a bag says nothing', () => {
    const bag = { id: 'bag' } as never as SeedLot;
    const chain = nursery({}).chainOf('alder', bag, null);
    expect(chain.viability).toMatchObject({ lots: 0 });
    expect(Object.keys(chain).sort()).toEqual(['emergence', 'establishment', 'grade', 'viability']);
  });
});
