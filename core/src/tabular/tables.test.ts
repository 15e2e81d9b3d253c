import { Unfit } from '../working/unfit';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isoOf } from '../calendar/day';
import { guessMeasurementColumns, readMeasuredPlant } from '../growth/readMeasurements';
import { guessStationColumns, readStationDay } from '../weather/readStation';
import { guessDateOrder, readDate, readNumber } from './fields';

describe('numbers as people write them', () => {
  it.each([
    ['12.5', 12.5],
    ['12,5', 12.5],
    [' −3 ', -3],
    ['.5', 0.5],
    ['', null],
    ['n/a', null],
    ['NaN', null],
  ])('“%s”', (text, value) => expect(readNumber(text, 'x')).toBe(value));
  it.each(['1,234.5', 'twelve', '1e5', '12 cm', '--1', '0x10'])('“%s” is refused, not guessed', (text) => {
    expect(() => readNumber(text, 'Height')).toThrow(/Height: “.*” is not a number/);
  });
});

describe('dates as people write them', () => {
  it('read back in whatever order they were written', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 40_000 }), fc.constantFrom('-', '/', '.'), (day, mark) => {
        const iso = isoOf(day);
        const [y, m, d] = iso.split('-');
        expect(readDate([y, m, d].join(mark), 'iso')).toBe(iso);
        expect(readDate([d, m, y].join(mark), 'day-first')).toBe(iso);
        expect(readDate([m, d, y].join(mark), 'month-first')).toBe(iso);
      }),
    );
  });
  it.each(['29/02/2025', '31/04/2026', '00/01/2026', 'soon', '2026'])('%s is refused', (text) => {
    expect(() => readDate(text, 'day-first')).toThrow(Unfit);
  });
  it('takes 29 Feb of a leap year, two-figure years and a time behind', () => {
    expect(readDate('29/02/2028', 'day-first')).toBe('2028-02-29');
    expect(readDate('3/4/26', 'day-first')).toBe('2026-04-03');
    expect(readDate('2026-04-03T06:00', 'iso')).toBe('2026-04-03');
  });
  it('guesses the one order that fits all', () => {
    expect(guessDateOrder(['2026-01-02', '2026-03-04'])).toBe('iso');
    expect(guessDateOrder(['01/02/2026', '25/02/2026'])).toBe('day-first');
    expect(guessDateOrder(['02/25/2026', '03/01/2026'])).toBe('month-first');
    expect(guessDateOrder(['25/02/2026', '02/25/2026'])).toBeNull();
  });
});

describe('a station’s table', () => {
  it('is told by its header, whatever the order, and read to °C and mm', () => {
    const header = ['Rain (in)', 'High °F', 'Day', 'Low °F'];
    const rows = [['0.5', '68', '25/12/2025', '50']];
    const columns = guessStationColumns(header, rows);
    expect(columns).toMatchObject({
      date: 2,
      tMin: 3,
      tMax: 1,
      rain: 0,
      dateOrder: 'day-first',
      temperature: 'F',
      rainUnit: 'in',
    });
    expect(readStationDay(rows[0], columns)).toEqual({
      date: '2025-12-25',
      tMinC: 10,
      tMaxC: 20,
      rainMm: 12.7,
    });
  });
  it('tells Fahrenheit by its figures where the header does not', () => {
    expect(guessStationColumns(['date', 'tmin', 'tmax'], [['2026-07-01', '52', '81']]).temperature).toBe('F');
    expect(guessStationColumns(['date', 'tmin', 'tmax'], [['2026-07-01', '12', '31']]).temperature).toBe('C');
  });
  const columns = {
    date: 0,
    tMin: 1,
    tMax: 2,
    rain: 3,
    dateOrder: 'iso',
    temperature: 'C',
    rainUnit: 'mm',
  } as const;
  it.each([
    [['2026-07-01', '15', '9', '0'], /above the highest/],
    [['2026-07-01', '', '9', '0'], /missing/],
    [['2026-07-01', '-90', '9', '0'], /outside/],
    [['2026-07-01', '3', '9', '-1'], /outside/],
    [['2026-07-01', '3', '9', '900'], /outside/],
    [['2026-02-30', '3', '9', '0'], /date/],
    [['2026-07-01', 'cold', '9', '0'], /not a number/],
    [[], /date/],
  ])('%j is refused with a sentence', (row, sentence) => {
    expect(() => readStationDay(row, columns)).toThrow(sentence);
  });
  it('lets rain be left out', () => {
    expect(readStationDay(['2026-07-01', '3', '9', ''], columns).rainMm).toBeNull();
  });
});

describe('a table of measured plants', () => {
  it('is told by its header and read to cm and mm', () => {
    const header = ['date', 'Height in', 'collar mm', 'lot'];
    const columns = guessMeasurementColumns(header, [['2026-08-01', '10', '4.2', '26-ALN-01']]);
    expect(columns).toMatchObject({
      lot: 3,
      date: 0,
      height: 1,
      diameter: 2,
      heightUnit: 'in',
      diameterUnit: 'mm',
    });
    expect(readMeasuredPlant(['2026-08-01', '10', '4.2', '26-ALN-01'], columns)).toEqual({
      lotCode: '26-ALN-01',
      date: '2026-08-01',
      heightCm: 25.4,
      diameterMm: 4.2,
    });
  });
  const columns = {
    lot: 0,
    date: 1,
    height: 2,
    diameter: 3,
    dateOrder: 'iso',
    heightUnit: 'cm',
    diameterUnit: 'mm',
  } as const;
  it.each([
    [['', '2026-08-01', '10', ''], /lot is missing/],
    [['A', '2026-08-01', '', ''], /Neither/],
    [['A', '2026-08-01', '0', ''], /outside/],
    [['A', '2026-08-01', '9000', ''], /outside/],
    [['A', '2026-08-01', '', '-2'], /outside/],
  ])('%j is refused with a sentence', (row, sentence) => {
    expect(() => readMeasuredPlant(row, columns)).toThrow(sentence);
  });
});
