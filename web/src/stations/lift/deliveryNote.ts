import { say } from '@kauri/core';
import type { Parcel, Papers, Sending } from '@kauri/core/contract';
import { plain, type Content, type TDocumentDefinitions } from '../../print/pdf';

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

/** Parts of a sending as lines; a parcel that is no longer listed is left to its lot. */
export function noteLines<L extends NoteLine>(
  sending: Pick<Sending, 'parts'>,
  parcelOf: (id: string) => Parcel | undefined,
  line: (parcel: Parcel, trees: number) => L,
): L[] {
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
      { text: say`Delivery note`, fontSize: 18, bold: true },
      {
        columns: [
          { stack: [head(say`From`), plain(from)] },
          { stack: [head(say`To`), plain(to)] },
          { stack: [head(say`Day`), plain(on)], width: 110 },
        ],
        margin: [0, 10, 0, 12],
      },
      {
        table: {
          headerRows: 1,
          dontBreakRows: true,
          widths: ['*', 52, 60, 84, 60, 100, 40],
          body: [
            [say`Trees`, say`Form`, say`Grade`, say`Bundles`, say`Lot`, say`Seed and origin`, say`Count`].map(
              head,
            ),
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
        text: say`Keep roots covered and wet, in the shade, until they are planted. Where the law asks for plant papers, they travel with this note.`,
        margin: [0, 14, 0, 0],
        color: '#5a6055',
      },
      { columns: [signed(say`Handed over`), signed(say`Received`)], columnGap: 40, margin: [0, 60, 0, 0] },
    ],
  };
}

/** A line of a plant movement record, in words. */
export interface MovementLine extends NoteLine {
  lifted: string;
}

/**
 * A plant movement record on paper: what local rules ask to be kept of plants that change hands, with the nursery's own names and
 * numbers. Which fields are asked for, and for how long it is kept, the local plant-health service says.
 */
export function movementRecord(
  {
    from,
    to,
    on,
    id,
    fields,
  }: { from: string; to: string; on: string; id: string; fields: Papers['fields'] },
  lines: readonly MovementLine[],
): TDocumentDefinitions {
  const head = (text: string): Content => ({ text, bold: true });
  const row = (name: string, value: string) => [head(name), plain(value) || ' '];
  return {
    pageSize: 'A4',
    pageMargins: [40, 40, 40, 44],
    content: [
      { text: say`Plant movement record`, fontSize: 18, bold: true },
      {
        table: {
          widths: [150, '*'],
          body: [
            row(say`From`, from),
            row(say`To`, to),
            row(say`Day`, on),
            row(say`Record`, id),
            ...fields.map(({ name, value }) => row(name, value)),
          ],
        },
        layout: 'lightHorizontalLines',
        margin: [0, 10, 0, 12],
      },
      {
        table: {
          headerRows: 1,
          dontBreakRows: true,
          widths: ['*', 50, 76, 70, 118, 44],
          body: [
            [say`Botanical name`, say`Form`, say`Lot`, say`Lifted`, say`Traced back to`, say`Count`].map(
              head,
            ),
            ...lines.map((one) => [
              { stack: [one.latin, { text: one.species, fontSize: 8.5, color: '#5a6055' }] },
              one.form,
              one.lot,
              plain(one.lifted),
              plain(one.origin),
              { text: plain(one.trees), alignment: 'right' as const, bold: true },
            ]),
          ],
        },
        layout: 'lightHorizontalLines',
      },
      {
        text: say`Keep this record for as long as your plant-health service asks.`,
        margin: [0, 14, 0, 0],
        color: '#5a6055',
      },
    ],
  };
}
