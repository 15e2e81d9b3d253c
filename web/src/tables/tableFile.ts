import { rowsOf } from './cells';
import { writeOds } from './ods';
import { writeXlsx } from './xlsx';

export type TableFormat = 'csv' | 'xlsx' | 'ods';

/** A CSV as a file of a format; spreadsheets get its numbers and days as such, and everything else as text. */
export function tableFile(csv: string, name: string, format: TableFormat): Blob {
  switch (format) {
    case 'csv':
      return new Blob([csv], { type: 'text/csv' });
    case 'xlsx':
      return new Blob([new Uint8Array(writeXlsx(name, rowsOf(csv)))], {
        type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
      });
    case 'ods':
      return new Blob([new Uint8Array(writeOds(name, rowsOf(csv)))], {
        type: 'application/vnd.oasis.opendocument.spreadsheet',
      });
  }
}
