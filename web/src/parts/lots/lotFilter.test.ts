import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { ShownLot } from '../useLots';
import {
  asTyped,
  filtered,
  filterFromQuery,
  filterWords,
  groupsOf,
  lotGroups,
  LotIndex,
  lotSorts,
  noFilter,
  queryFromFilter,
} from './lotFilter';

const lot = (code: string, species: string, place: string, status = 'filling', standing = 10, note = '') =>
  ({
    row: { id: code, code, note, sownOn: `20${code.slice(0, 2)}-04-08` },
    species,
    place,
    where: `Tube 150 mL, ${place}`,
    view: { standing: { status, decision: { kind: 'done' }, tally: { standing } } },
  }) as unknown as ShownLot;
const lots = [
  lot('26-BPE-06', 'Silver birch', 'Bench 10', 'ready', 100),
  lot('26-ALN-07', 'Common alder', 'Bench 2', 'bound', 300, 'for the river trust'),
  lot('25-QPE-01', 'Sessile oak', 'Bed 2', 'lift', 40),
  lot('26-BPU-05', 'Downy birch', 'Bed 10', 'filling', 7),
];
const index = new LotIndex();
for (const each of lots) index.take(each);
const codes = (part: Partial<typeof noFilter>) =>
  filtered(lots, { ...noFilter, ...part }, (words) => index.find(words)).map(({ row }) => row.code);

describe('looking through lots', () => {
  it.each([
    ['birch', ['26-BPE-06', '26-BPU-05']],
    ['brich', ['26-BPE-06', '26-BPU-05']],
    ['silver brch', ['26-BPE-06']],
    ['ald', ['26-ALN-07']],
    ['aln-07', ['26-ALN-07']],
    ['river', ['26-ALN-07']],
    ['bench', ['26-ALN-07', '26-BPE-06']],
    ['nothing like it', []],
  ])('finds “%s”', (words, expected) => expect(codes({ words, sort: 'code' }).sort()).toEqual(expected));
  it('does not forgive where something is as typed: birch is not bench', () => {
    expect(codes({ words: 'birch' })).not.toContain('26-ALN-07');
  });
  it('finds a lot by what it is said to be now, and not by what it was', () => {
    const moving = new LotIndex();
    for (const each of lots) moving.take(each);
    moving.take(lot('26-ALN-07', 'Common alder', 'Standing-out 1', 'bound', 300));
    expect([...moving.find('standing')]).toEqual(['26-ALN-07']);
    expect([...moving.find('river')]).not.toContain('26-ALN-07');
    expect([...moving.find('alder')]).toEqual(['26-ALN-07']);
  });
  it('forgets a lot that left the list, and takes it in again when it is back', () => {
    const leaving = new LotIndex();
    for (const each of lots) leaving.take(each);
    leaving.keep(lots.slice(1));
    expect([...leaving.find('silver birch')]).not.toContain('26-BPE-06');
    leaving.take(lots[0]);
    expect([...leaving.find('silver birch')]).toEqual(['26-BPE-06']);
  });
  it('finds as typed while the index is made', () => {
    expect([...asTyped(lots, 'Birch bench')]).toEqual(['26-BPE-06']);
    expect(asTyped(lots, 'brich').size).toBe(0);
  });
  it('narrows by what it is, where, how it stands and when it was sown', () => {
    expect(codes({ place: 'Bed 10' })).toEqual(['26-BPU-05']);
    expect(codes({ status: 'lift' })).toEqual(['25-QPE-01']);
    expect(codes({ season: '25' })).toEqual([]);
    expect(codes({ season: '2025' })).toEqual(['25-QPE-01']);
  });
  it('orders as people count: Bed 2 before Bed 10', () => {
    expect(codes({ sort: 'place' })).toEqual(['25-QPE-01', '26-BPU-05', '26-ALN-07', '26-BPE-06']);
  });
  it('says in words what it shows', () => {
    const filter = { ...noFilter, species: 'Common alder', status: 'bound' as const };
    expect(filterWords(filter, [lots[1]])).toBe('common alder, root-bound: 1 lot, 300 trees');
  });
  it('puts every lot in one group and loses none', () => {
    for (const group of Object.keys(lotGroups) as (keyof typeof lotGroups)[])
      expect(groupsOf(lots, group).flatMap((g) => g.lots)).toHaveLength(lots.length);
    expect(groupsOf(lots, 'place').map((g) => g.name)).toEqual(['Bed 2', 'Bed 10', 'Bench 2', 'Bench 10']);
  });
  it('is the same after it went through an address', () => {
    fc.assert(
      fc.property(
        fc.record({
          words: fc.string(),
          species: fc.string(),
          place: fc.string(),
          status: fc.constantFrom('' as const, 'bound' as const, 'ready' as const),
          season: fc.constantFrom('', '2026'),
          sort: fc.constantFrom(...(Object.keys(lotSorts) as (keyof typeof lotSorts)[])),
          group: fc.constantFrom(...(Object.keys(lotGroups) as (keyof typeof lotGroups)[])),
        }),
        (filter) => {
          expect(filterFromQuery(queryFromFilter(filter))).toEqual(filter);
        },
      ),
    );
    expect(filterFromQuery({ sort: 'sideways', state: 7, group: null })).toEqual(noFilter);
  });
});
