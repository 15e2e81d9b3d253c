import { readAngle } from '@kauri/core';

/**
 * What was typed as a number: decimal point or comma. NaN for anything else, which the server and the
 * core refuse with a sentence.
 */
export function typedNumber(text: string | number): number {
  const trimmed = String(text).trim().replace(',', '.').replace('−', '-');
  return /^[-+]?(\d+\.?\d*|\.\d+)$/.test(trimmed) ? Number(trimmed) : NaN;
}

/** Degrees as they were typed, in any of the ways they are written; null where blank, NaN for what cannot be read, which is refused. */
export function typedAngle(text: string, axis: 'latitude' | 'longitude'): number | null {
  if (text.trim() === '') return null;
  try {
    return readAngle(text, axis);
  } catch {
    return NaN;
  }
}

/**
 * What a field holds of a figure that is shown rounded in the reader's units: the figure as it was where nobody touched
 * the text, null where it is blank.
 * @param was the figure the field began with
 * @param asShown how that figure is written in the field
 * @param read the figure of a typed number
 */
export function keptUnlessTyped(
  text: string,
  was: number | null | undefined,
  asShown: (value: number) => string,
  read: (typed: number) => number,
): number | null {
  if (text.trim() === '') return null;
  return typeof was === 'number' && text === asShown(was) ? was : read(typedNumber(text));
}
