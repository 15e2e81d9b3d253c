import { noEvidence, type HeldWrite } from '@kauri/core';
import type { LotRow } from '@kauri/core/contract';
import { describe, expect, it } from 'vitest';
import { lotsAhead } from './lotsAhead';

const row = (id: string) =>
  ({
    id,
    code: id,
    held: { sown: 0, standing: 80, lifted: 0, out: 0 },
    stage: {},
    lastRecordOn: null,
  }) as unknown as LotRow;
const known = () => ({
  lots: new Map(['a', 'b'].map((id) => [id, row(id)])),
  evidence: new Map(['a', 'b'].map((id) => [id, noEvidence(id)])),
});
const lift = (lot: string, lifted: number): HeldWrite => ({
  route: 'liftLot',
  params: { nursery: 'n', lot },
  body: { id: `lift-${lot}-${lifted}`, on: '2026-11-24', lifted, culled: 0 },
});

describe('lots with what is not sent yet', () => {
  it('are the lots themselves where all is sent', () => {
    const now = known();
    expect(lotsAhead()(now, [])).toEqual(now);
    expect(lotsAhead()(now, []).lots).toBe(now.lots);
  });
  it('hold what was done, in order; what no longer fits is left out', () => {
    const { lots } = lotsAhead()(known(), [lift('a', 50), lift('a', 40), lift('a', 30), lift('gone', 1)]);
    expect(lots.get('a')!.held).toMatchObject({ standing: 0, lifted: 80 });
    expect(lots.get('b')!.held.standing).toBe(80);
  });
  it('stay the objects they were while nothing of them changes', () => {
    const read = lotsAhead();
    const now = known();
    const first = read(now, [lift('a', 50)]).lots.get('a');
    expect(read(now, [lift('a', 50)]).lots.get('a')).toBe(first);
    expect(read(now, [lift('a', 50), lift('b', 1)]).lots.get('a')).toBe(first);
    expect(read(now, [lift('a', 51)]).lots.get('a')).not.toBe(first);
  });
});
