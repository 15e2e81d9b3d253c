import { Unfit, say } from '@kauri/core';

/** Half of a pair of surrogates, or a NUL: text that no database keeps. */
const UNSTORABLE = /\0|\p{Surrogate}/u;
/** JSON deeper than any the contract knows. */
const MOST_DEEP = 40;

/**
 * What was sent, if all text in it can be stored.
 * @throws Unfit naming the field whose text holds a NUL or half a character, or that is nested too deep
 */
export function storable<T>(sent: T): T {
  look(sent, '', 0);
  return sent;
}

function look(value: unknown, path: string, depth: number): void {
  if (typeof value === 'string') {
    if (UNSTORABLE.test(value))
      throw new Unfit(say`This holds characters that are no text. Type it anew instead of pasting it.`, path);
  } else if (typeof value === 'object' && value !== null) {
    if (depth === MOST_DEEP) throw new Unfit(say`This is nested too deep.`, path);
    for (const [key, inner] of Object.entries(value)) {
      look(key, path, depth);
      look(inner, path ? `${path}.${key}` : key, depth + 1);
    }
  }
}
