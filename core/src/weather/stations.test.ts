import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fitCover, FEWEST_PAIRS } from './covers';
import { checkReadings, daysFromReadings, daysLeftOut, type HourReading } from './readings';

/** A day’s hours on a sine between 5 and 15 °C. */
const hours = (date: string, change: (h: number) => Partial<HourReading> = () => ({})): HourReading[] =>
  Array.from({ length: 24 }, (_, h) => ({
    hour: `${date}T${String(h).padStart(2, '0')}`,
    tempC: Math.round((10 - 5 * Math.cos(((h - 4) / 24) * 2 * Math.PI)) * 100) / 100,
    rainMm: h === 12 ? 2.4 : 0,
    humidity: 0.7,
    windMs: 3,
    ...change(h),
  }));

describe('a station’s readings, looked over', () => {
  it('finds nothing wrong with an ordinary day, and adds it up', () => {
    const day = hours('2026-06-01');
    const flags = checkReadings(day);
    expect(flags.every((f) => f === null)).toBe(true);
    expect(daysFromReadings(day, flags).days).toEqual([
      {
        date: '2026-06-01',
        tMinC: 5,
        tMaxC: 15,
        rainMm: 2.4,
        humidity: expect.closeTo(0.7),
        windMs: expect.closeTo(3),
      },
    ]);
  });
  it('doubts a lone jump, an impossible value and a sensor that stopped, and leaves them out of the day', () => {
    const day = hours('2026-06-01', (h) => (h === 6 ? { tempC: 38 } : h === 8 ? { rainMm: -4 } : {}));
    const flags = checkReadings(day);
    expect(flags[6]).toBe('spike');
    expect(flags[8]).toBe('out of range');
    expect(flags.filter(Boolean)).toHaveLength(2);
    expect(daysFromReadings(day, flags).days[0].tMaxC).toBe(15);
    const stuck = hours('2026-06-02', (h) => (h >= 5 ? { tempC: 12.34 } : {}));
    const stopped = checkReadings(stuck);
    expect(stopped.filter((f) => f === 'stuck')).toHaveLength(19);
    expect(daysFromReadings(stuck, stopped)).toMatchObject({
      days: [],
      thin: [{ date: '2026-06-02', hours: 5 }],
    });
  });
  it('does not doubt a cold front: a fall that stays', () => {
    const day = hours('2026-06-01', (h) => ({ tempC: h < 15 ? 22 + h * 0.1 : 9 + h * 0.1 }));
    expect(checkReadings(day).every((f) => f === null)).toBe(true);
  });
  it('takes no day of fewer than twenty good hours, and no rain from a gauge that was silent', () => {
    const short = hours('2026-06-01').slice(0, 19);
    expect(daysFromReadings(short, checkReadings(short)).thin).toEqual([{ date: '2026-06-01', hours: 19 }]);
    const dry = hours('2026-06-02', () => ({ rainMm: null }));
    expect(daysFromReadings(dry, checkReadings(dry)).days[0].rainMm).toBeNull();
  });
  it('names the runs of days a record leaves out', () => {
    const have = new Set(['2026-06-02', '2026-06-05']);
    expect(daysLeftOut(have, '2026-06-01', '2026-06-06')).toEqual([
      { from: '2026-06-01', to: '2026-06-01', days: 1 },
      { from: '2026-06-03', to: '2026-06-04', days: 2 },
      { from: '2026-06-06', to: '2026-06-06', days: 1 },
    ]);
  });
  it('never lets a doubted hour make a day colder or warmer', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 22 }),
        fc.double({ min: -45, max: 50, noNaN: true }),
        (at, tempC) => {
          const day = hours('2026-06-01', (h) => (h === at ? { tempC } : {}));
          const flags = checkReadings(day);
          const sums = daysFromReadings(day, flags).days[0];
          if (flags[at] === 'spike') {
            const rest = day.filter((_, h) => h !== at).map((r) => r.tempC!);
            expect(sums.tMinC).toBe(Math.min(...rest));
            expect(sums.tMaxC).toBe(Math.max(...rest));
          } else expect(Math.min(...day.map((r) => r.tempC!))).toBe(sums.tMinC);
        },
      ),
    );
  });
});

describe('a cover fitted from a logger under it', () => {
  const pairs = (n: number, lowC: number, highC: number) =>
    Array.from({ length: n }, (_, i) => {
      const wobble = i % 2 ? 0.4 : -0.4;
      return {
        open: { tMinC: 4 + (i % 5), tMaxC: 14 + (i % 7) },
        under: { tMinC: 4 + (i % 5) + lowC + wobble, tMaxC: 14 + (i % 7) + highC - wobble },
      };
    });
  it('finds what it adds to nights and days', () => {
    const { value } = fitCover(pairs(30, 1.5, 4));
    expect(value).toMatchObject({ lowC: expect.closeTo(1.5), highC: expect.closeTo(4), days: 30 });
    expect(value.lowSd).toBeGreaterThan(0.3);
  });
  it('asks for a fortnight', () => {
    expect(() => fitCover(pairs(FEWEST_PAIRS - 1, 1, 1))).toThrow(/13 days/);
  });
});
