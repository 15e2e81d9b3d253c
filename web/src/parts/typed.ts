/**
 * What was typed as a number: decimal point or comma. NaN for anything else, which the server and the
 * core refuse with a sentence.
 */
export function typedNumber(text: string | number): number {
  const trimmed = String(text).trim().replace(',', '.').replace('−', '-');
  return /^[-+]?(\d+\.?\d*|\.\d+)$/.test(trimmed) ? Number(trimmed) : NaN;
}
