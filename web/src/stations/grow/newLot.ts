/** A code for the next lot: year, species, and the first number not taken. */
export function nextCode(speciesCode: string, sownOn: string, taken: Iterable<string>): string {
  const used = new Set([...taken].map((code) => code.toUpperCase()));
  const year = sownOn.slice(2, 4);
  for (let n = 1; ; n++) {
    const code = `${year}-${speciesCode}-${String(n).padStart(2, '0')}`;
    if (!used.has(code)) return code;
  }
}
