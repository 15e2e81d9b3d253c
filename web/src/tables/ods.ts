import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { Parser } from 'saxen';
import { trimmed, typedCell, xmlText, type Rows } from './cells';
import type { Sheet } from './sheet';

/*
 * OpenDocument spreadsheets (ISO/IEC 26300): of a file only the values of its cells are read, as they were last worked
 * out; written are one sheet, its numbers and days as such.
 */

/** A sheet says "a million empty rows" in one element: no more of one kind than this are taken in a row. */
const MOST_REPEATED = 2000;

/**
 * The sheets of an OpenDocument spreadsheet.
 * @throws Error where its content is no such thing
 */
export function readOds(bytes: Uint8Array): Sheet[] {
  const content = unzipSync(bytes, { filter: ({ name }) => name === 'content.xml' })['content.xml'];
  if (!content) throw new Error('no content');
  const sheets: Sheet[] = [];
  let rows: string[][] = [];
  let row: string[] = [];
  let rowTimes = 1;
  let cell: { value: string | null; text: string[]; times: number } | null = null;
  let inText = false;
  /** A note beside a cell is not its value. */
  let inNote = false;
  let fault: Error | null = null;
  const times = (said: string | undefined) => Math.min(MOST_REPEATED, Math.max(1, Number(said ?? 1) || 1));
  new Parser()
    .on('error', (error) => (fault ??= error))
    .on('openTag', (name, attributes, decode) => {
      if (name === 'table:table') {
        rows = [];
        sheets.push({ name: decode(attributes()['table:name'] ?? ''), rows: [] });
      } else if (name === 'table:table-row') {
        row = [];
        rowTimes = times(attributes()['table:number-rows-repeated']);
      } else if (name === 'table:table-cell' || name === 'table:covered-table-cell') {
        const said = attributes();
        cell = {
          value: valueOf(said),
          text: [],
          times: times(said['table:number-columns-repeated']),
        };
      } else if (name === 'office:annotation') {
        inNote = true;
      } else if (name === 'text:p' && cell && !inNote) {
        inText = true;
        cell.text.push('');
      } else if (inText && cell && (name === 'text:s' || name === 'text:tab')) {
        cell.text[cell.text.length - 1] += ' '.repeat(times(attributes()['text:c']));
      }
    })
    .on('text', (text, decode) => {
      if (inText && cell) cell.text[cell.text.length - 1] += decode(text);
    })
    .on('closeTag', (name) => {
      if (name === 'office:annotation') inNote = false;
      else if (name === 'text:p') inText = false;
      else if ((name === 'table:table-cell' || name === 'table:covered-table-cell') && cell) {
        const text = cell.value ?? cell.text.join('\n');
        for (let i = 0; i < cell.times; i++) row.push(text);
        cell = null;
      } else if (name === 'table:table-row') {
        for (let i = 0; i < rowTimes; i++) rows.push(row);
      } else if (name === 'table:table') sheets[sheets.length - 1].rows = trimmed(rows);
    })
    .parse(strFromU8(content));
  if (fault) throw fault as Error;
  return sheets;
}

/** A cell's value where it is not its text. */
function valueOf(said: Record<string, string>): string | null {
  switch (said['office:value-type']) {
    case 'float':
    case 'percentage':
    case 'currency':
      return String(Number(said['office:value']));
    case 'date':
      return said['office:date-value'].replace(/T00:00:00(\.0+)?Z?$/, '');
    case 'boolean':
      return said['office:boolean-value'];
    default:
      return null;
  }
}

const SPACES = ['office', 'table', 'text', 'style', 'number', 'fo']
  .map((name) => {
    const of = name === 'number' ? 'datastyle' : name === 'fo' ? 'xsl-fo-compatible' : name;
    return `xmlns:${name}="urn:oasis:names:tc:opendocument:xmlns:${of}:1.0"`;
  })
  .join(' ');
const MIME = 'application/vnd.oasis.opendocument.spreadsheet';

function cellXml(text: string): string {
  const value = typedCell(text);
  if (typeof value === 'number')
    return `<table:table-cell office:value-type="float" office:value="${value}"><text:p>${xmlText(text)}</text:p></table:table-cell>`;
  if (value instanceof Date)
    return `<table:table-cell table:style-name="day" office:value-type="date" office:date-value="${text}"><text:p>${text}</text:p></table:table-cell>`;
  if (text === '') return '<table:table-cell/>';
  const lines = text.split(/\r?\n/).map((line) => `<text:p>${xmlText(line)}</text:p>`);
  return `<table:table-cell office:value-type="string">${lines.join('')}</table:table-cell>`;
}

/** One sheet as an OpenDocument spreadsheet. */
export function writeOds(name: string, rows: Rows): Uint8Array {
  const body = rows.map((row) => `<table:table-row>${row.map(cellXml).join('')}</table:table-row>`).join('');
  const content = `<?xml version="1.0" encoding="UTF-8"?><office:document-content ${SPACES} office:version="1.3"><office:automatic-styles><number:date-style style:name="iso"><number:year number:style="long"/><number:text>-</number:text><number:month number:style="long"/><number:text>-</number:text><number:day number:style="long"/></number:date-style><style:style style:name="day" style:family="table-cell" style:data-style-name="iso"/></office:automatic-styles><office:body><office:spreadsheet><table:table table:name="${xmlText(name)}">${body}</table:table></office:spreadsheet></office:body></office:document-content>`;
  const manifest = `<?xml version="1.0" encoding="UTF-8"?><manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0" manifest:version="1.3"><manifest:file-entry manifest:full-path="/" manifest:version="1.3" manifest:media-type="${MIME}"/><manifest:file-entry manifest:full-path="content.xml" manifest:media-type="text/xml"/></manifest:manifest>`;
  return zipSync({
    // The type comes first and as it is, so that any program knows the file by its first bytes.
    mimetype: [strToU8(MIME), { level: 0 }],
    'content.xml': strToU8(content),
    'META-INF/manifest.xml': strToU8(manifest),
  });
}
