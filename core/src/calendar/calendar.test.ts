import { Unfit } from '../working/unfit';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addYears, dayOf, dayOfYear, isoOf, isTimeZone, mondayOf, partsOf, plainDateAt } from './day';
import { autumnStart, growthStop, heatStart, seasonStrip, usualSowing } from './season';

const days = fc.integer({ min: dayOf('1950-01-01'), max: dayOf('2150-12-31') });

describe('days', () => {
  it('come back as they went', () => {
    fc.assert(
      fc.property(days, (day) => {
        expect(dayOf(isoOf(day))).toBe(day);
      }),
    );
  });
  it.each(['2025-02-29', '2026-13-01', '2026-00-10', '2026-04-31', '26-04-01', 'today', ''])(
    '%s is no date',
    (text) => {
      expect(() => dayOf(text)).toThrow(Unfit);
    },
  );
  it('knows leap days', () => {
    expect(dayOf('2028-03-01') - dayOf('2028-02-28')).toBe(2);
    expect(isoOf(addYears(dayOf('2028-02-29'), 1))).toBe('2029-02-28');
    expect(dayOfYear(dayOf('2028-12-31'))).toBe(366);
  });
  it('finds the Monday of any week', () => {
    fc.assert(
      fc.property(days, (day) => {
        const monday = mondayOf(day);
        expect(day - monday).toBeGreaterThanOrEqual(0);
        expect(day - monday).toBeLessThan(7);
        expect(new Date(isoOf(monday)).getUTCDay()).toBe(1);
      }),
    );
  });
  it('reads the wall calendar of a zone', () => {
    const instant = new Date('2026-11-24T01:30:00Z');
    expect(plainDateAt(instant, 'Europe/London')).toBe('2026-11-24');
    expect(plainDateAt(instant, 'America/Argentina/Salta')).toBe('2026-11-23');
    expect(isTimeZone('Europe/London')).toBe(true);
    expect(isTimeZone('Middle/Nowhere')).toBe(false);
  });
});

describe('seasons', () => {
  it.each([
    [54.6, '2026-11-24', '2026-11-01', '2027-01-21', '2026-10-01'],
    [54.6, '2026-03-01', '2025-11-01', '2026-01-21', '2025-10-01'],
    [-41.2, '2026-11-24', '2026-05-01', '2026-07-21', '2026-04-01'],
    [-41.2, '2026-04-30', '2025-05-01', '2025-07-21', '2026-04-01'],
  ])('at %f° on %s', (latitude, date, autumn, heat, stop) => {
    const start = autumnStart(latitude, dayOf(date));
    expect(isoOf(start)).toBe(autumn);
    expect(isoOf(heatStart(latitude, start))).toBe(heat);
    expect(isoOf(growthStop(latitude, dayOf(date)))).toBe(stop);
  });

  it('lay out a strip that holds the day, half a year apart by hemisphere', () => {
    fc.assert(
      fc.property(days, fc.constantFrom(50, -50), (day, latitude) => {
        const { start, end } = seasonStrip(latitude, day);
        expect(start).toBeLessThanOrEqual(day);
        expect(end).toBeGreaterThanOrEqual(day);
        expect(partsOf(start)).toMatchObject({ month: latitude > 0 ? 1 : 7, day: 1 });
        expect(end - start).toBeGreaterThan(440);
      }),
    );
  });
});

describe('the usual sowing', () => {
  it('is the next spring of its half of the earth, and any day in the tropics', () => {
    expect(isoOf(usualSowing(54, dayOf('2026-12-02')))).toBe('2027-04-15');
    expect(isoOf(usualSowing(54, dayOf('2026-04-15')))).toBe('2026-04-15');
    expect(isoOf(usualSowing(-41, dayOf('2026-12-02')))).toBe('2027-10-15');
    expect(isoOf(usualSowing(-3.2, dayOf('2026-12-02')))).toBe('2026-12-02');
  });
});
