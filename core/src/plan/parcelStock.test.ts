import { describe, expect, it } from 'vitest';
import { freeToPromise } from './freeToPromise';
import { parcelMeets, promisableParcel, type LyingParcel } from './parcelStock';

const parcel: LyingParcel = {
  id: 'p',
  lotId: 'l',
  code: '26-ALN-01',
  speciesId: 'alder',
  form: 'bare-root',
  grade: '40–60',
  fromCm: 40,
  toCm: 60,
  since: 100,
  store: null,
  free: 50,
};
const ask = (fromCm: number | null, toCm: number | null, more = {}) => ({
  speciesId: 'alder',
  form: 'bare-root' as const,
  fromCm,
  toCm,
  ...more,
});

describe('lifted trees can be promised', () => {
  it.each([
    ['their own size', 40, 60, true],
    ['a wider size', 30, 80, true],
    ['a size open above', 40, null, true],
    ['any size', null, null, true],
    ['a size that some of them miss', 45, 60, false],
    ['a smaller size', null, 50, false],
  ])('for %s', (_, from, to, serves) => {
    expect(promisableParcel(parcel, ask(from, to), 110, 200)?.count ?? 0).toBe(serves ? 50 : 0);
  });
  it('not for a size where they were not graded, nor in another form, nor once they should have left', () => {
    const ungraded = { ...parcel, grade: '', fromCm: null, toCm: null };
    expect(promisableParcel(ungraded, ask(40, 60), 110, 200)).toBeNull();
    expect(promisableParcel(ungraded, ask(null, null), 110, 200)).toMatchObject({
      code: '26-ALN-01, lifted',
    });
    expect(promisableParcel(parcel, ask(null, null, { form: 'plug' }), 110, 200)).toBeNull();
    expect(promisableParcel(parcel, ask(null, null), 110, 109)).toBeNull();
    expect(promisableParcel({ ...parcel, free: 0 }, ask(null, null), 110, 200)).toBeNull();
  });
  it('to a line that their lot was set against', () => {
    const stock = promisableParcel(parcel, ask(40, 60), 110, 200)!;
    const free = (only: string[]) => freeToPromise({ lots: [stock], promised: [], on: 120, only });
    expect(free(['l'])).toBe(50);
    expect(free(['another'])).toBe(0);
  });
  it('only those that are set aside for nobody', () => {
    expect(promisableParcel({ ...parcel, free: 12 }, ask(40, 60), 110, 200)).toMatchObject({
      count: 12,
      standing: 12,
    });
  });
  it('a parcel meets what is asked by its form and by all of its sizes', () => {
    const asked = (fromCm: number | null, toCm: number | null, form: 'bare-root' | 'plug' = 'bare-root') => ({
      form,
      fromCm,
      toCm,
    });
    expect(parcelMeets(parcel, asked(40, 60))).toBe(true);
    expect(parcelMeets(parcel, asked(null, null))).toBe(true);
    expect(parcelMeets(parcel, asked(45, 60))).toBe(false);
    expect(parcelMeets({ ...parcel, fromCm: null }, asked(40, 60))).toBe(false);
    expect(parcelMeets(parcel, asked(40, 60, 'plug'))).toBe(false);
  });
});
