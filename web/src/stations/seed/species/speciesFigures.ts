import type { SpeciesValues, Spread, StartValues } from '@kauri/core';

/** A figure of a species that a grower may set: where it stands, how it reads, and its limits. */
export interface SpeciesFigure {
  what: string;
  least: number;
  most: number;
  value: (values: SpeciesValues, start: StartValues) => number;
  /** Eight chances in ten of it, where it has a spread. */
  spread?: (values: SpeciesValues, start: StartValues) => Spread;
  set: (values: SpeciesValues, start: StartValues, to: number) => SpeciesValues;
}

type SpreadKey = 'emergenceDd' | 'heightCm' | 'diameterMm' | 'growthPerDd';
type NumberKey = 'rootRatePerDd' | 'liftChillHours' | 'plantCv' | 'halfDensityPerM2';
type StartSpread = 'sigmaDays' | 'radicleDd';
type StartNumber = 'thicknessMm' | 'sturdinessMost';

const ofSpread = (what: string, key: SpreadKey, least: number, most: number): SpeciesFigure => ({
  what,
  least,
  most,
  value: (values) => values[key].median,
  spread: (values) => values[key],
  set: (values, _start, to) => ({ ...values, [key]: { ...values[key], median: to } }),
});
const ofNumber = (what: string, key: NumberKey, least: number, most: number): SpeciesFigure => ({
  what,
  least,
  most,
  value: (values) => values[key],
  set: (values, _start, to) => ({ ...values, [key]: to }),
});
const ofStartSpread = (what: string, key: StartSpread, least: number, most: number): SpeciesFigure => ({
  what,
  least,
  most,
  value: (_values, start) => start[key].median,
  spread: (_values, start) => start[key],
  set: (values, start, to) => ({ ...values, start: { ...start, [key]: { ...start[key], median: to } } }),
});
const ofStart = (what: string, key: StartNumber, least: number, most: number): SpeciesFigure => ({
  what,
  least,
  most,
  value: (_values, start) => start[key],
  set: (values, start, to) => ({ ...values, start: { ...start, [key]: to } }),
});
const ofBudburst = (what: string, key: 'a' | 'b' | 'k', least: number, most: number): SpeciesFigure => ({
  what,
  least,
  most,
  value: (values) => values.budburst[key],
  set: (values, _start, to) => ({ ...values, budburst: { ...values.budburst, [key]: to } }),
});

/** In the order of a tree's first years. */
export const speciesFigures: readonly SpeciesFigure[] = [
  {
    what: 'Seeds a kilogram',
    least: 5,
    most: 5e7,
    value: (values) => values.seedsPerKg,
    set: (values, _start, to) => ({ ...values, seedsPerKg: to }),
  },
  ofStartSpread('Days to lose one probit in store', 'sigmaDays', 1, 20_000),
  ofStart('Seed thickness, mm', 'thicknessMm', 0.1, 200),
  ofStartSpread('Warmth to half the radicles, °C·d above 1', 'radicleDd', 1, 2000),
  ofSpread('Warmth to half up, °C·d above 5', 'emergenceDd', 5, 3000),
  ofSpread('Height a season tends to, cm', 'heightCm', 1, 600),
  ofSpread('Collar a season tends to, mm', 'diameterMm', 0.5, 150),
  ofSpread('Growth rate, per °C·d', 'growthPerDd', 0.0001, 0.05),
  ofNumber('Root rate, per °C·d', 'rootRatePerDd', 0.0001, 0.1),
  ofNumber('Spread of heights between plants', 'plantCv', 0.02, 1),
  ofNumber('Density at which collars begin to suffer, a m²', 'halfDensityPerM2', 5, 5000),
  ofStart('Sturdy up to, height cm ÷ collar mm', 'sturdinessMost', 1, 30),
  ofNumber('Chilling to lift, h at 0 to 7.2 °C', 'liftChillHours', 1, 3000),
  ofBudburst('Budburst, a, °C·d', 'a', 0, 1000),
  ofBudburst('Budburst, b, °C·d', 'b', 0, 3000),
  ofBudburst('Budburst, k, a chill day', 'k', 0.001, 0.5),
];

/** A figure in as many digits as it has. */
export function figureWords(value: number): string {
  return String(Number(value.toPrecision(4)));
}

/** Eight chances in ten of a log-normal spread, in words. */
export function rangeWords({ median, sdLog }: Spread): string {
  const at = (z: number) => String(Number((median * Math.exp(z * sdLog)).toPrecision(2)));
  return `${at(-1.2816)} to ${at(1.2816)}`;
}
