import { say } from '../speech/say';
import { readDate, readNumber } from '../tabular/fields';
import { Unfit } from '../working/unfit';
import { lineStates, treeForms, type LineState, type TreeForm } from './orderLine';

/** Columns of a table of lines that are wanted; sizes in cm, dates as YYYY-MM-DD. */
export const orderColumns = [
  'buyer',
  'reach',
  'species',
  'provenance',
  'form',
  'from_cm',
  'to_cm',
  'count',
  'sent',
  'on',
  'until',
  'goes_to',
  'price',
  'state',
  'lots',
] as const;

/** One line of the table, read; the species as it was written. */
export interface TableLine {
  buyer: string;
  reach: string;
  species: string;
  provenance: string;
  form: TreeForm;
  fromCm: number | null;
  toCm: number | null;
  count: number;
  sent: number;
  on: string;
  until: string;
  goesTo: string;
  price: number | null;
  state: LineState;
  /** Codes of lots set against it. */
  lots: string[];
}

/** A line as the table writes it. */
export function orderTableLine(line: TableLine): Record<(typeof orderColumns)[number], string | number> {
  return {
    buyer: line.buyer,
    reach: line.reach,
    species: line.species,
    provenance: line.provenance,
    form: line.form,
    from_cm: line.fromCm ?? '',
    to_cm: line.toCm ?? '',
    count: line.count,
    sent: line.sent,
    on: line.on,
    until: line.until,
    goes_to: line.goesTo,
    price: line.price ?? '',
    state: line.state,
    lots: line.lots.join('; '),
  };
}

/**
 * Reads a line of the table. Left out, the form is bare-root, the state asked, nothing is sent, and the day is the last
 * that will do.
 * @throws Unfit with a sentence that names the column
 */
export function readOrderLine(line: Readonly<Record<string, string | undefined>>): TableLine {
  const of = (name: (typeof orderColumns)[number]) => (line[name] ?? '').trim();
  const oneOf = <T extends string>(name: 'form' | 'state', known: readonly T[], usual: T): T => {
    const text = of(name).toLowerCase() || usual;
    const found = known.find((value) => value === text);
    if (!found) throw new Unfit(say`${name}: “${text}” is none of ${known.join(', ')}.`);
    return found;
  };
  const species = of('species');
  if (species === '') throw new Unfit(say`species: a line says what is wanted.`);
  const count = readNumber(of('count'), 'count');
  if (count === null || !(count >= 1)) throw new Unfit(say`count: how many are wanted, 1 or more.`);
  if (of('on') === '') throw new Unfit(say`on: the day they are wanted.`);
  const on = readDate(of('on'), 'iso');
  return {
    buyer: of('buyer'),
    reach: of('reach'),
    species,
    provenance: of('provenance'),
    form: oneOf('form', treeForms, 'bare-root'),
    fromCm: readNumber(of('from_cm'), 'from_cm'),
    toCm: readNumber(of('to_cm'), 'to_cm'),
    count: Math.round(count),
    sent: Math.round(readNumber(of('sent'), 'sent') ?? 0),
    on,
    until: of('until') === '' ? on : readDate(of('until'), 'iso'),
    goesTo: of('goes_to'),
    price: readNumber(of('price'), 'price'),
    state: oneOf('state', lineStates, 'asked'),
    lots: of('lots')
      .split(';')
      .map((code) => code.trim())
      .filter(Boolean),
  };
}
