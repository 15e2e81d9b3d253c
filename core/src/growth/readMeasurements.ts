import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { guessDateOrder, readDate, readNumber, type DateOrder } from '../tabular/fields';

/** Which column of a table of measured plants holds what. Columns count from 0. */
export interface MeasurementColumns {
  lot: number;
  date: number;
  height: number | null;
  diameter: number | null;
  dateOrder: DateOrder;
  heightUnit: 'cm' | 'in';
  diameterUnit: 'mm' | 'in';
}

/** One plant measured. */
export interface MeasuredPlant {
  lotCode: string;
  date: string;
  heightCm: number | null;
  diameterMm: number | null;
}

/** Heights and collars beyond these are slips of the pen, not liners. */
export const HEIGHT_LIMIT_CM = 600;
export const DIAMETER_LIMIT_MM = 150;

export function guessMeasurementColumns(
  header: readonly string[],
  rows: readonly (readonly string[])[],
): MeasurementColumns {
  const names = header.map((name) => name.toLowerCase());
  const find = (pattern: RegExp) => names.findIndex((name) => pattern.test(name));
  const date = find(/date|day|fecha/);
  const height = find(/height|^h\b|altura/);
  const diameter = find(/diam|collar|rcd|calip/);
  const inches = (at: number) => at >= 0 && /\bin\b|_in$|inch/.test(names[at]);
  return {
    lot: find(/lot|code/),
    date,
    height: height >= 0 ? height : null,
    diameter: diameter >= 0 ? diameter : null,
    dateOrder: (date >= 0 ? guessDateOrder(rows.map((row) => row[date] ?? '')) : null) ?? 'iso',
    heightUnit: inches(height) ? 'in' : 'cm',
    diameterUnit: inches(diameter) ? 'in' : 'mm',
  };
}

/**
 * One line of a table of measurements.
 * @throws Unfit with a sentence for a value that is missing, unreadable or impossible
 */
export function readMeasuredPlant(row: readonly string[], columns: MeasurementColumns): MeasuredPlant {
  const lotCode = (row[columns.lot] ?? '').trim();
  if (lotCode === '') throw new Unfit(say`The lot is missing.`);
  const date = readDate(row[columns.date] ?? '', columns.dateOrder);
  const heightCm = readSize(
    row,
    columns.height,
    say`Height`,
    columns.heightUnit === 'in' ? 2.54 : 1,
    HEIGHT_LIMIT_CM,
    'cm',
  );
  const diameterMm = readSize(
    row,
    columns.diameter,
    say`Collar`,
    columns.diameterUnit === 'in' ? 25.4 : 1,
    DIAMETER_LIMIT_MM,
    'mm',
  );
  if (heightCm === null && diameterMm === null)
    throw new Unfit(say`Neither a height nor a collar diameter is given.`);
  return { lotCode, date, heightCm, diameterMm };
}

function readSize(
  row: readonly string[],
  at: number | null,
  name: string,
  factor: number,
  limit: number,
  unit: string,
) {
  const typed = at === null ? null : readNumber(row[at] ?? '', name);
  if (typed === null) return null;
  const value = Math.round(typed * factor * 100) / 100;
  if (!(value > 0 && value <= limit))
    throw new Unfit(say`${name} of ${value} ${unit} is outside 0 to ${limit} ${unit}.`);
  return value;
}
