import { describe, expect, it } from 'vitest';
import type { LotRow } from '../contract';
import { noEvidence } from '../reading/noEvidence';
import { entriesOf, lotsOf, lotsOfAny, type HeldWrite } from './heldWrite';
import { lotAhead, type LotKnown } from './lotAhead';

const id = (n: number) => `01900000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const [nursery, lotId, other, bench] = [id(1), id(2), id(3), id(4)];
const stage = {
  id: id(5),
  placeId: bench,
  containerTypeId: id(6),
  trays: 2,
  densityPerM2: null,
  areaM2: null,
  startedOn: '2026-04-01',
  endedOn: null,
};
const lot: LotKnown = {
  row: {
    id: lotId,
    code: 'ALN-1',
    stage,
    held: { seed: 0, sown: 20, standing: 80, lifted: 0, sent: 0, planted: 0, out: 0 },
    lastRecordOn: null,
  } as unknown as LotRow,
  evidence: { ...noEvidence(lotId), stages: [stage] },
};
const count = (counted: number, at = lotId): HeldWrite => ({
  route: 'countEmergence',
  params: { nursery, lot: at },
  body: { id: id(10), on: '2026-06-01', counted, cause: 'rot' },
});

describe('a lot ahead of the server', () => {
  it('is left as it was by a write that is not about it, and by one that it holds already', () => {
    expect(lotAhead(lot, count(60, other))).toBe(lot);
    const counted = lotAhead(lot, count(60));
    expect(counted.row.held).toMatchObject({ standing: 60, out: 20 });
    expect(lotAhead(counted, count(60))).toBe(counted);
    expect(lot.row.held.standing).toBe(80);
  });

  it('never holds fewer than none: what cannot be says so in a sentence', () => {
    const lift = (lifted: number, culled: number): HeldWrite => ({
      route: 'liftLot',
      params: { nursery, lot: lotId },
      body: { id: id(11), on: '2026-11-01', lifted, culled },
    });
    expect(lotAhead(lot, lift(70, 10)).row.held).toMatchObject({ standing: 0, lifted: 70, out: 10 });
    expect(() => lotAhead(lot, lift(71, 10))).toThrow('71 trees to go, but 70 of ALN-1 are there.');
    expect(() => lotAhead(lot, count(101))).toThrow(/only 100 seeds/);
  });

  it('that was moved while no network was there stands in its new place, and is moved back by an undo', () => {
    const carry: HeldWrite = {
      route: 'carryLots',
      params: { nursery },
      body: { id: id(12), on: '2026-06-02', placeId: id(7), lots: [{ id: id(13), lotId, stageId: id(14) }] },
    };
    const carried = lotAhead(lot, carry);
    expect(carried.row.stage).toMatchObject({
      id: id(14),
      placeId: id(7),
      trays: 2,
      startedOn: '2026-06-02',
    });
    expect(carried.evidence.stages).toMatchObject([{ endedOn: '2026-06-02' }, { endedOn: null }]);
    // Carried already, though it was put into a bed since: there is nothing to say.
    const inBed = {
      ...carried,
      row: { ...carried.row, stage: { ...stage, containerTypeId: null, trays: null } },
    };
    expect(lotAhead(inBed, carry)).toBe(inBed);
    const back = lotAhead(carried, {
      route: 'undoTogether',
      params: { nursery },
      body: { id: id(15), on: '2026-06-03', entries: [{ lot: lotId, entry: id(13) }] },
    });
    expect(back).toEqual(lot);
  });

  it('is found by the write: whose records it makes, and which lots it is about', () => {
    expect(entriesOf(count(60))).toEqual([{ lotId, entry: id(10) }]);
    const undo: HeldWrite = {
      route: 'undoEntry',
      params: { nursery, lot: lotId, entry: id(10) },
      body: { id: id(16), on: '2026-06-03' },
    };
    expect(entriesOf(undo)).toEqual([]);
    expect(lotsOf(undo)).toEqual([lotId]);
    // Lots that came of it go too, which only the server knows: others ask about all.
    expect(lotsOfAny(undo.route, undo.params, undo.body)).toBeNull();
  });
});
