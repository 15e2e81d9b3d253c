import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formatQuantity, fromShown, toShown, unitOf, type Quantity } from './units';

const quantities: Quantity[] = [
  'timber',
  'site',
  'height',
  'diameter',
  'cell',
  'volume',
  'mass',
  'temperature',
  'warmth',
  'rain',
  'density',
  'perLength',
  'area',
  'pressure',
  'flow',
  'perWarmth',
  'rainRate',
  'degrees',
  'bulk',
  'perVolume',
  'perArea',
];

describe('units', () => {
  it('come back as they went, in either system', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...quantities),
        fc.constantFrom('metric' as const, 'us' as const),
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        (quantity, system, value) => {
          const back = fromShown(toShown(value, quantity, system), quantity, system);
          expect(Math.abs(back - value)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(value)));
        },
      ),
    );
  });

  it.each([
    [25.4, 'timber', 1],
    [2.54, 'height', 1],
    [3.785411784, 'volume', 1],
    [0.45359237, 'mass', 1],
    [0, 'temperature', 32],
    [100, 'temperature', 212],
    [10, 'warmth', 18],
    [10, 'degrees', 18],
    [3.785411784, 'flow', 1],
    [25.4, 'rainRate', 1],
    [1, 'perVolume', 0.764554857984],
    [0.45359237 / 0.764554857984, 'bulk', 1],
    [10.7639104167, 'density', 1],
  ] as const)('%f of %s is %f in US units', (si, quantity, us) => {
    expect(toShown(si, quantity, 'us')).toBeCloseTo(us, 9);
  });

  it('puts the unit beside the number, thousands apart, never minus nought', () => {
    expect(formatQuantity(31.4, 'height', 'metric')).toBe('31\u00a0cm');
    expect(formatQuantity(1234567, 'volume', 'metric')).toBe('1\u202f234\u202f567\u00a0L');
    expect(formatQuantity(-0.001, 'temperature', 'metric')).toBe('0.0\u00a0°C');
    expect(formatQuantity(240, 'density', 'metric')).toBe('240/m²');
    expect(unitOf('area', 'us')).toBe('ft²');
  });
});
