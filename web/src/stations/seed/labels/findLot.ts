import { say } from '@kauri/core';
import type { LotRow } from '@kauri/core/contract';

/** What is known of a row whose label is lost. Blanks are not held against a lot. */
export interface LostRow {
  placeId: string;
  /** Sown in about that month, `YYYY-MM`. */
  month: string;
  leaf: string;
}

export interface Candidate {
  lot: LotRow;
  /** 0 … 1; how well it fits what is known. */
  fit: number;
  reasons: string[];
}

const DAY = 86_400_000;

/** Lots that might be the row, best first. */
export function findLot(lost: LostRow, lots: Iterable<LotRow>, leafOf: (lot: LotRow) => string): Candidate[] {
  const words = lost.leaf
    .toLowerCase()
    .split(/[\s,]+/)
    .filter((w) => w.length > 2);
  const candidates: Candidate[] = [];
  for (const lot of lots) {
    if (lot.held.sown + lot.held.standing === 0) continue;
    let asked = 0;
    let met = 0;
    const reasons: string[] = [];
    if (lost.placeId) {
      asked += 3;
      if (lot.stage.placeId === lost.placeId) {
        met += 3;
        reasons.push(say`stands there`);
      }
    }
    if (/^\d{4}-\d\d$/.test(lost.month)) {
      asked += 2;
      const apart = Math.abs(Date.parse(lot.sownOn) - Date.parse(`${lost.month}-15`)) / DAY;
      const near = Math.max(0, 1 - apart / 120);
      met += 2 * near;
      if (near > 0.6) reasons.push(say`sown about then`);
    }
    if (words.length) {
      asked += 3;
      const leaf = leafOf(lot).toLowerCase();
      const hits = words.filter((word) => leaf.includes(word));
      met += (3 * hits.length) / words.length;
      if (hits.length) reasons.push(hits.join(', '));
    }
    if (asked > 0 && met / asked >= 0.3) candidates.push({ lot, fit: met / asked, reasons });
  }
  return candidates.sort((a, b) => b.fit - a.fit || a.lot.code.localeCompare(b.lot.code)).slice(0, 8);
}
