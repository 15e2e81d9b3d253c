import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import { dayOf, isoOf, type EpochDay } from '../calendar/day';
import { english, speakBy, speechOf } from '../speech/say';
import { dateWords, longDate, shortDate } from './dates';
import { readDay } from './readDay';

const today = dayOf('2026-11-24');
const read = (typed: string, from: EpochDay = today) => {
  const day = readDay(typed, from);
  return day === null ? null : isoOf(day);
};
const speakIn = (tag: string) => {
  const spoken = speechOf(tag);
  speakBy(() => spoken);
};
afterEach(() => speakBy(() => english));

describe('a day as people write it', () => {
  it.each([
    ['2026-04-10', '2026-04-10'],
    [' 2026/4/10 ', '2026-04-10'],
    ['10 Apr', '2027-04-10'],
    ['10 Apr 2026', '2026-04-10'],
    ['Tue 10 april 26', '2026-04-10'],
    ['apr 10, 2026', '2026-04-10'],
    ['10/4/2026', '2026-04-10'],
    ['10.4.26', '2026-04-10'],
    ['10.4.', '2027-04-10'],
    ['3 1', '2027-01-03'],
    ['Today', '2026-11-24'],
    ['yesterday', '2026-11-23'],
    ['-3', '2026-11-21'],
    ['+14', '2026-12-08'],
    ['29 Feb', '2028-02-29'],
  ])('%s is %s', (typed, iso) =>
    expect(read(typed, typed === '29 Feb' ? dayOf('2027-06-01') : today)).toBe(iso),
  );

  it('is none where nothing is typed', () => expect(read('  ')).toBeNull());

  it.each(['30 Feb', '31.4.2026', '29.2.2026', '2026-13-01', '0/0'])('%s does not exist', (typed) =>
    expect(() => read(typed)).toThrow(/There is no \d+\/\d+ in the year \d+/),
  );

  it.each([
    'soon',
    '10',
    '10 x',
    '2026',
    '52° 30′',
    '10 Apr 2026 3',
    '1/2/3/4',
    '2026 Nov',
    '10.4.2',
    '10.4.202',
    '0202-04-10',
  ])('%s is no day, and how one is written is said', (typed) =>
    expect(() => read(typed)).toThrow(`“${typed}” is not a day. Write it as 24 Nov, or 24 Nov 2026.`),
  );

  it('has its month first where that is how it is written, and its names in the language spoken', () => {
    speakIn('en-US');
    expect([read('4/10/2026'), read('10/4/26'), read('apr 10')]).toEqual([
      '2026-04-10',
      '2026-10-04',
      '2027-04-10',
    ]);
    speakIn('es');
    expect([read('mar 10 de marzo de 2026'), read('3 ene'), read('4/10/26')]).toEqual([
      '2026-03-10',
      '2027-01-03',
      '2026-10-04',
    ]);
    speakIn('de');
    expect([read('10. Mär. 2026'), read('1. Okt.'), read('24 Dec')]).toEqual([
      '2026-03-10',
      '2026-10-01',
      '2026-12-24',
    ]);
  });

  it('is read as Kauri writes it, in every language', () => {
    const days = fc.integer({ min: dayOf('1990-01-01'), max: dayOf('2090-12-31') });
    for (const tag of ['en-GB', 'en-US', 'es', 'de', 'pl']) {
      speakIn(tag);
      fc.assert(
        fc.property(days, (day) => {
          expect(readDay(dateWords(isoOf(day)), today)).toBe(day);
          expect(readDay(longDate(day, 0), today)).toBe(day);
          // Without its year, from within half a year of it.
          expect(readDay(shortDate(day), day + 120)).toBe(day);
        }),
      );
    }
  });

  it('is a day or a sentence, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 14 }), (typed) => {
        try {
          const day = readDay(typed, today);
          expect(day === null || Number.isInteger(day)).toBe(true);
        } catch (error) {
          expect((error as Error).name).toBe('Unfit');
        }
      }),
    );
  });
});
