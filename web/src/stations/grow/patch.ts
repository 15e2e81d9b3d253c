import type { Patch } from '@kauri/core/contract';
import { typedNumber } from '../../parts/typed';

/** The part of a bed as it is typed: from, to along the bed, and how many rows. */
export interface TypedPatch {
  patchFrom: string;
  patchTo: string;
  rows: string;
}

/** The patch typed, in mm; null when it was left blank. NaN stands for what cannot be read, which is refused. */
export function patchOf(
  { patchFrom, patchTo, rows }: TypedPatch,
  typed: (value: number, quantity: 'timber') => number,
): Patch | null {
  if (patchTo.trim() === '') return null;
  const lastRow = rows.trim() === '' ? null : typedNumber(rows);
  return {
    fromMm: patchFrom.trim() === '' ? 0 : typed(typedNumber(patchFrom), 'timber'),
    toMm: typed(typedNumber(patchTo), 'timber'),
    firstRow: lastRow === null ? null : 1,
    lastRow,
  };
}
