import { inWords } from '@kauri/core';
import { PT_PER_MM, type Content, type TDocumentDefinitions } from './pdf';

/** What a label says. */
export interface Label {
  code: string;
  species: string;
  latin: string;
  provenance: string;
  sownOn: string;
  count: string;
  /** Where the code leads when it is read. */
  address: string;
}

/** A stock of labels: its size and how many lie on an A4 sheet. */
export interface LabelStock {
  /** What it is stuck or tied to. */
  on: 'tray' | 'bed' | 'bundle';
  name: string;
  widthMm: number;
  heightMm: number;
  columns: number;
  rows: number;
}

export const labelStocks: readonly LabelStock[] = inWords(
  [
    { on: 'tray', name: 'Tray label', widthMm: 63, heightMm: 38, columns: 3, rows: 7 },
    { on: 'bed', name: 'Bed stake', widthMm: 99, heightMm: 34, columns: 2, rows: 8 },
    { on: 'bundle', name: 'Bundle tag', widthMm: 99, heightMm: 57, columns: 2, rows: 5 },
  ],
  'name',
);

const A4 = { widthMm: 210, heightMm: 297 };

/** Lines below the species: latin name, provenance, day, count. */
const MOST_LINES = 4;
/** Height of a line of type over its size. */
const LEADING = 1.3;

/** Sizes on a label, so that its code reads at arm's length and every line of it is on it. */
export function labelSizes({ widthMm, heightMm }: LabelStock) {
  const insideMm = heightMm - 7;
  const qrMm = Math.min(insideMm, widthMm * 0.42);
  const lineOf = (code: number) => Math.max(6.5, code * 0.42);
  const nameOf = (code: number) => Math.max(7.5, code * 0.6);
  const tall = (code: number) => LEADING * (code + nameOf(code) + MOST_LINES * lineOf(code));
  let code = Math.min(22, (widthMm - qrMm - 10) * 0.36);
  while (code > 8 && tall(code) > insideMm * PT_PER_MM) code -= 0.5;
  return { qrMm, code, name: nameOf(code), line: lineOf(code), tallMm: tall(code) / PT_PER_MM, insideMm };
}

function face(label: Label, stock: LabelStock): Content {
  const { qrMm, code, name, line: size } = labelSizes(stock);
  const line = (text: string): Content => ({ text, fontSize: size });
  return {
    columns: [
      {
        width: '*',
        stack: [
          { text: label.code, bold: true, fontSize: code },
          { text: label.species, bold: true, fontSize: name },
          line(label.latin),
          // What it is and when it was sown come before where it is from.
          ...[label.sownOn, label.count, label.provenance].filter(Boolean).map(line),
        ],
      },
      { width: qrMm * PT_PER_MM, qr: label.address, fit: qrMm * PT_PER_MM, eccLevel: 'M' },
    ],
    columnGap: 4,
  };
}

/**
 * Labels on A4 sheets, each as many times as asked, starting after labels already used on the first sheet.
 * @param copies per label, in the same order
 */
export function labelSheets(
  labels: readonly Label[],
  copies: readonly number[],
  stock: LabelStock,
  used = 0,
): TDocumentDefinitions {
  const cells: (Label | null)[] = Array.from({ length: used }, () => null);
  labels.forEach((label, i) => cells.push(...Array.from({ length: copies[i] }, () => label)));
  const left = (A4.widthMm - stock.columns * stock.widthMm) / 2;
  const top = (A4.heightMm - stock.rows * stock.heightMm) / 2;
  const perSheet = stock.columns * stock.rows;
  const content: Content[] = [];
  for (let at = 0; at < cells.length; at += perSheet) {
    const sheet = cells.slice(at, at + perSheet);
    const body = Array.from({ length: Math.ceil(sheet.length / stock.columns) }, (_, r) =>
      Array.from({ length: stock.columns }, (_unused, c): Content => {
        const label = sheet[r * stock.columns + c];
        return label ? face(label, stock) : { text: '' };
      }),
    );
    content.push({
      pageBreak: at > 0 ? 'before' : undefined,
      layout: {
        hLineWidth: () => 0,
        vLineWidth: () => 0,
        paddingLeft: () => 3 * PT_PER_MM,
        paddingRight: () => 3 * PT_PER_MM,
        paddingTop: () => 3 * PT_PER_MM,
        paddingBottom: () => 0,
      },
      table: {
        widths: Array.from({ length: stock.columns }, () => (stock.widthMm - 6) * PT_PER_MM),
        heights: Array.from({ length: body.length }, () => (stock.heightMm - 3) * PT_PER_MM),
        body,
        dontBreakRows: true,
      },
    });
  }
  return {
    pageSize: 'A4',
    pageMargins: [left * PT_PER_MM, top * PT_PER_MM, left * PT_PER_MM, 0],
    content,
  };
}

/** One label on a page of its own size, for a label printer. */
export function singleLabel(label: Label, stock: LabelStock): TDocumentDefinitions {
  return {
    pageSize: { width: stock.widthMm * PT_PER_MM, height: stock.heightMm * PT_PER_MM },
    pageMargins: 3 * PT_PER_MM,
    content: [face(label, stock)],
  };
}
