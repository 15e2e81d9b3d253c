import { say } from '@kauri/core';
import type { Content, TDocumentDefinitions } from '../../../print/pdf';

/** A note on paper for what goes back to a supplier: what came, what was looked at, which faults, how many were taken. */
export function returnNote(of: {
  from: string;
  to: string;
  on: string;
  what: string;
  papers: string;
  came: string;
  looked: string;
  faults: [string, string][];
  taken: string;
  back: string;
  note: string;
}): TDocumentDefinitions {
  /** The type on paper has no narrow spaces. */
  const plain = (text: string) => text.replace(/[\u00a0\u202f]/g, ' ');
  const row = (name: string, value: string): Content[] => [name, { text: plain(value), bold: true }];
  return {
    pageSize: 'A4',
    pageMargins: [40, 40, 40, 44],
    content: [
      { text: say`Plants that go back`, fontSize: 18, bold: true, margin: [0, 0, 0, 10] },
      {
        table: {
          widths: [150, '*'],
          body: [
            row(say`From`, of.from),
            row(say`To`, of.to),
            row(say`Came on`, of.on),
            row(say`Plants`, of.what),
            ...(of.papers ? [row(say`Papers`, of.papers)] : []),
            row(say`Came`, of.came),
            row(say`Looked at`, of.looked),
            ...of.faults.map(([fault, n]) => row(`  ${fault}`, n)),
            row(say`Taken`, of.taken),
            row(say`Go back`, of.back),
          ],
        },
        layout: 'lightHorizontalLines',
      },
      ...(of.note ? [{ text: plain(of.note), margin: [0, 10, 0, 0] } as Content] : []),
    ],
  };
}
