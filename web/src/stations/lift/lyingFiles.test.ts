import { dayOf } from '@kauri/core';
import type { Parcel, Returned, Sending } from '@kauri/core/contract';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { parcelTable, sentTable } from './lyingFiles';
import { pickList } from './pickList';
import { returnedWords, stillOut } from './returnWords';

const parcel: Parcel = {
  id: 'p',
  lotId: 'l',
  code: '26-ALN-01',
  speciesId: 'alder',
  entry: 'e',
  form: 'bare-root',
  grade: '=40+',
  fromCm: 40,
  toCm: null,
  bundleOf: 25,
  place: 'Trench 1',
  since: '2026-11-18',
  cameBack: false,
  count: 60,
  held: 50,
};
const back = (count: number, dead: number): Returned => ({
  id: `r${count}`,
  on: '2026-11-21',
  wantedAgain: true,
  note: '',
  by: 'Isla',
  parts: [{ parcelId: 'p', intoId: `b${count}`, lotId: 'l', count, dead }],
});
const rows = (csv: string) => Papa.parse<Record<string, string>>(csv, { header: true }).data;

describe('what lies there as a table', () => {
  it('has a line a parcel, with what is set aside and until when it keeps', () => {
    const [row] = rows(
      parcelTable([parcel], {
        speciesName: () => 'Alder',
        asideOf: () => 12,
        keepsOf: () => dayOf('2027-03-10'),
      }),
    );
    expect(row).toMatchObject({
      place: 'Trench 1',
      lot: '26-ALN-01',
      species: 'Alder',
      from_cm: '40',
      to_cm: '',
      trees: '50',
      set_aside: '12',
      lifted: '2026-11-18',
      keeps_until: '2027-03-10',
    });
    // A spreadsheet must not take a grade for a formula.
    expect(row.grade).toBe("'=40+");
  });
  it('what was sent has a line for each parcel, also where it is no longer listed', () => {
    const sending: Sending = {
      id: 's',
      on: '2026-11-20',
      orderId: null,
      lineId: null,
      to: 'Moor',
      note: '',
      by: 'Isla',
      parts: [
        { parcelId: 'p', lotId: 'l', count: 10 },
        { parcelId: 'gone', lotId: 'old', count: 5 },
      ],
      returns: [back(4, 3), back(2, 0)],
    };
    const table = rows(
      sentTable([sending], {
        receiver: ({ to }) => to,
        parcel: (id) => (id === 'p' ? parcel : undefined),
        speciesName: () => 'Alder',
        origin: ({ lotId }) => `bag of ${lotId}`,
      }),
    );
    expect(table).toMatchObject([
      { to: 'Moor', lot: '26-ALN-01', trees: '10', came_back: '6', dead_of_them: '3', origin: 'bag of l' },
      { lot: '', trees: '5', came_back: '0', origin: 'bag of old' },
    ]);
  });
});

describe('what came back', () => {
  const sending = { parts: [{ parcelId: 'p', lotId: 'l', count: 10 }], returns: [back(4, 3), back(2, 0)] };
  it('is out no more, and said with how much of it was dead', () => {
    expect(stillOut(sending, 'p')).toBe(4);
    expect(returnedWords(sending.returns[0])).toBe('4 came back, 3 of them dead; wanted again');
    expect(returnedWords({ ...sending.returns[1], wantedAgain: null })).toBe('2 came back');
  });
});

describe('a pick list', () => {
  it('goes place by place as they are walked, with what to take for whom', () => {
    const text = JSON.stringify(
      pickList({ nursery: 'Yard', on: '24 Nov', total: '35 trees' }, [
        {
          place: 'Trench 2',
          trees: '20 trees',
          lines: [{ trees: '20', bundles: 'loose', what: 'Alder', lot: 'A', whom: 'Moor' }],
        },
        {
          place: 'Shed',
          trees: '15 trees',
          lines: [{ trees: '15', bundles: 'loose', what: 'Oak', lot: 'B', whom: 'Hill' }],
        },
      ]),
    );
    expect(text.indexOf('1. Trench 2: 20 trees')).toBeLessThan(text.indexOf('2. Shed: 15 trees'));
    expect(text.indexOf('Moor')).toBeLessThan(text.indexOf('2. Shed'));
  });
});
