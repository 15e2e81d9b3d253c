import { say } from '@kauri/core';

/** What a tag stands on. */
export const taggedKinds = ['lot', 'place', 'bag', 'batch', 'parcel', 'planting'] as const;
export type TaggedKind = (typeof taggedKinds)[number];

export interface Tagged {
  kind: TaggedKind;
  id: string;
}

/** What a nursery has, by id, with what is written on it. */
export type Known = Readonly<Record<TaggedKind, ReadonlyMap<string, string>>>;

/** Where the codes of each kind lead: the address tells what it is of, whatever machine it was printed at. */
const places: readonly { kind: TaggedKind; path: RegExp }[] = [
  { kind: 'lot', path: /^\/(?:grow|roots|lift|seed\/up)\/([^/]+)$/ },
  { kind: 'place', path: /^\/yard\/([^/]+)$/ },
  { kind: 'batch', path: /^\/seed\/clock\/([^/]+)$/ },
  { kind: 'bag', path: /^\/seed\/([^/]+)$/ },
  { kind: 'planting', path: /^\/planted\/([^/]+)$/ },
];
const isId = (text: string) => /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i.test(text);

/** What an address printed on a tag names; null where it is none of Kauri’s. */
export function taggedAt(text: string): Tagged | null {
  let url: URL;
  try {
    url = new URL(text.trim());
  } catch {
    return null;
  }
  const parcel = url.pathname === '/lift/lifted' ? url.searchParams.get('parcel') : null;
  if (parcel !== null && isId(parcel)) return { kind: 'parcel', id: parcel.toLowerCase() };
  for (const { kind, path } of places) {
    const id = path.exec(url.pathname)?.[1];
    if (id !== undefined && isId(id)) return { kind, id: id.toLowerCase() };
  }
  return null;
}

/** Codes as they are told apart: whoever types one does not mind capitals, blanks and dashes. */
const plain = (code: string) => code.toLowerCase().replace(/[\s\-–_/.]+/g, '');

/** Whether what was typed or read is a code. */
export const isCode = (text: string, code: string): boolean => plain(text) === plain(code);

/**
 * What a tag says: by the address in its code, or by the code itself, read or typed.
 * @returns what of this nursery it stands on, several where they bear the same code; or a sentence why none
 */
export function readTag(text: string, known: Known): { found: readonly Tagged[] } | { why: string } {
  const said = text.trim();
  if (said === '') return { why: say`Nothing is written there.` };
  const at = taggedAt(said);
  if (at)
    return known[at.kind].has(at.id)
      ? { found: [at] }
      : { why: say`This tag is of another nursery, or of something that was taken out here.` };
  const wanted = plain(said);
  const found = taggedKinds.flatMap((kind) =>
    [...known[kind]].filter(([, code]) => isCode(said, code)).map(([id]): Tagged => ({ kind, id })),
  );
  if (wanted && found.length) return { found };
  return { why: say`Nothing here is called “${said.length > 60 ? `${said.slice(0, 60)} …` : said}”.` };
}
