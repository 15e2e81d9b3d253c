import { describe, expect, it } from 'vitest';
import { dayOf } from '../calendar/day';
import type { Aside, KeptOrder, Look, OrderLine, Parcel } from '../contract';
import type { Keeps } from '../lifting/storeClock';
import { answerAsk } from '../plan/promisable';
import { promisableParcel } from '../plan/parcelStock';
import { storeActWords } from '../today/storeAsk';
import { lyingParcels, wantedLines } from './lyingParcels';
import { coldStores, storeAsks } from './storeAsks';

const parcel = (id: string, more: Partial<Parcel> = {}): Parcel => ({
  id,
  lotId: `lot ${id}`,
  code: id,
  speciesId: 'alder',
  entry: id,
  form: 'bare-root',
  grade: '',
  fromCm: 40,
  toCm: 60,
  bundleOf: 25,
  place: 'Trench',
  since: '2026-11-10',
  cameBack: false,
  count: 100,
  held: 100,
  ...more,
});
const look = (on: string, more: Partial<Look> = {}): Look => ({
  id: on,
  place: 'Trench',
  on,
  tempC: null,
  seen: [],
  note: '',
  by: '',
  ...more,
});
const species = new Map([['alder', { common: 'Alder' }]]);
const far: Keeps = { until: dayOf('2027-03-10'), by: 'buds' };
const asks = (
  day: string,
  {
    parcels = [parcel('a')],
    looks = [] as Look[],
    keeps = far,
    weather = [] as { day: number; tMinC: number; tMaxC: number }[],
    stores = coldStores([], []),
  } = {},
) =>
  storeAsks(
    {
      parcels,
      looks,
      stores,
      species,
      keeps: new Map(parcels.map(({ id }) => [id, keeps])),
      weather,
    },
    dayOf(day),
  );

describe('what lies there asks', () => {
  it('to be looked at two weeks after it was lifted, and after it was looked at', () => {
    expect(asks('2026-11-23')).toEqual([]);
    expect(asks('2026-11-24')).toMatchObject([{ kind: 'look', place: 'Trench', trees: 100, last: null }]);
    expect(asks('2026-12-01', { looks: [look('2026-11-24')] })).toEqual([]);
    expect(asks('2026-12-08', { looks: [look('2026-11-24')] })).toMatchObject([{ kind: 'look' }]);
  });
  it('sooner once something was seen, or before they leave', () => {
    const looks = [look('2026-11-24', { seen: ['mould'] })];
    expect(asks('2026-12-01', { looks })).toMatchObject([{ kind: 'look', signs: ['mould'] }]);
    const near: Keeps = { until: dayOf('2026-12-20'), by: 'buds' };
    expect(asks('2026-12-01', { looks: [look('2026-11-24')], keeps: near }).map(({ kind }) => kind)).toEqual([
      'leave',
      'look',
    ]);
  });
  it('a look elsewhere, or at what lay there before, does not count', () => {
    const elsewhere = [look('2026-11-24', { place: 'Shed' })];
    expect(asks('2026-11-25', { looks: elsewhere })).toHaveLength(1);
    expect(asks('2026-11-25', { looks: [look('2026-11-09')] })).toHaveLength(1);
  });
  it('to leave four weeks before the first of them must, those near it together', () => {
    const parcels = [parcel('a'), parcel('b', { held: 30 }), parcel('c', { held: 7, place: 'Shed' })];
    const found = storeAsks(
      {
        parcels,
        looks: [look('2027-02-20'), look('2027-02-20', { place: 'Shed' })],
        stores: new Map(),
        species,
        keeps: new Map([
          ['a', far],
          ['b', { ...far, until: far.until + 20 }],
          ['c', { ...far, until: far.until + 60 }],
        ]),
        weather: [],
      },
      dayOf('2027-02-22'),
    );
    expect(found).toMatchObject([{ kind: 'leave', trees: 100, name: 'alder', keeps: far }]);
    expect(storeActWords(found[0], dayOf('2027-02-22')).title).toBe(
      'Send or plant alder out of Trench by 10 Mar',
    );
  });
  it('to be covered once three days together lie below freezing, but not in a store', () => {
    const day = dayOf('2026-11-20');
    const frost = [0, 1, 2].map((i) => ({ day: day - i, tMinC: -6, tMaxC: 2 }));
    expect(asks('2026-11-20', { weather: frost })).toMatchObject([{ kind: 'frost', on: day }]);
    expect(asks('2026-11-20', { weather: frost.slice(1) })).toEqual([]);
    expect(asks('2026-11-20', { weather: frost.map((d) => ({ ...d, tMaxC: 7 })) })).toEqual([]);
    const stores = coldStores([{ kind: 'cold-store', name: 'Trench' }], []);
    expect(asks('2026-11-20', { weather: frost, stores })).toEqual([]);
  });
  it('what became of them once their time has long gone by, and nothing else', () => {
    const found = asks('2027-07-01', { looks: [] });
    expect(found).toMatchObject([{ kind: 'leave', trees: 100 }]);
    const { title, reason } = storeActWords(found[0], dayOf('2027-07-01'));
    expect(title).toBe('Say what became of alder in Trench: sent, planted or gone');
    expect(reason).toContain('should have left by 10 Mar');
    expect(asks('2027-03-20', { looks: [] }).map(({ kind }) => kind)).toEqual(['leave', 'look']);
  });
  it('nothing where nothing lies, or was lifted later', () => {
    expect(asks('2027-01-01', { parcels: [parcel('a', { held: 0 })] })).toEqual([]);
    expect(asks('2026-11-01')).toEqual([]);
  });
});

describe('a cold store', () => {
  const site = [
    { kind: 'cold-store', name: 'Cold room' },
    { kind: 'building', name: 'Barn' },
  ] as const;
  it('holds what was measured in it last, or is taken to', () => {
    expect([...coldStores(site, [])]).toEqual([['Cold room', { coldC: 2, isMeasured: false }]]);
    const looks = [
      look('2026-11-20', { place: 'Cold room', tempC: 5 }),
      look('2026-11-12', { place: 'Cold room', tempC: 3 }),
      look('2026-11-22', { place: 'Cold room' }),
    ];
    expect(coldStores(site, looks).get('Cold room')).toEqual({ coldC: 5, isMeasured: true });
  });
});

describe('what is set aside', () => {
  const line = (id: string, count: number, more: Partial<OrderLine> = {}): OrderLine => ({
    id,
    speciesId: 'alder',
    provenance: '',
    form: 'bare-root',
    fromCm: 40,
    toCm: 60,
    count,
    sent: 0,
    on: '2026-12-01',
    until: '2026-12-20',
    goesTo: '',
    price: null,
    state: 'promised',
    lots: [],
    ...more,
  });
  const orders: KeptOrder[] = [
    { id: 'o', version: 1, buyer: 'Moor', reach: '', note: '', lines: [line('one', 60), line('two', 20)] },
  ];
  const ask = {
    speciesId: 'alder',
    form: 'bare-root' as const,
    fromCm: 40,
    toCm: 60,
    on: dayOf('2026-12-01'),
  };
  const free = (asides: Aside[]) => {
    const stock = lyingParcels([parcel('a')], asides, new Map()).flatMap(
      (one) => promisableParcel(one, ask, dayOf('2026-11-24'), dayOf('2027-03-01')) ?? [],
    );
    return answerAsk(stock, wantedLines(orders, asides), ask).free;
  };
  it('is neither free nor asked for twice', () => {
    expect(free([])).toBe(20);
    const aside = { parcelId: 'a', orderId: 'o', lineId: 'one', count: 60 };
    expect(free([aside])).toBe(20);
    // For a line that was only asked about, it is taken from what is free.
    orders[0].lines[1].state = 'asked';
    expect(free([aside])).toBe(40);
    expect(free([aside, { ...aside, lineId: 'two', count: 20 }])).toBe(20);
  });
});
