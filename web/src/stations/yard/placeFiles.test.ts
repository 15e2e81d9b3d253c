import { cornersOf, type BedDesign } from '@kauri/core';
import type { Catalogue, PlaceBody } from '@kauri/core/contract';
import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { placeLines, placesFrom, type PlacesKnown } from './placeFiles';
import { toDesign, usualFields } from './bedForm';

const metric = { units: 'metric' as const, typed: (v: number) => v, shown: (v: number) => v };
const usual = (lengthMm: number, widthMm: number): BedDesign =>
  toDesign(usualFields(metric, lengthMm, widthMm), metric);
type Medium = Catalogue['media'][number];
const medium = (id: string, name: string, note = '') => ({ id, values: { name, note } }) as unknown as Medium;
const bed = (name: string, eastM: number, more: Partial<BedDesign> = {}): PlaceBody =>
  ({
    ...{ kind: 'bed', name, eastM, northM: 0, angleDeg: 0, mediumId: 'm1' },
    design: { ...usual(2400, 1200), ...more },
  }) as PlaceBody;
const known = (...places: PlaceBody[]): PlacesKnown => ({
  places: places.map((place, i) => ({ id: `p${i}`, version: 1, place })),
  designs: [
    {
      id: 'd1',
      version: 3,
      name: 'Deep bed',
      design: { ...usual(2400, 1200), tiers: ['2x8', '2x8', '2x8'] },
    },
  ] as unknown as Catalogue['designs'],
  media: [medium('m1', 'Leaf mould'), medium('m2', 'Bark mix', 'for containers')],
  elements: [],
  usual,
});
const rows = (text: string) => Papa.parse<Record<string, string>>(text, { header: true }).data;

describe('places from a table', () => {
  it('are beds of an ordinary build, each on free ground after the other', () => {
    const { added, there, faults } = placesFrom(
      rows('name,length_m,width_m\nBed 2,3,1.2\nBed 3,3,1.2'),
      known(bed('Bed 1', 0)),
    );
    expect([there, faults]).toEqual([[], []]);
    expect(added.map(({ name, kind, mediumId }) => [name, kind, mediumId])).toEqual([
      ['Bed 2', 'bed', 'm1'],
      ['Bed 3', 'bed', 'm1'],
    ]);
    expect((added[0].design as BedDesign).tiers).toEqual(['50x200', '50x200']);
    const souths = [bed('Bed 1', 0), ...added].map((place) => cornersOf(place).map(([, y]) => y));
    for (let i = 1; i < souths.length; i++)
      expect(Math.max(...souths[i])).toBeLessThan(Math.min(...souths[i - 1]));
  });
  it('are built like a bed that stands, or a kept design, with boards of their own where said', () => {
    const { added } = placesFrom(
      rows('name,length_m,width_m,like,boards\nA,4,1,bed 1,\nB,4,1,Deep bed,\nC,4,1,Deep bed,2x6 + 2x6'),
      known(bed('Bed 1', 0, { airGapMm: 123 })),
    );
    const [a, b, c] = added.map(({ design }) => design as BedDesign);
    expect(a).toMatchObject({ airGapMm: 123, lengthMm: 4000, widthMm: 1000 });
    expect(b.tiers).toHaveLength(3);
    expect(c.tiers).toEqual(['2x6', '2x6']);
  });
  it('that stand already are left as they are, and what cannot be is said line by line', () => {
    const { added, there, faults } = placesFrom(
      rows(
        'name,kind,length_m,width_m,medium,like\nbed 1,bed,3,1,,\nNew,bench,3,1,,\nnew,bench,3,1,,\nX,bed,3,1,Moon dust,\nY,bed,3,1,,Nothing\n,bed,3,1,,',
      ),
      known(bed('Bed 1', 0)),
    );
    expect(there).toEqual(['bed 1']);
    expect(added.map(({ name, mediumId }) => [name, mediumId])).toEqual([['New', 'm2']]);
    expect(faults).toEqual([
      expect.stringMatching(/^Line 4: new stands in the table twice/),
      expect.stringMatching(/^Line 5: medium: there is none called Moon dust/),
      expect.stringMatching(/^Line 6: like: there is no bed or kept design called Nothing/),
      expect.stringMatching(/^Line 7: name: every place/),
    ]);
  });
  it('come back as they went out, into a yard that has none of them', () => {
    const metres = fc.integer({ min: 300, max: 9000 }).map((mm) => mm / 1000);
    fc.assert(
      fc.property(
        fc.uniqueArray(
          fc.record({ name: fc.stringMatching(/^[A-Z][a-z]{1,8}$/), eastM: metres, lengthM: metres }),
          { selector: ({ name }) => name.toLowerCase(), maxLength: 6 },
        ),
        (all) => {
          const places = all.map(({ name, eastM, lengthM }) =>
            bed(name, eastM, usual(Math.round(lengthM * 1000), 1200)),
          );
          const text = Papa.unparse(placeLines(known(...places)));
          const { added, faults } = placesFrom(rows(text), known());
          expect(faults).toEqual([]);
          expect(added).toEqual(places.map((place) => ({ ...place, builtOn: null, builtFrom: null })));
        },
      ),
    );
  });
});
