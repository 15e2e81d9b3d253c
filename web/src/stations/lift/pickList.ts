import { say } from '@kauri/core';
import { plain, type Content, type TDocumentDefinitions } from '../../print/pdf';

/** A line of a pick list, in words. */
interface PickLine {
  trees: string;
  bundles: string;
  what: string;
  lot: string;
  whom: string;
}
export interface PickStop {
  place: string;
  trees: string;
  lines: readonly PickLine[];
}

/** A pick list on paper: place after place as they are walked, with a box to tick for each. */
export function pickList(
  { nursery, on, total }: { nursery: string; on: string; total: string },
  stops: readonly PickStop[],
): TDocumentDefinitions {
  const box: Content = { canvas: [{ type: 'rect', x: 0, y: 1, w: 12, h: 12, lineWidth: 1 }] };
  return {
    pageSize: 'A4',
    pageMargins: [36, 36, 36, 40],
    defaultStyle: { font: 'Atkinson', fontSize: 11.5, color: '#1f261e' },
    content: [
      { text: plain(say`To load, ${on}`), fontSize: 18, bold: true },
      { text: plain(`${nursery}: ${total}`), margin: [0, 2, 0, 8] },
      ...stops.flatMap(({ place, trees, lines }, i): Content[] => [
        {
          text: plain(`${i + 1}. ${place}: ${trees}`),
          fontSize: 13,
          bold: true,
          margin: [0, 10, 0, 4],
          headlineLevel: 1,
        },
        {
          table: {
            dontBreakRows: true,
            widths: [16, 44, '*', 86, 100],
            body: lines.map((line) => [
              box,
              { text: plain(line.trees), bold: true, fontSize: 14, alignment: 'right' as const },
              { stack: [plain(line.what), { text: plain(line.bundles), fontSize: 10, color: '#5a6055' }] },
              plain(line.lot),
              plain(line.whom),
            ]),
          },
          layout: 'lightHorizontalLines',
        },
      ]),
      {
        text: say`Cells are packed tight just before they travel. Roots stay covered and wet. Lift with your legs, two to a heavy load.`,
        margin: [0, 16, 0, 0],
        color: '#5a6055',
      },
    ],
  };
}
