import { say } from '@kauri/core';
import Papa from 'papaparse';

/** The head of a table, read from the first part of a file. */
export interface TableHead {
  header: string[];
  rows: string[][];
}

const HEAD_BYTES = 64 * 1024;
const HEAD_ROWS = 200;

/**
 * Reads the header and first lines of a file without loading the rest.
 * @throws Error with a sentence when it is no table of text
 */
export async function readHead(file: File): Promise<TableHead> {
  if (file.size === 0) throw new Error(say`${file.name} is empty.`);
  const bytes = new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer());
  if (bytes.includes(0))
    throw new Error(say`${file.name} is not a text table (CSV). Save it as CSV and choose it again.`);
  const text = new TextDecoder().decode(bytes).replace(/^\uFEFF/, '');
  const { data } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy', preview: HEAD_ROWS + 1 });
  // The last line may be cut in two by where reading stopped.
  const whole = file.size > HEAD_BYTES ? data.slice(0, -1) : data;
  const [header, ...rows] = whole;
  if (!header || header.length < 2 || rows.length === 0) {
    throw new Error(say`${file.name} has no table of two columns or more with a header. Nothing was taken.`);
  }
  return { header, rows };
}

const PREVIEW_ROWS = 6;

/** A line as it is read, or what is wrong with it. Lines count from 1, the header being line 1. */
export interface PreviewRow {
  line: number;
  cells: readonly string[];
  fault: string | null;
}

/** The first lines as they will be read. */
export function previewRows(
  rows: readonly (readonly string[])[],
  read: (row: readonly string[]) => string[],
): PreviewRow[] {
  return rows.slice(0, PREVIEW_ROWS).map((row, i) => {
    try {
      return { line: i + 2, cells: read(row), fault: null };
    } catch (error) {
      return { line: i + 2, cells: [], fault: error instanceof Error ? error.message : String(error) };
    }
  });
}
