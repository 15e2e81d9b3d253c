import { summarise } from '@kauri/core';
import { observation } from '../../db/schema/index';
import type { Work } from '../../http/context';

export interface Sizes {
  id: string;
  lotId: string;
  on: string;
  heightsCm: number[];
  diametersMm: number[];
  note: string;
}

/** Stores a sample with its single values and their summary. */
export async function storeSizes(
  work: Work,
  { id, lotId, on, heightsCm, diametersMm, note }: Sizes,
): Promise<void> {
  const h = heightsCm.length ? summarise(heightsCm) : null;
  const d = diametersMm.length ? summarise(diametersMm) : null;
  await work.tx.insert(observation).values({
    nurseryId: work.nurseryId,
    id,
    lotId,
    kind: 'size',
    onDate: on,
    values: { kind: 'size', heightsCm, diametersMm },
    heightN: h?.n,
    heightMean: h?.mean,
    heightSd: h?.sd,
    diameterN: d?.n,
    diameterMean: d?.mean,
    diameterSd: d?.sd,
    note,
  });
}
