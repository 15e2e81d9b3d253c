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

/** Stores samples, each with its single values and their summary: one query however many. */
export async function storeSizes(work: Work, samples: readonly Sizes[]): Promise<void> {
  await work.tx.insert(observation).values(
    samples.map(({ id, lotId, on, heightsCm, diametersMm, note }) => {
      const h = heightsCm.length ? summarise(heightsCm) : null;
      const d = diametersMm.length ? summarise(diametersMm) : null;
      return {
        nurseryId: work.nurseryId,
        id,
        lotId,
        kind: 'size' as const,
        onDate: on,
        values: { kind: 'size' as const, heightsCm, diametersMm },
        heightN: h?.n,
        heightMean: h?.mean,
        heightSd: h?.sd,
        diameterN: d?.n,
        diameterMean: d?.mean,
        diameterSd: d?.sd,
        note,
      };
    }),
  );
}
