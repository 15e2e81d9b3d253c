import { tableFile } from '../tables/tableFile';
import { sheetsOf } from '../tables/sheets';
import { exposeSpeaking } from './speaking';

/** Reading and writing spreadsheets, beside the page. */
const api = { sheetsOf, tableFile };

export type TablesWorker = typeof api;
exposeSpeaking(api);
