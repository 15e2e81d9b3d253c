import Papa from 'papaparse';

/** What a spreadsheet would take for a formula; a figure below zero is none. */
const FORMULA = /^(?!-?\d+(\.\d+)?$)[=+\-@\t\r]/;

type Lines = Parameters<typeof Papa.unparse>[0];

/**
 * Lines as CSV (RFC 4180). A text that a spreadsheet would take for a formula is led by an apostrophe, whoever typed it.
 * @param columns which of their columns, in order; all where left out
 */
export function csvOf(lines: Lines, columns?: readonly string[]): string {
  return Papa.unparse(lines, { escapeFormulae: FORMULA, ...(columns ? { columns: [...columns] } : {}) });
}
