import { say } from '@kauri/core';
import { PT_PER_MM, type TDocumentDefinitions } from '../../../print/pdf';

export interface SpacingTemplate {
  title: string;
  rowMm: number;
  gapMm: number;
  depth: string;
}

/** A4 landscape less its margins, mm. */
const PAGE = { width: 297, height: 210, margin: 12 } as const;
const HEAD_MM = 16;

/** Marks of the template in mm from its upper left: rows across the sheet, a cross where each seed goes. */
export function templateMarks(rowMm: number, gapMm: number): { x: number; y: number }[] {
  const width = PAGE.width - 2 * PAGE.margin;
  const height = PAGE.height - 2 * PAGE.margin - HEAD_MM;
  const marks: { x: number; y: number }[] = [];
  for (let row = 0; row * rowMm <= height; row++) {
    // Every second row is set off by half a gap, so that the trees stand evenly.
    const offset = row % 2 ? gapMm / 2 : 0;
    for (let i = 0; offset + i * gapMm <= width; i++) marks.push({ x: offset + i * gapMm, y: row * rowMm });
  }
  return marks;
}

/** The template on paper at full size, with a bar to check the printer by. */
export function spacingTemplate({ title, rowMm, gapMm, depth }: SpacingTemplate): TDocumentDefinitions {
  const width = PAGE.width - 2 * PAGE.margin;
  const height = PAGE.height - 2 * PAGE.margin - HEAD_MM;
  const marks = templateMarks(rowMm, Math.max(3, gapMm));
  const crosses = marks
    .map(({ x, y }) => `M${(x - 1.5).toFixed(2)} ${y}h3M${x.toFixed(2)} ${(y - 1.5).toFixed(2)}v3`)
    .join('');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="-2 -2 ${width} ${height}"><path d="${crosses}" stroke="#1f261e" stroke-width="0.3" fill="none"/><path d="M${width - 104} ${height - 5}h100m0 -2v4m-100 -4v4" stroke="#1f261e" stroke-width="0.5" fill="none"/></svg>`;
  return {
    pageSize: 'A4',
    pageOrientation: 'landscape',
    pageMargins: PAGE.margin * PT_PER_MM,
    content: [
      { text: title.replace(/[\u00a0\u202f]/g, ' '), bold: true, fontSize: 12 },
      {
        text: say`${depth} Print at 100 %: the bar at the lower right is 100 mm.`.replace(
          /[\u00a0\u202f]/g,
          ' ',
        ),
        margin: [0, 2, 0, 6],
      },
      { svg, width: width * PT_PER_MM },
    ],
  };
}
