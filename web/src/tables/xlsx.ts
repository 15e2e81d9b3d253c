import { strToU8, zipSync } from 'fflate';
import { typedCell, xmlText, type Rows } from './cells';

/*
 * Office Open XML spreadsheets (ISO/IEC 29500-1, part SpreadsheetML): one sheet, its headings bold and kept in sight,
 * numbers and days as such, all else as text that no program takes for a formula.
 */

const MAIN = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
const OFFICE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const PACKAGE = 'http://schemas.openxmlformats.org/package/2006';
const KIND = 'application/vnd.openxmlformats-officedocument.spreadsheetml';
const head = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>';
const DAY_MS = 86_400_000;
/** Day 0 of a spreadsheet; days before March 1900 are counted otherwise, and stay text. */
const EPOCH_MS = Date.UTC(1899, 11, 30);
const FIRST_DAY = 61;
/** Places in the list of styles below. */
const STYLE = { plain: 0, day: 1, heading: 2 };

/** A1, B1 … Z1, AA1. */
function cellName(row: number, column: number): string {
  let name = '';
  for (let n = column + 1; n > 0; n = Math.floor((n - 1) / 26))
    name = String.fromCharCode(65 + ((n - 1) % 26)) + name;
  return `${name}${row + 1}`;
}

function cellXml(text: string, row: number, column: number): string {
  if (text === '') return '';
  const at = `r="${cellName(row, column)}"`;
  const value = row === 0 ? text : typedCell(text);
  if (typeof value === 'number') return `<c ${at}><v>${value}</v></c>`;
  const day = value instanceof Date ? (value.getTime() - EPOCH_MS) / DAY_MS : 0;
  if (day >= FIRST_DAY) return `<c ${at} s="${STYLE.day}"><v>${day}</v></c>`;
  const style = row === 0 ? STYLE.heading : STYLE.plain;
  return `<c ${at} s="${style}" t="inlineStr"><is><t xml:space="preserve">${xmlText(text)}</t></is></c>`;
}

/** One sheet as an Office Open XML spreadsheet. */
export function writeXlsx(name: string, rows: Rows): Uint8Array {
  const body = rows
    .map((row, r) => `<row r="${r + 1}">${row.map((text, c) => cellXml(text, r, c)).join('')}</row>`)
    .join('');
  // What a sheet’s name may not hold, and its longest.
  const title = xmlText(name.replace(/[\\/?*[\]:]/g, ' ').slice(0, 31));
  const files = {
    '[Content_Types].xml': `${head}<Types xmlns="${PACKAGE}/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/xl/workbook.xml" ContentType="${KIND}.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="${KIND}.worksheet+xml"/><Override PartName="/xl/styles.xml" ContentType="${KIND}.styles+xml"/></Types>`,
    '_rels/.rels': `${head}<Relationships xmlns="${PACKAGE}/relationships"><Relationship Id="rId1" Type="${OFFICE}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    'xl/workbook.xml': `${head}<workbook xmlns="${MAIN}" xmlns:r="${OFFICE}"><sheets><sheet name="${title}" sheetId="1" r:id="rId1"/></sheets></workbook>`,
    'xl/_rels/workbook.xml.rels': `${head}<Relationships xmlns="${PACKAGE}/relationships"><Relationship Id="rId1" Type="${OFFICE}/worksheet" Target="worksheets/sheet1.xml"/><Relationship Id="rId2" Type="${OFFICE}/styles" Target="styles.xml"/></Relationships>`,
    'xl/styles.xml': `${head}<styleSheet xmlns="${MAIN}"><numFmts count="1"><numFmt numFmtId="164" formatCode="yyyy\\-mm\\-dd"/></numFmts><fonts count="2"><font><sz val="11"/></font><font><b/><sz val="11"/></font></fonts><fills count="2"><fill><patternFill patternType="none"/></fill><fill><patternFill patternType="gray125"/></fill></fills><borders count="1"><border/></borders><cellStyleXfs count="1"><xf/></cellStyleXfs><cellXfs count="3"><xf fontId="0"/><xf fontId="0" numFmtId="164" applyNumberFormat="1"/><xf fontId="1" applyFont="1"/></cellXfs></styleSheet>`,
    'xl/worksheets/sheet1.xml': `${head}<worksheet xmlns="${MAIN}"><sheetViews><sheetView workbookViewId="0"><pane ySplit="1" topLeftCell="A2" activePane="bottomLeft" state="frozen"/></sheetView></sheetViews><sheetData>${body}</sheetData></worksheet>`,
  };
  return zipSync(Object.fromEntries(Object.entries(files).map(([path, xml]) => [path, strToU8(xml)])));
}
