/** Heights of a grade, cm; either end may be open. */
export interface Grade {
  fromCm: number | null;
  toCm: number | null;
}

/** Whether a tree could belong to two of some grades. Grades that say nothing of height may stand beside any. */
export function gradesOverlap(grades: readonly Grade[]): boolean {
  const sized = grades
    .filter(({ fromCm, toCm }) => fromCm !== null || toCm !== null)
    .map(({ fromCm, toCm }) => ({ from: fromCm ?? -Infinity, to: toCm ?? Infinity }))
    .sort((a, b) => a.from - b.from || a.to - b.to);
  return sized.some(({ from }, i) => i > 0 && from < sized[i - 1].to);
}

/**
 * Heights that a grade's words say: “40–60”, “60+”, “under 40”; whatever else they say, none.
 * @returns in the unit they were written in
 */
export function readGrade(words: string): { from: number | null; to: number | null } {
  const text = words.trim().replaceAll(',', '.');
  const number = String.raw`(\d+(?:\.\d+)?)`;
  const both = new RegExp(`^${number}\\s*(?:–|-|to|…)\\s*${number}`).exec(text);
  if (both) return { from: Number(both[1]), to: Number(both[2]) };
  const over = new RegExp(`^(?:over|above|>)\\s*${number}|^${number}\\s*(?:\\+|and over|and up)`).exec(text);
  if (over) return { from: Number(over[1] ?? over[2]), to: null };
  const under = new RegExp(`^(?:under|below|<)\\s*${number}`).exec(text);
  return under ? { from: null, to: Number(under[1]) } : { from: null, to: null };
}
