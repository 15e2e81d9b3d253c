import { say, speech, inWords } from '@kauri/core';
import type { Role } from '@kauri/core/contract/roles';

/** Each role by its name. */
export const roleWords: Record<Role, string> = inWords({
  visitor: 'visitor',
  crew: 'crew',
  grower: 'grower',
  owner: 'owner',
});

/** What each role may do, in a line. */
export const roleMay: Record<Role, string> = inWords({
  visitor: 'sees everything, changes nothing',
  crew: 'counts, measures, lifts and records',
  grower: 'also sows, plans and lays out the yard',
  owner: 'also takes people in, and takes the nursery out',
});

/** A browser by what it says of itself, as far as a person cares. */
export function browserWords(agent: string): string {
  const browser = /Firefox/.test(agent)
    ? 'Firefox'
    : /Edg\//.test(agent)
      ? 'Edge'
      : /Chrome/.test(agent)
        ? say`Chrome or kin`
        : /Safari/.test(agent)
          ? 'Safari'
          : say`A browser`;
  const system = /Android/.test(agent)
    ? 'Android'
    : /iPhone|iPad/.test(agent)
      ? 'iOS'
      : /Windows/.test(agent)
        ? 'Windows'
        : /Mac OS/.test(agent)
          ? 'macOS'
          : /Linux|X11/.test(agent)
            ? 'Linux'
            : null;
  return system === null ? browser : say`${browser} on ${system}`;
}

/** An instant as day and hour where the reader is. @param at ISO, or ms since 1970 */
export function instantWords(at: string | number): string {
  return new Intl.DateTimeFormat(speech().tag, {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  }).format(new Date(at));
}

/** A moment lately as short as it can be: its hour where it is of this day, else its day. @param at ms since 1970 */
export function momentWords(at: number, now = Date.now()): string {
  const dayIn = (ms: number) => new Date(ms).toDateString();
  const form: Intl.DateTimeFormatOptions =
    dayIn(at) === dayIn(now) ? { hour: '2-digit', minute: '2-digit' } : { day: 'numeric', month: 'short' };
  return new Intl.DateTimeFormat(speech().tag, form).format(at);
}
