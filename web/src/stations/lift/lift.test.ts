import { dayOf } from '@kauri/core';
import type { Parcel } from '@kauri/core/contract';
import { describe, expect, it } from 'vitest';
import { deliveryNote, noteLines, type NoteLine } from './deliveryNote';
import { originOf, type OriginBasis } from './origins';
import { daysBetweenWords } from './lyingWords';
import { bundleWords, gradeWords } from './parcelWords';

describe('a parcel in words', () => {
  it.each([
    [112, 25, '4 bundles of 25 and 12'],
    [100, 25, '4 bundles of 25'],
    [30, 25, '1 bundle of 25 and 5'],
    [7, 10, 'less than a bundle'],
    [7, null, 'loose'],
  ])('%i in bundles of %s: %s', (trees, bundleOf, words) => {
    expect(bundleWords(trees, bundleOf)).toBe(words);
  });
  it('names its grade, or that it has none', () => {
    const words = (grade: string, fromCm: number | null, toCm: number | null) =>
      gradeWords({ grade, fromCm, toCm }, (cm) => cm / 2.54, 'in');
    expect(words('40–60', 101.6, 152.4)).toBe('40–60 in');
    // Typed in other units than those looked at.
    expect(words('30+', 30, null)).toBe('11.8 in and over');
    expect(words('40–60 feathered', 101.6, 152.4)).toBe('40–60 feathered (40–60 in)');
    expect(words('whips', null, null)).toBe('whips');
    expect(words('', null, null)).toBe('not graded');
  });
  it('says how long it lies', () => {
    const today = dayOf('2026-11-24');
    expect(daysBetweenWords('2026-11-24', today)).toBe('today');
    expect(daysBetweenWords('2026-11-23', today)).toBe('1 day ago');
    expect(daysBetweenWords('2026-11-12', today)).toBe('12 days ago');
  });
});

describe('where a lot comes from', () => {
  const provenance = {
    place: 'Upper ghyll',
    latitudeDeg: null,
    longitudeDeg: null,
    altitudeM: null,
    zone: 'N 4',
  };
  const rows: Record<string, ReturnType<OriginBasis['lot']>> = {
    sown: { id: 'sown', code: 'A', origin: 'seed', seedLotId: 'bag', parentLotId: null },
    pricked: { id: 'pricked', code: 'B', origin: 'pricked', seedLotId: null, parentLotId: 'sown' },
    stuck: { id: 'stuck', code: 'C', origin: 'cuttings', seedLotId: null, parentLotId: null },
    layered: { id: 'layered', code: 'D', origin: 'layer', seedLotId: null, parentLotId: null },
    bare: { id: 'bare', code: 'E', origin: 'seed', seedLotId: null, parentLotId: null },
    lost: { id: 'lost', code: 'F', origin: 'seed', seedLotId: 'gone', parentLotId: null },
    ring: { id: 'ring', code: 'G', origin: 'pricked', seedLotId: null, parentLotId: 'ring' },
    came: { id: 'came', code: 'H', origin: 'bought', seedLotId: null, parentLotId: null },
    apart: { id: 'apart', code: 'I', origin: 'split', seedLotId: null, parentLotId: 'came' },
  };
  const basis = {
    lot: (id: string) => rows[id],
    arrival: (id: string) =>
      id === 'came' ? { supplier: 'Dale liners', provenance: 'N 3', papers: 'PP 12' } : undefined,
    seedLot: (id: string) => (id === 'bag' ? { code: 'ALN-24', provenance } : undefined),
  } as unknown as OriginBasis;
  it.each([
    ['sown', 'ALN-24, Upper ghyll, N 4'],
    ['pricked', 'ALN-24, Upper ghyll, N 4'],
    ['stuck', 'cuttings'],
    ['layered', 'air layer'],
    ['bare', 'not written down'],
    ['lost', 'a bag no longer in store'],
    ['ring', 'not written down'],
    ['came', 'Dale liners, N 3, papers PP 12'],
    ['apart', 'Dale liners, N 3, papers PP 12'],
    ['nowhere', 'not known'],
  ])('%s: %s', (id, words) => {
    expect(originOf(id, basis)).toBe(words);
  });
});

describe('a delivery note', () => {
  const line = (parcel: Parcel, trees: number): NoteLine => ({
    species: 'Common alder',
    latin: 'Alnus glutinosa',
    form: 'bare-root',
    grade: parcel.grade,
    bundles: bundleWords(trees, 25),
    lot: parcel.code,
    origin: 'ALN-24',
    trees: String(trees),
  });
  const parcel = { id: 'p', code: '26-ALN-01', grade: '40–60' } as Parcel;
  const parts = [
    { parcelId: 'p', lotId: 'l', count: 75 },
    { parcelId: 'old', lotId: 'm', count: 5 },
  ];
  it('has a line for each parcel that is known', () => {
    const lines = noteLines({ parts }, (id) => (id === 'p' ? parcel : undefined), line);
    expect(lines).toEqual([line(parcel, 75)]);
  });
  it('says from whom and to whom, what, and how many in all', () => {
    const text = JSON.stringify(
      deliveryNote(
        { from: 'Withybeck', to: 'Moor End farm', on: '24 Nov 2026', note: 'By rail.', total: '75 trees' },
        [line(parcel, 75)],
      ),
    );
    for (const words of [
      'Withybeck',
      'Moor End farm',
      '24 Nov 2026',
      '3 bundles of 25',
      'ALN-24',
      '75 trees',
      'By rail.',
    ])
      expect(text).toContain(words);
    // The type on paper has none.
    expect(text).not.toMatch(/[\u00a0\u202f]/);
  });
});
