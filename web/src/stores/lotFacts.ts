import { factsFrom, type Lookup, type LotFacts } from '@kauri/core';
import type { Evidence, LotRow } from '@kauri/core/contract';

interface Read {
  row: LotRow;
  evidence: Evidence | undefined;
  facts: LotFacts | null;
  fault: string | null;
}

/**
 * Reads lots into facts, keeping those whose row and records are the same objects as before: one record costs one lot.
 * A lot that cannot be read says why, and the others are read.
 */
export function factsReader() {
  let known = new Map<string, Read>();
  let lookupBefore: Lookup | null = null;
  /** Lots last asked for together; one read ahead of them is not gone. */
  let listed: ReadonlyMap<string, LotRow> = new Map();

  function read(row: LotRow, records: Evidence | undefined, lookup: Lookup): Read {
    if (lookup !== lookupBefore) known = new Map();
    lookupBefore = lookup;
    const same = known.get(row.id);
    if (same?.row === row && same.evidence === records) return same;
    const now = readOne(row, records, lookup);
    known.set(row.id, now);
    return now;
  }

  return {
    /** Reads one lot ahead of the rest. */
    warm: (row: LotRow, records: Evidence, lookup: Lookup): void => void read(row, records, lookup),

    /** Every lot as read, and those that could not be, with why. */
    all(
      lots: ReadonlyMap<string, LotRow>,
      evidence: ReadonlyMap<string, Evidence>,
      lookup: Lookup,
    ): { facts: Map<string, LotFacts>; faults: Map<string, string> } {
      const facts = new Map<string, LotFacts>();
      const faults = new Map<string, string>();
      for (const [id, row] of lots) {
        const now = read(row, evidence.get(id), lookup);
        if (now.facts) facts.set(id, now.facts);
        if (now.fault !== null) faults.set(id, now.fault);
      }
      for (const id of listed.keys()) if (!lots.has(id)) known.delete(id);
      listed = lots;
      return { facts, faults };
    },
  };
}

function readOne(row: LotRow, evidence: Evidence | undefined, lookup: Lookup): Read {
  // Its records are still on their way: neither read nor at fault.
  if (!evidence) return { row, evidence, facts: null, fault: null };
  try {
    return { row, evidence, facts: factsFrom(row, evidence, lookup), fault: null };
  } catch (error) {
    return { row, evidence, facts: null, fault: error instanceof Error ? error.message : String(error) };
  }
}

/**
 * Whether two answers hold the same records of a lot. Records are added or struck and never rewritten, so that their ids
 * tell, one by one; the few stages, whose last day is written later, are compared whole.
 */
export function sameEvidence(a: Evidence, b: Evidence): boolean {
  return (Object.keys(b) as (keyof Evidence)[]).every((key) => {
    const [x, y] = [a[key], b[key]] as [unknown, unknown];
    if (!Array.isArray(x) || !Array.isArray(y)) return x === y;
    if (key === 'stages') return JSON.stringify(x) === JSON.stringify(y);
    return x.length === y.length && x.every((record, i) => idOf(record) === idOf(y[i]));
  });
}

const idOf = (record: { id?: string; entry?: string }) => `${record.entry ?? ''} ${record.id ?? ''}`;
