import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { airAtMidday, dryingMinutes, vapourPressureDeficit } from './vapour';

const temp = fc.double({ min: -20, max: 45, noNaN: true });

describe('the air and bare roots', () => {
  it('pulls harder the warmer and the drier it is, and not at all where it is full', () => {
    const air = fc.record({ tempC: temp, relativeHumidityPct: fc.double({ min: 0, max: 99, noNaN: true }) });
    fc.assert(
      fc.property(air, (one) => {
        const deficit = vapourPressureDeficit(one);
        expect(deficit).toBeGreaterThan(0);
        expect(vapourPressureDeficit({ ...one, tempC: one.tempC + 1 })).toBeGreaterThan(deficit);
        expect(
          vapourPressureDeficit({ ...one, relativeHumidityPct: one.relativeHumidityPct + 1 }),
        ).toBeLessThan(deficit);
      }),
    );
    expect(dryingMinutes({ tempC: 8, relativeHumidityPct: 100 })).toBe(Infinity);
    expect(() => dryingMinutes({ tempC: 8, relativeHumidityPct: 101 })).toThrow(/between 0 and 100/);
  });
  it('is as dry at midday as the night was colder', () => {
    fc.assert(
      fc.property(temp, fc.double({ min: 0, max: 25, noNaN: true }), (tMinC, rise) => {
        const { tempC, relativeHumidityPct } = airAtMidday({ tMinC, tMaxC: tMinC + rise });
        expect(tempC).toBe(tMinC + rise);
        expect(relativeHumidityPct).toBeGreaterThan(0);
        expect(relativeHumidityPct).toBeLessThanOrEqual(100);
      }),
    );
    expect(airAtMidday({ tMinC: 2, tMaxC: 12 }).relativeHumidityPct).toBeCloseTo(50.3, 0);
    // Measured, it is what it was.
    const measured = airAtMidday({ tMinC: 2, tMaxC: 12, humidity: 0.9 });
    expect(measured.relativeHumidityPct).toBeGreaterThan(60);
    expect(measured.relativeHumidityPct).toBeLessThan(70);
  });
});
