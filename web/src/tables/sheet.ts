import { plainCsv, type Rows } from './cells';

/** One sheet of a spreadsheet, as text. */
export interface Sheet {
  name: string;
  rows: Rows;
}

/** What a field for a table takes. */
export const TABLE_FILES =
  '.csv,.txt,.tsv,.xlsx,.ods,text/csv,text/plain,application/vnd.openxmlformats-officedocument.spreadsheetml.sheet,application/vnd.oasis.opendocument.spreadsheet';

const firstTwo = async (file: File) => [...new Uint8Array(await file.slice(0, 2).arrayBuffer())].join();
export const isOldKind = async (file: File) => (await firstTwo(file)) === [0xd0, 0xcf].join();

/** Whether a file is a spreadsheet, or something else that is no text, by its first bytes. */
export const looksPacked = async (file: File) =>
  (await firstTwo(file)) === [0x50, 0x4b].join() || (await isOldKind(file));

/** A sheet as the CSV it would be saved as, under its own file's name. */
export function sheetAsCsv(sheet: Sheet, name: string): File {
  return new File([plainCsv(sheet.rows)], name, { type: 'text/csv' });
}
