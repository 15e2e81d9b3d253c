import { fromShown, toShown, type UnitSystem } from '@kauri/core';
import type { GradeScheme } from '@kauri/core/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fromTyped, toTyped, type GradeUnits } from './gradingDraft';
import { blankLift, culledIn, liftedIn, rowsBy, sizeOf, takeBackTap, tap, type Shown } from './liftDraft';

const grade = (fromCm: number | null, toCm: number | null, collarMm: number | null = null, name = '') => ({
  name,
  fromCm,
  toCm,
  collarMm,
});
const scheme: GradeScheme = {
  id: 's',
  name: 'Hedging',
  speciesIds: [],
  grades: [grade(20, 40), grade(40, 60, 6), grade(60, null, 8, 'Feathered')],
};
const metric: Shown = { height: (cm) => cm, heightCm: (cm) => cm, collar: (mm) => `${mm} mm` };
const byScheme = () => ({ ...blankLift('25'), rows: rowsBy([], scheme, '25', metric) });

describe('a lift by a scheme', () => {
  it('has a row for each grade, called by what the scheme says of it beyond its heights', () => {
    const { rows } = byScheme();
    expect(rows.map((row) => [row.grade, row.sized])).toEqual([
      ['20–40', { fromCm: 20, toCm: 40 }],
      ['collar 6 mm', { fromCm: 40, toCm: 60 }],
      ['Feathered, collar 8 mm', { fromCm: 60, toCm: null }],
    ]);
    expect(new Set(rows.map(({ id }) => id)).size).toBe(3);
  });
  it('keeps what was counted or called already when another is chosen, and adds no grade twice', () => {
    const draft = byScheme();
    draft.rows[1].count = '12';
    const other = { ...scheme, id: 't', grades: [grade(40, 60, 6), grade(60, 90)] };
    const rows = rowsBy(draft.rows, other, '25', metric);
    expect(rows.map(({ grade: called, count }) => [called, count])).toEqual([
      ['collar 6 mm', '12'],
      ['60–90', ''],
    ]);
    expect(rows[0]).toBe(draft.rows[1]);
    expect(rowsBy(rows, null, '25', metric).map(({ count }) => count)).toEqual(['12']);
  });
  it('is one blank row without a scheme, and its words say its heights', () => {
    const [row, ...more] = rowsBy([], null, '', metric);
    expect(more).toEqual([]);
    expect(sizeOf({ ...row, grade: '40–60' }, metric)).toEqual({ fromCm: 40, toCm: 60 });
    const inches = { ...metric, heightCm: (inch: number) => inch * 2.54 };
    expect(sizeOf({ ...row, grade: '10+' }, inches)).toEqual({ fromCm: 25.4, toCm: null });
  });
});

describe('a tally at the bed', () => {
  it('counts taps by grade and by reason, and takes back the last', () => {
    const draft = byScheme();
    tap(draft, draft.rows[0].id, 1);
    tap(draft, draft.rows[1].id, 25);
    tap(draft, 'roots', 1);
    expect([liftedIn(draft), culledIn(draft)]).toEqual([26, 1]);
    takeBackTap(draft);
    takeBackTap(draft);
    expect([liftedIn(draft), culledIn(draft)]).toEqual([1, 0]);
    takeBackTap(draft);
    takeBackTap(draft);
    expect([liftedIn(draft), culledIn(draft)]).toEqual([0, 0]);
  });
  it('comes back to what it was, whatever was tapped and taken back', () => {
    const taps = fc.array(
      fc.tuple(fc.constantFrom('0', '1', '2', 'roots', 'small', 'nowhere'), fc.constantFrom(1, 10, 25)),
      { maxLength: 60 },
    );
    fc.assert(
      fc.property(taps, taps, (first, then) => {
        const draft = byScheme();
        const at = (key: string) => draft.rows[Number(key)]?.id ?? key;
        for (const [key, by] of first) tap(draft, at(key), by);
        const before = [draft.rows.map(({ count }) => count), { ...draft.culls }, draft.taps.length];
        for (const [key, by] of then) tap(draft, at(key), by);
        while (draft.taps.length > (before[2] as number)) takeBackTap(draft);
        expect([draft.rows.map(({ count }) => count), { ...draft.culls }, draft.taps.length]).toEqual(before);
      }),
    );
  });
  it('counts on from what was typed', () => {
    const draft = byScheme();
    draft.rows[0].count = '100';
    tap(draft, draft.rows[0].id, 25);
    expect(draft.rows[0].count).toBe('125');
  });
});

describe('a scheme as typed', () => {
  const units = (system: UnitSystem): GradeUnits => ({
    heightShown: (cm) => toShown(cm, 'height', system),
    heightTyped: (shown) => fromShown(shown, 'height', system),
    collarShown: (mm) => toShown(mm, 'diameter', system),
    collarTyped: (shown) => fromShown(shown, 'diameter', system),
  });
  it.each(['metric', 'us'] as const)('that nobody touched is as it was, in %s units', (system) => {
    expect(fromTyped(toTyped(scheme, units(system)), units(system))).toEqual(scheme);
  });
  it('is read in the units it was typed in', () => {
    const typed = toTyped(scheme, units('us'));
    typed.grades[0].heights = '10–20';
    const [first, ...others] = fromTyped(typed, units('us')).grades;
    expect([first.fromCm, first.toCm]).toEqual([expect.closeTo(25.4, 9), expect.closeTo(50.8, 9)]);
    expect(others).toEqual(scheme.grades.slice(1));
  });
  it('leaves blank lines out, and lets the server judge what is no height', () => {
    const typed = toTyped(scheme, units('metric'));
    typed.grades = [
      { heights: '', collar: '', name: '', was: null },
      { heights: 'tall', collar: '', name: '', was: null },
    ];
    expect(fromTyped(typed, units('metric')).grades).toEqual([grade(null, null)]);
  });
});
