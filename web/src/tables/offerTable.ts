import { offerFile } from '../print/pdf';
import type { TableFormat } from './tableFile';
import { besidePage } from './besidePage';

/** Offers a table in the format asked for. @param name without its ending */
export async function offerTable(csv: string, name: string, format: TableFormat): Promise<void> {
  offerFile(`${name}.${format}`, await besidePage((worker) => worker.tableFile(csv, name, format)));
}
