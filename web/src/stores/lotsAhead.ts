import { lotAhead, lotsOf, Unfit, type HeldWrite } from '@kauri/core';
import type { Evidence, LotRow } from '@kauri/core/contract';

interface Known {
  lots: ReadonlyMap<string, LotRow>;
  evidence: ReadonlyMap<string, Evidence>;
}
interface Ahead {
  row: LotRow;
  evidence: Evidence;
  /** The writes taken in, as text: read anew from the device, they are other objects. */
  writes: string;
  ahead: { row: LotRow; evidence: Evidence };
}

/**
 * Lots as they are once writes not sent yet are taken in. A lot whose row, records and writes are as before
 * stays the object it was, so that nothing is derived from it again; without writes the maps themselves are given back. A
 * write that no longer fits a lot is left out: the server will say so.
 */
export function lotsAhead() {
  let known = new Map<string, Ahead>();
  return ({ lots, evidence }: Known, writes: readonly HeldWrite[]): Known => {
    const ofLot = new Map<string, HeldWrite[]>();
    for (const write of writes)
      for (const id of lotsOf(write)) ofLot.set(id, [...(ofLot.get(id) ?? []), write]);
    if (!ofLot.size) {
      known = new Map();
      return { lots, evidence };
    }
    const now = new Map<string, Ahead>();
    for (const [id, mine] of ofLot) {
      const [row, records] = [lots.get(id), evidence.get(id)];
      if (!row || !records) continue;
      const same = known.get(id);
      const writes = JSON.stringify(mine);
      const isSame = same?.row === row && same.evidence === records && same.writes === writes;
      now.set(
        id,
        isSame ? same : { row, evidence: records, writes, ahead: take({ row, evidence: records }, mine) },
      );
    }
    known = now;
    return {
      lots: new Map([...lots].map(([id, row]) => [id, now.get(id)?.ahead.row ?? row])),
      evidence: new Map([...evidence].map(([id, records]) => [id, now.get(id)?.ahead.evidence ?? records])),
    };
  };
}

const take = (lot: Ahead['ahead'], writes: readonly HeldWrite[]): Ahead['ahead'] =>
  writes.reduce((before, write) => {
    try {
      return lotAhead(before, write);
    } catch (error) {
      if (error instanceof Unfit) return before;
      throw error;
    }
  }, lot);
