import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readTag, taggedAt, taggedKinds, type Known, type TaggedKind } from './readTag';

const id = '019ab3c4-1111-7222-8333-444455556666';
const other = '019ab3c4-9999-7222-8333-444455556666';
const nothing = Object.fromEntries(taggedKinds.map((kind) => [kind, new Map()])) as unknown as Known;
const knows = (kind: TaggedKind, code: string): Known => ({ ...nothing, [kind]: new Map([[id, code]]) });

describe('a tag', () => {
  it.each([
    ['lot', `/grow/${id}`],
    ['lot', `/grow/${id}?on=2026-04-01`],
    ['place', `/yard/${id}`],
    ['bag', `/seed/${id}`],
    ['batch', `/seed/clock/${id}`],
    ['parcel', `/lift/lifted?parcel=${id}`],
    ['planting', `/planted/${id}`],
  ] as const)(
    'of a %s is known by the path of its address, at whatever machine it was printed',
    (kind, path) => {
      for (const host of ['http://127.0.0.1:4310', 'https://kauri.example']) {
        expect(taggedAt(`${host}${path}`)).toEqual({ kind, id });
        expect(readTag(`${host}${path}`, knows(kind, 'x'))).toEqual({ found: [{ kind, id }] });
      }
    },
  );
  it('of another nursery is said to be, and no other page of Kauri is taken for a thing', () => {
    expect(readTag(`https://kauri.example/grow/${other}`, knows('lot', '26-ALN-01'))).toEqual({
      why: 'This tag is of another nursery, or of something that was taken out here.',
    });
    for (const path of ['/grow', '/seed/desk', '/yard/site', '/planted/lived', '/grow/26-ALN-01'])
      expect(taggedAt(`https://kauri.example${path}`)).toBeNull();
    expect(readTag('https://elsewhere.example/p/4711', nothing)).toMatchObject({ why: expect.any(String) });
  });
  it('may be typed, without minding capitals, blanks or dashes; codes that are the same are all shown', () => {
    expect(readTag(' 26 aln 01 ', knows('lot', '26-ALN-01'))).toEqual({ found: [{ kind: 'lot', id }] });
    const both = { ...knows('lot', 'A1'), bag: new Map([[other, 'A 1']]) };
    expect(readTag('a-1', both)).toEqual({
      found: [
        { kind: 'lot', id },
        { kind: 'bag', id: other },
      ],
    });
    expect(readTag('—', knows('lot', '-'))).toMatchObject({ why: expect.stringContaining('“—”') });
    expect(readTag('  ', nothing)).toEqual({ why: 'Nothing is written there.' });
  });
  it('never fails, whatever is read', () => {
    fc.assert(
      fc.property(fc.oneof(fc.string(), fc.webUrl(), fc.string({ unit: 'binary' })), (text) => {
        const read = readTag(text, knows('lot', '26-ALN-01'));
        expect('why' in read ? read.why.length : read.found.length).toBeGreaterThan(0);
      }),
    );
  });
});
