import { say } from '@kauri/core';
import type { Content, TDocumentDefinitions } from '../../print/pdf';

interface Total {
  what: string;
  much: string;
}

/** A plan on paper: what to have on hand and other lists, and its steps with a box to tick. */
export function planSheet(
  title: string,
  heads: readonly string[],
  steps: readonly (readonly string[])[],
  lists: readonly { head: string; rows: readonly Total[] }[],
): TDocumentDefinitions {
  const head = (text: string): Content => ({ text, fontSize: 12, bold: true, margin: [0, 10, 0, 4] });
  const pairs = (list: readonly Total[]): Content => ({
    table: {
      widths: [190, '*'],
      body: list.map(({ what, much }) => [plain(what), plain(much)]),
      dontBreakRows: true,
    },
    layout: 'lightHorizontalLines',
  });
  // Each its own: the maker writes where it drew into it.
  const box = () => ({ canvas: [{ type: 'rect' as const, x: 0, y: 1, w: 9, h: 9, lineWidth: 0.8 }] });
  /** The type on paper has no narrow spaces. */
  const plain = (text: string) => text.replace(/[\u00a0\u202f]/g, ' ');
  return {
    pageSize: 'A4',
    pageOrientation: 'landscape',
    pageMargins: [36, 36, 36, 40],
    content: [
      { text: title, fontSize: 16, bold: true },
      ...lists.filter(({ rows }) => rows.length).flatMap((list) => [head(list.head), pairs(list.rows)]),
      head(say`Step by step`),
      {
        table: {
          headerRows: 1,
          dontBreakRows: true,
          widths: [14, 70, 140, 45, '*', 70, 110, 90],
          body: [
            ['', ...heads.map((text) => ({ text, bold: true }))],
            ...steps.map((cells) => [box(), ...cells.map(plain)]),
          ],
        },
        layout: 'lightHorizontalLines',
      },
    ],
    footer: (page: number, pages: number) => ({
      text: say`${page} of ${pages}`,
      alignment: 'right',
      margin: [0, 8, 36, 0],
      color: '#5a6055',
    }),
  };
}
