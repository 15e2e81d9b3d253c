import type { LotRow, Parcel, Sending, SeedLot } from '@kauri/core/contract';
import type { Content, TDocumentDefinitions } from '../../print/pdf';

/** A line of a delivery note, in words. */
export interface NoteLine {
  species: string;
  latin: string;
  form: string;
  grade: string;
  bundles: string;
  lot: string;
  origin: string;
  trees: string;
}

/** What a lot's origin is read from. */
export interface OriginBasis {
  lot: (id: string) => Pick<LotRow, 'seedLotId' | 'parentLotId' | 'code' | 'origin'> | undefined;
  seedLot: (id: string) => Pick<SeedLot, 'code' | 'provenance'> | undefined;
}

/** How far lots are followed back through pricking out. */
const GENERATIONS = 8;

/** What is said of a lot that no bag was written down for. */
const withoutBag: Record<LotRow['origin'], string> = {
  seed: 'not written down',
  cuttings: 'cuttings',
  pricked: 'not written down',
  layer: 'air layer',
  split: 'not written down',
  bought: 'from outside',
};

/**
 * Where a lot comes from: the bag it was sown from and where that seed grew, through the lots it was pricked out of; what it was
 * raised from where no bag was written down.
 */
export function originOf(lotId: string, { lot, seedLot }: OriginBasis): string {
  let row = lot(lotId);
  for (let i = 0; row && row.seedLotId === null && row.parentLotId !== null && i < GENERATIONS; i++)
    row = lot(row.parentLotId);
  if (!row) return 'not known';
  if (row.seedLotId === null) return withoutBag[row.origin];
  const bag = seedLot(row.seedLotId);
  if (!bag) return 'a bag no longer in store';
  const { place, zone } = bag.provenance;
  return [bag.code, place, zone].filter(Boolean).join(', ');
}

/** Parts of a sending as lines; a parcel that is no longer listed is left to its lot. */
export function noteLines(
  sending: Pick<Sending, 'parts'>,
  parcelOf: (id: string) => Parcel | undefined,
  line: (parcel: Parcel, trees: number) => NoteLine,
): NoteLine[] {
  return sending.parts.flatMap(({ parcelId, count }) => {
    const parcel = parcelOf(parcelId);
    return parcel ? [line(parcel, count)] : [];
  });
}

/** A delivery note on paper: from whom, to whom, what, of which lot and origin, and a place to sign. */
export function deliveryNote(
  { from, to, on, note, total }: { from: string; to: string; on: string; note: string; total: string },
  lines: readonly NoteLine[],
): TDocumentDefinitions {
  /** The type on paper has no narrow spaces. */
  const plain = (text: string) => text.replace(/[\u00a0\u202f]/g, ' ');
  const head = (text: string): Content => ({ text, bold: true });
  const signed = (text: string): Content => ({
    stack: [
      { canvas: [{ type: 'line', x1: 0, y1: 0, x2: 210, y2: 0, lineWidth: 0.8 }] },
      { text, color: '#5a6055', margin: [0, 3, 0, 0] },
    ],
  });
  return {
    pageSize: 'A4',
    pageMargins: [40, 40, 40, 44],
    content: [
      { text: 'Delivery note', fontSize: 18, bold: true },
      {
        columns: [
          { stack: [head('From'), plain(from)] },
          { stack: [head('To'), plain(to)] },
          { stack: [head('Day'), plain(on)], width: 110 },
        ],
        margin: [0, 10, 0, 12],
      },
      {
        table: {
          headerRows: 1,
          dontBreakRows: true,
          widths: ['*', 52, 60, 84, 60, 100, 40],
          body: [
            ['Trees', 'Form', 'Grade', 'Bundles', 'Lot', 'Seed and origin', 'Count'].map(head),
            ...lines.map((one) => [
              { stack: [one.species, { text: one.latin, fontSize: 8.5, color: '#5a6055' }] },
              one.form,
              plain(one.grade),
              plain(one.bundles),
              one.lot,
              plain(one.origin),
              { text: plain(one.trees), alignment: 'right' as const, bold: true },
            ]),
          ],
        },
        layout: 'lightHorizontalLines',
      },
      { text: plain(total), bold: true, fontSize: 12, alignment: 'right', margin: [0, 8, 0, 0] },
      ...(note ? [{ text: plain(note), margin: [0, 10, 0, 0] } as Content] : []),
      {
        text: 'Keep roots covered and wet, in the shade, until they are planted. Where the law asks for plant papers, they travel with this note.',
        margin: [0, 14, 0, 0],
        color: '#5a6055',
      },
      { columns: [signed('Handed over'), signed('Received')], columnGap: 40, margin: [0, 60, 0, 0] },
    ],
  };
}
