import { isoOf, type BoardSpan, type EpochDay, say } from '@kauri/core';
import { csvOf } from '../../tables/csv';
import { plain, type Content, type TDocumentDefinitions } from '../../print/pdf';
import { monthName } from '../../words/dates';
import type { BoardPlace } from './useBoard';

/** What a board says besides its figures: names of lots and sowings, days in words. */
interface BoardWords {
  title: string;
  nameOf: (id: string) => string;
  speciesName: (id: string) => string;
}

/** The board as a table: a line for every stretch of days in which a place holds the same. */
export const boardTable = (rows: readonly BoardPlace[], { nameOf }: Pick<BoardWords, 'nameOf'>): string =>
  csvOf(
    rows.flatMap(({ place, all }) =>
      all
        .filter(({ stays }) => stays.length > 0)
        .map(({ from, until, share, stays }) => ({
          place: place.place.name,
          kind: place.place.kind,
          from: isoOf(from),
          until: isoOf(until - 1),
          filled_percent: Number.isFinite(share) ? Math.round(100 * share) : say`does not fit`,
          stands: stays
            .filter(({ isPlanned }) => !isPlanned)
            .map(({ id }) => nameOf(id))
            .join('; '),
          planned: stays
            .filter(({ isPlanned }) => isPlanned)
            .map(({ id }) => nameOf(id))
            .join('; '),
        })),
    ),
  );

/** A3 across, in points, and what a sheet holds. */
const SHEET = { width: 1190.55, height: 841.89, margin: 34 };
const NAME_PT = 110;
const ROW_PT = 22;
const HEAD_PT = 16;
const ROWS_A_SHEET = Math.floor((SHEET.height - 2 * SHEET.margin - 60) / ROW_PT);

const escape = (text: string) => plain(text).replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);

/** The board on A3 paper: places down, weeks across, as many sheets as it takes. What is over-full is crossed. */
export function boardSheets(
  rows: readonly BoardPlace[],
  firsts: readonly EpochDay[],
  [from, until]: readonly [EpochDay, EpochDay],
  { title, speciesName }: Omit<BoardWords, 'nameOf'>,
): TDocumentDefinitions {
  const width = SHEET.width - 2 * SHEET.margin;
  const x = (day: EpochDay) =>
    NAME_PT + ((Math.min(until, Math.max(from, day)) - from) / (until - from)) * (width - NAME_PT);
  const bar = ({ from: begins, until: ends, share }: BoardSpan, top: number, style: string) => {
    const height = (ROW_PT - 4) * Math.min(1, share);
    const left = x(begins);
    return share > 0
      ? `<rect x="${left.toFixed(1)}" y="${(top + ROW_PT - 2 - height).toFixed(1)}" width="${(x(ends) - left).toFixed(1)}" height="${height.toFixed(1)}" ${style}/>`
      : '';
  };
  const text = (words: string, left: number, base: number, size: number) =>
    `<text x="${left.toFixed(1)}" y="${base.toFixed(1)}" font-size="${size}" fill="#1f261e">${escape(words)}</text>`;
  const row = ({ place, standing, all, over, planned }: BoardPlace, at: number) => {
    const top = HEAD_PT + at * ROW_PT;
    return [
      `<path d="M0 ${top}H${width}" stroke="#d9d0bd" stroke-width="0.5"/>`,
      text(place.place.name, 0, top + 14, 9),
      ...all.map((span) => bar(span, top, 'fill="#dce7cf" stroke="#3d6b3b" stroke-width="0.6"')),
      ...standing.map((span) => bar(span, top, 'fill="#8fb07c"')),
      ...over.map((span) => {
        const [left, right] = [x(span.from), x(span.until)];
        return `<path d="M${left.toFixed(1)} ${top + 2}L${right.toFixed(1)} ${top + ROW_PT - 2}M${left.toFixed(1)} ${top + ROW_PT - 2}L${right.toFixed(1)} ${top + 2}" stroke="#9b2c1f" stroke-width="1.2"/>`;
      }),
      ...planned.map(({ stay, sowing }, i) =>
        text(speciesName(sowing.speciesId), x(stay.from) + 2, top + 8 + (i % 2) * 9, 6.5),
      ),
    ].join('');
  };
  const heads = firsts
    .map((first) => {
      const month = Number(isoOf(first).slice(5, 7));
      const words = month === 1 ? isoOf(first).slice(0, 4) : monthName(month - 1);
      return `<path d="M${x(first).toFixed(1)} 0V${HEAD_PT + ROWS_A_SHEET * ROW_PT}" stroke="#d9d0bd" stroke-width="0.4"/>${text(words, x(first) + 2, 11, 8)}`;
    })
    .join('');
  const sheets = Array.from({ length: Math.ceil(rows.length / ROWS_A_SHEET) }, (_, i) =>
    rows.slice(i * ROWS_A_SHEET, (i + 1) * ROWS_A_SHEET),
  );
  return {
    pageSize: 'A3',
    pageOrientation: 'landscape',
    pageMargins: SHEET.margin,
    content: sheets.map((some, i): Content => {
      const height = HEAD_PT + some.length * ROW_PT;
      return {
        stack: [
          { text: plain(title), fontSize: 13, bold: true, margin: [0, 0, 0, 2] },
          {
            text: say`Dark: stands. Pale, named: planned. Crossed: more than the place has.`,
            fontSize: 8,
            margin: [0, 0, 0, 4],
          },
          {
            svg: `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}">${heads}${some.map(row).join('')}</svg>`,
            width,
          },
        ],
        ...(i < sheets.length - 1 && { pageBreak: 'after' as const }),
      };
    }),
  };
}
