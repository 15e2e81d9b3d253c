import { typedNumber } from './typed';

/**
 * What a tap makes of a count. Up from a blank one it is a tally; down from a blank one it is taken from what was there
 * before, since nobody takes one from nothing.
 * @param before what was there before; 0 where nothing was
 */
export function tapped(text: string, by: number, before = 0): string {
  const typed = typedNumber(text);
  const now = Number.isFinite(typed) ? typed : text.trim() === '' && by < 0 ? before : 0;
  return String(Math.max(0, now + by));
}
