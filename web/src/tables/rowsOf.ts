import Papa from 'papaparse';

/**
 * The lines of a table by their headings; null where there is no text.
 * @param head a heading as it is looked for: without regard to case, where nothing else is said
 */
export function rowsOf(
  text: string,
  head = (name: string) => name.trim().toLowerCase(),
): Record<string, string>[] | null {
  if (text.trim() === '') return null;
  return Papa.parse<Record<string, string>>(text.trim(), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: head,
  }).data;
}
