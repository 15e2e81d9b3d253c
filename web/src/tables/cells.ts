import Papa from 'papaparse';

/** A table as rows of text, the headings first. */
export type Rows = string[][];

/** Farthest a number of a spreadsheet is exact. */
const DIGITS = 15;

/** What a cell of a spreadsheet holds, as text that a table of text would hold: dates as 2026-03-15, numbers with a point. */
export function cellText(value: unknown): string {
  if (value === null || value === undefined) return '';
  if (typeof value === 'number') return String(Number(value.toPrecision(DIGITS)));
  if (value instanceof Date) {
    if (Number.isNaN(value.getTime())) return '';
    const iso = value.toISOString();
    return iso.slice(11, 19) === '00:00:00' ? iso.slice(0, 10) : iso.slice(0, 16);
  }
  return String(value);
}

/** A cell for a spreadsheet: a number or a day where the text is exactly one, else the text itself. */
export function typedCell(text: string): string | number | Date {
  const isNumber = /^-?(0|[1-9]\d*)(\.\d+)?$/.test(text) && text.replace(/\D/g, '').length <= DIGITS;
  // A nought below nought comes back as nought.
  if (isNumber && !Object.is(Number(text), -0)) return Number(text);
  const day = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text);
  if (day) {
    const date = new Date(`${text}T00:00:00Z`);
    if (!Number.isNaN(date.getTime()) && date.toISOString().startsWith(text)) return date;
  }
  return text;
}

/** The rows of a CSV that Kauri wrote; a text led by an apostrophe against formulas is what it was. */
export function rowsOf(csv: string): Rows {
  const { data } = Papa.parse<string[]>(csv, { delimiter: ',', skipEmptyLines: 'greedy' });
  return data.map((row) => row.map((cell) => (/^'[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell)));
}

/** Rows as CSV, word for word: for reading on, not for a spreadsheet. */
export const plainCsv = (rows: Rows): string => Papa.unparse(rows);

/** Without the empty rows and columns at a sheet's end. */
export function trimmed(rows: readonly (readonly string[])[]): Rows {
  const filled = rows.map((row) => row.findLastIndex((cell) => cell.trim() !== '') + 1);
  const width = Math.max(0, ...filled);
  return rows
    .slice(0, filled.findLastIndex((n) => n > 0) + 1)
    .map((row) => Array.from({ length: width }, (_, i) => row[i] ?? ''));
}

/** Text as it stands within XML, without what XML cannot hold at all. */
export const xmlText = (text: string): string =>
  text
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;')
    .replace(/[^\t\n\r\u0020-\uD7FF\uE000-\uFFFD\u{10000}-\u{10FFFF}]/gu, '');
