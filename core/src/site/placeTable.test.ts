import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeKinds, placeTableLine, readPlaceLine, type PlaceLine } from './placeTable';

const read = (line: Record<string, string>) => readPlaceLine(line);
const text = (line: PlaceLine) =>
  Object.fromEntries(Object.entries(placeTableLine(line)).map(([column, value]) => [column, String(value)]));

describe('a line of the table of places', () => {
  it('needs a name and two lengths; the rest has its usual', () => {
    expect(read({ name: ' Bed 9 ', length_m: '2,4', width_m: '1.2' })).toEqual({
      ...{ name: 'Bed 9', kind: 'bed', lengthM: 2.4, widthM: 1.2, boards: [], like: '', spot: null },
      ...{ angleDeg: 0, medium: '' },
    });
  });
  it('is written as it is read', () => {
    const metres = fc.integer({ min: 1, max: 60_000 }).map((mm) => mm / 1000);
    const line = fc
      .record({
        name: fc.stringMatching(/^[A-Z][a-z0-9 ]{0,20}[a-z0-9]$/),
        kind: fc.constantFrom(...placeKinds),
        lengthM: metres,
        widthM: metres,
        boards: fc.array(fc.constantFrom('2x8', '50x150', '2x6'), { maxLength: 4 }),
        like: fc.constantFrom('', 'Bed 1'),
        spot: fc.option(fc.record({ eastM: metres, northM: metres })),
        angleDeg: fc.integer({ min: 0, max: 359 }),
        medium: fc.constantFrom('', 'Leaf mould'),
      })
      .map((one) => (one.kind === 'bed' ? one : { ...one, boards: [], like: '' }));
    fc.assert(fc.property(line, (one) => void expect(read(text(one))).toEqual(one)));
  });
  it.each([
    [{ name: '' }, /name: every place/],
    [{ kind: 'shed' }, /kind: “shed” is none of bed/],
    [{ length_m: '' }, /length_m: metres/],
    [{ width_m: '0' }, /width_m: metres/],
    [{ width_m: 'wide' }, /width_m: “wide” is not a number/],
    [{ boards: '9x99' }, /board/],
    [{ kind: 'bench', boards: '2x8' }, /only a bed is built of boards/],
    [{ kind: 'bay', like: 'Bed 1' }, /only a bed is built like another/],
    [{ east_m: '3' }, /both, or neither/],
  ])('says what is wrong with %j', (wrong, words) => {
    expect(() => read({ name: 'Bed 9', length_m: '2.4', width_m: '1.2', ...wrong })).toThrow(words);
  });
});
