import { say } from '@kauri/core';
import { unzipSync } from 'fflate';
import read from 'read-excel-file/universal';
import { cellText, trimmed } from './cells';
import { readOds } from './ods';
import { isOldKind, looksPacked, type Sheet } from './sheet';

/** A spreadsheet is read whole: larger ones are asked for as CSV, which is read as a stream. */
const MOST_BYTES = 30e6;
const MOST_UNPACKED = 400e6;

/**
 * The sheets of a spreadsheet that hold anything, with the values of their cells as they were last worked out; null for
 * a file of text.
 * @throws Error with a sentence for a file that is neither
 */
export async function sheetsOf(file: File): Promise<Sheet[] | null> {
  if (!(await looksPacked(file))) return null;
  if (await isOldKind(file))
    throw new Error(
      say`${file.name} is a spreadsheet of the old kind (XLS). Save it as XLSX, ODS or CSV and choose it again.`,
    );
  if (file.size > MOST_BYTES)
    throw new Error(say`${file.name} is too large for a spreadsheet. Save it as CSV and choose it again.`);
  const bytes = new Uint8Array(await file.arrayBuffer());
  const none = () =>
    new Error(say`${file.name} cannot be read as a spreadsheet. Save it as CSV and choose it again.`);
  let sheets: Sheet[];
  try {
    const names: string[] = [];
    let unpacked = 0;
    unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        names.push(name);
        unpacked += originalSize;
        return false;
      },
    });
    if (unpacked > MOST_UNPACKED) throw none();
    if (names.includes('xl/workbook.xml')) sheets = await readXlsx(file);
    else if (names.includes('content.xml')) sheets = readOds(bytes);
    else throw none();
  } catch {
    throw none();
  }
  const filled = sheets.filter(({ rows }) => rows.length > 0);
  if (filled.length === 0) throw new Error(say`${file.name} holds no rows. Nothing was taken.`);
  return filled;
}

async function readXlsx(file: File): Promise<Sheet[]> {
  return (await read(file, { trim: false })).map(({ sheet, data }) => ({
    name: sheet,
    rows: trimmed(data.map((row) => row.map(cellText))),
  }));
}
