import { say, word } from '@kauri/core';
import type { Quantity, SpeciesValues, Spread, StartValues } from '@kauri/core';

/** A figure of a species that a grower may set: where it stands, how it reads, and its limits. */
export interface SpeciesFigure {
  what: string;
  /** What it measures, where it has a unit that a grower reads in another system. */
  measures?: Measure;
  /** Limits, in the core's unit. */
  least: number;
  most: number;
  value: (values: SpeciesValues, start: StartValues) => number;
  /** Eight chances in ten of it, where it has a spread. */
  spread?: (values: SpeciesValues, start: StartValues) => Spread;
  set: (values: SpeciesValues, start: StartValues, to: number) => SpeciesValues;
}

/** A quantity; for warmth, above what temperature it is counted (°C). */
interface Measure {
  quantity: Quantity;
  above?: number;
}

type SpreadKey = 'emergenceDd' | 'heightCm' | 'diameterMm' | 'growthPerDd';
type NumberKey = 'rootRatePerDd' | 'liftChillHours' | 'plantCv' | 'halfDensityPerM2';
type StartSpread = 'sigmaDays' | 'radicleDd';
type StartNumber = 'thicknessMm' | 'sturdinessMost';

const ofSpread = (
  what: string,
  key: SpreadKey,
  least: number,
  most: number,
  measures?: Measure,
): SpeciesFigure => ({
  get what() {
    return word(what);
  },
  measures,
  least,
  most,
  value: (values) => values[key].median,
  spread: (values) => values[key],
  set: (values, _start, to) => ({ ...values, [key]: { ...values[key], median: to } }),
});
const ofNumber = (
  what: string,
  key: NumberKey,
  least: number,
  most: number,
  measures?: Measure,
): SpeciesFigure => ({
  get what() {
    return word(what);
  },
  measures,
  least,
  most,
  value: (values) => values[key],
  set: (values, _start, to) => ({ ...values, [key]: to }),
});
const ofStartSpread = (
  what: string,
  key: StartSpread,
  least: number,
  most: number,
  measures?: Measure,
): SpeciesFigure => ({
  get what() {
    return word(what);
  },
  measures,
  least,
  most,
  value: (_values, start) => start[key].median,
  spread: (_values, start) => start[key],
  set: (values, start, to) => ({ ...values, start: { ...start, [key]: { ...start[key], median: to } } }),
});
const ofStart = (
  what: string,
  key: StartNumber,
  least: number,
  most: number,
  measures?: Measure,
): SpeciesFigure => ({
  get what() {
    return word(what);
  },
  measures,
  least,
  most,
  value: (_values, start) => start[key],
  set: (values, start, to) => ({ ...values, start: { ...start, [key]: to } }),
});
const ofBudburst = (
  what: string,
  key: 'a' | 'b' | 'k',
  least: number,
  most: number,
  measures?: Measure,
): SpeciesFigure => ({
  get what() {
    return word(what);
  },
  measures,
  least,
  most,
  value: (values) => values.budburst[key],
  set: (values, _start, to) => ({ ...values, budburst: { ...values.budburst, [key]: to } }),
});

/** In the order of a tree's first years. */
export const speciesFigures: readonly SpeciesFigure[] = [
  {
    get what() {
      return say`Seeds a kilogram`;
    },
    least: 5,
    most: 5e7,
    value: (values) => values.seedsPerKg,
    set: (values, _start, to) => ({ ...values, seedsPerKg: to }),
  },
  ofStartSpread('Days to lose one probit in store', 'sigmaDays', 1, 20_000),
  ofStart('Seed thickness', 'thicknessMm', 0.1, 200, { quantity: 'diameter' }),
  ofStartSpread('Warmth to half the radicles', 'radicleDd', 1, 2000, { quantity: 'warmth', above: 1 }),
  ofSpread('Warmth to half up', 'emergenceDd', 5, 3000, { quantity: 'warmth', above: 5 }),
  ofSpread('Height a season tends to', 'heightCm', 1, 600, { quantity: 'height' }),
  ofSpread('Collar a season tends to', 'diameterMm', 0.5, 150, { quantity: 'diameter' }),
  ofSpread('Growth rate', 'growthPerDd', 0.0001, 0.05, { quantity: 'perWarmth' }),
  ofNumber('Root rate', 'rootRatePerDd', 0.0001, 0.1, { quantity: 'perWarmth' }),
  ofNumber('Spread of heights between plants', 'plantCv', 0.02, 1),
  ofNumber('Density at which collars begin to suffer', 'halfDensityPerM2', 5, 5000, { quantity: 'density' }),
  ofStart('Sturdy up to, height ÷ collar (cm to mm)', 'sturdinessMost', 1, 30),
  ofNumber('Chilling to lift, hours of cold above freezing', 'liftChillHours', 1, 3000),
  ofBudburst('Budburst, a', 'a', 0, 1000, { quantity: 'warmth' }),
  ofBudburst('Budburst, b', 'b', 0, 3000, { quantity: 'warmth' }),
  ofBudburst('Budburst, k, a chill day', 'k', 0.001, 0.5),
];

/** A figure in as many digits as it has. */
export function figureWords(value: number): string {
  return String(Number(value.toPrecision(4)));
}

type Shown = (value: number, quantity: Quantity, digits?: number) => string;

/** What a figure is called, with its unit. */
export function figureName(
  { what, measures }: SpeciesFigure,
  unit: (of: Quantity) => string,
  show: Shown,
): string {
  if (!measures) return what;
  const above = measures.above === undefined ? '' : say` above ${show(measures.above, 'temperature', 0)}`;
  return `${what}, ${unit(measures.quantity)}${above}`;
}

/** Eight chances in ten of a log-normal spread, in words. @param shown the number a grower reads */
export function rangeWords({ median, sdLog }: Spread, shown = (value: number) => value): string {
  const at = (z: number) => String(Number(shown(median * Math.exp(z * sdLog)).toPrecision(2)));
  return say`${at(-1.2816)} to ${at(1.2816)}`;
}
