import { say, inWords } from '@kauri/core';
import type { Arrival, LotRow, SeedLot } from '@kauri/core/contract';

/** What a lot's origin is read from. */
export interface OriginBasis {
  lot: (id: string) => Pick<LotRow, 'id' | 'seedLotId' | 'parentLotId' | 'code' | 'origin'> | undefined;
  seedLot: (id: string) => Pick<SeedLot, 'code' | 'provenance'> | undefined;
  /** What came from outside and became a lot. */
  arrival: (lotId: string) => Pick<Arrival, 'supplier' | 'provenance' | 'papers'> | undefined;
}

/** How far lots are followed back through pricking out. */
const GENERATIONS = 8;

/** What is said of a lot that no bag was written down for. */
const withoutBag: Record<LotRow['origin'], string> = inWords({
  seed: 'not written down',
  cuttings: 'cuttings',
  pricked: 'not written down',
  layer: 'air layer',
  split: 'not written down',
  bought: 'from outside',
});

/**
 * Where a lot comes from: the bag it was sown from and where that seed grew, or whom it was bought from with its papers, through
 * the lots it was pricked out of or set apart from; what it was raised from where nothing was written down.
 */
export function originOf(lotId: string, { lot, seedLot, arrival }: OriginBasis): string {
  let row = lot(lotId);
  for (let i = 0; row && row.seedLotId === null && row.parentLotId !== null && i < GENERATIONS; i++)
    row = lot(row.parentLotId);
  if (!row) return say`not known`;
  const came = arrival(row.id);
  if (came)
    return [came.supplier, came.provenance, came.papers && say`papers ${came.papers}`]
      .filter(Boolean)
      .join(', ');
  if (row.seedLotId === null) return withoutBag[row.origin];
  const bag = seedLot(row.seedLotId);
  if (!bag) return say`a bag no longer in store`;
  const { place, zone } = bag.provenance;
  return [bag.code, place, zone].filter(Boolean).join(', ');
}
