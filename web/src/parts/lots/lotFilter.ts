import { byNature, say, inWords, inSentence } from '@kauri/core';
import type { Status } from '@kauri/core';
import MiniSearch from 'minisearch';
import { statusWords } from '../../words/decision';
import { count, several } from '../../words/numbers';
import { byUrgency } from '../sortLots';
import type { ShownLot } from '../useLots';

export const lotSorts = inWords({
  urgent: 'most urgent first',
  code: 'by code',
  species: 'by species',
  place: 'by place',
  sown: 'last sown first',
  trees: 'most trees first',
} as const);
type LotSort = keyof typeof lotSorts;

export const lotGroups = inWords({
  none: 'not grouped',
  species: 'by species',
  place: 'by place',
  status: 'by state',
} as const);
export type LotGroup = keyof typeof lotGroups;

/** How a list of lots is looked through. Empty means all. */
export interface LotFilter {
  words: string;
  species: string;
  place: string;
  status: Status | '';
  season: string;
  sort: LotSort;
  group: LotGroup;
}

export const noFilter: LotFilter = {
  words: '',
  species: '',
  place: '',
  status: '',
  season: '',
  sort: 'urgent',
  group: 'none',
};

type Query = Record<string, unknown>;
const oneOf = <T extends string>(set: Readonly<Record<T, unknown>>, value: unknown, usual: T): T =>
  typeof value === 'string' && value in set ? (value as T) : usual;
const text = (value: unknown) => (typeof value === 'string' ? value : '');

/** A filter as an address holds it; what it does not name, or names wrongly, is as usual. */
export function filterFromQuery(query: Query): LotFilter {
  return {
    words: text(query.find),
    species: text(query.species),
    place: text(query.place),
    status: query.state === undefined ? '' : oneOf({ ...statusWords, '': '' }, query.state, ''),
    season: text(query.season),
    sort: oneOf(lotSorts, query.sort, 'urgent'),
    group: oneOf(lotGroups, query.group, 'none'),
  };
}

/** The part of an address that says a filter; only what is not as usual. */
export function queryFromFilter(filter: LotFilter): Record<string, string | undefined> {
  const said = (value: string, usual: string) => (value === usual ? undefined : value);
  return {
    find: said(filter.words, ''),
    species: said(filter.species, ''),
    place: said(filter.place, ''),
    state: said(filter.status, ''),
    season: said(filter.season, ''),
    sort: said(filter.sort, 'urgent'),
    group: said(filter.group, 'none'),
  };
}

/** Whether a filter leaves anything out. */
export const leavesOut = ({ words, species, place, status, season }: LotFilter) =>
  [words.trim(), species, place, status, season].some(Boolean);

export const seasonOf = (lot: ShownLot) => lot.row.sownOn.slice(0, 4);

/** Which of two lots comes first. */
export type LotOrder = (a: ShownLot, b: ShownLot) => number;

const sorters: Record<Exclude<LotSort, 'urgent'>, LotOrder> = {
  code: (a, b) => byNature(a.row.code, b.row.code),
  species: (a, b) => byNature(a.species, b.species) || byNature(a.row.code, b.row.code),
  place: (a, b) => byNature(a.place, b.place) || byNature(a.row.code, b.row.code),
  sown: (a, b) => b.row.sownOn.localeCompare(a.row.sownOn) || byNature(a.row.code, b.row.code),
  trees: (a, b) =>
    b.view.standing.tally.standing - a.view.standing.tally.standing || byNature(a.row.code, b.row.code),
};

/** A slip of the finger in a word long enough to tell: so many letters left out, doubled or wrong. */
const slip = (most: number) => (term: string) => (term.length < 4 || /\d/.test(term) ? 0 : most);

/** The words with two neighbouring letters of one of them changed about, as hasty fingers do. */
function swapped(words: string): string[] {
  return Array.from({ length: Math.max(0, words.length - 1) }, (_, i) => i)
    .filter((i) => /\p{L}\p{L}/u.test(words.slice(i, i + 2)) && words[i] !== words[i + 1])
    .map((i) => words.slice(0, i) + words[i + 1] + words[i] + words.slice(i + 2));
}

/** The words one would look for a lot with. */
const saidOf = ({ row, species, where }: ShownLot) => `${species} ${where} ${row.note}`;

/** Lots that hold every word as it is typed. */
export function asTyped(lots: readonly ShownLot[], words: string): ReadonlySet<string> {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const holds = (lot: ShownLot) => {
    const said = `${lot.row.code} ${saidOf(lot)}`.toLowerCase();
    return wanted.every((word) => said.includes(word));
  };
  return new Set(lots.filter(holds).map(({ row }) => row.id));
}

/**
 * An index of lots by the words one would look for them with. Words and their beginnings as typed come first; only where
 * nothing has them is a slip forgiven, then two. A lot is indexed anew only when its words change.
 */
export class LotIndex {
  private readonly index = new MiniSearch<{ id: string; code: string; said: string }>({
    fields: ['code', 'said'],
  });
  private readonly known = new Map<string, string>();

  /** Takes a lot in, as it is said now. */
  take(lot: ShownLot): void {
    const { id, code } = lot.row;
    const said = saidOf(lot);
    const before = this.known.get(id);
    if (before === `${code} ${said}`) return;
    if (before !== undefined) this.index.discard(id);
    this.index.add({ id, code, said });
    this.known.set(id, `${code} ${said}`);
  }

  /** Forgets the lots that are not listed any more. */
  keep(lots: readonly ShownLot[]): void {
    const listed = new Set(lots.map(({ row }) => row.id));
    for (const id of [...this.known.keys()]) {
      if (listed.has(id)) continue;
      this.index.discard(id);
      this.known.delete(id);
    }
  }

  /** Lots that the words may mean. */
  find(words: string): ReadonlySet<string> {
    const search = (said: string, most: number) =>
      this.index
        .search(said, { prefix: true, combineWith: 'AND', fuzzy: slip(most) })
        .map(({ id }) => id as string);
    const ways = [
      () => search(words, 0),
      () => swapped(words).flatMap((other) => search(other, 0)),
      () => search(words, 1),
      () => search(words, 2),
    ];
    for (const way of ways) {
      const found = way();
      if (found.length) return new Set(found);
    }
    return new Set();
  }
}

/**
 * Lots that pass a filter, in its order.
 * @param urgent what “most urgent first” means where the list stands
 */
export function filtered(
  lots: readonly ShownLot[],
  filter: LotFilter,
  find: (words: string) => ReadonlySet<string>,
  urgent: LotOrder = byUrgency,
): ShownLot[] {
  const found = filter.words.trim() ? find(filter.words) : null;
  return lots
    .filter(
      (lot) =>
        (found === null || found.has(lot.row.id)) &&
        (!filter.species || lot.species === filter.species) &&
        (!filter.place || lot.place === filter.place) &&
        (!filter.status || lot.view.standing.status === filter.status) &&
        (!filter.season || seasonOf(lot) === filter.season),
    )
    .sort(filter.sort === 'urgent' ? urgent : sorters[filter.sort]);
}

/** A filter and what it leaves, in words: "alder on Bench 2, root-bound: 3 lots, 210 trees". */
export function filterWords(filter: LotFilter, lots: readonly ShownLot[]): string {
  const parts = [
    filter.words.trim() && `“${filter.words.trim()}”`,
    inSentence(filter.species),
    filter.place && say`in ${filter.place}`,
    filter.status && inSentence(statusWords[filter.status]),
    filter.season && say`sown ${filter.season}`,
  ].filter(Boolean);
  const trees = lots.reduce((total, lot) => total + lot.view.standing.tally.standing, 0);
  return say`${parts.length ? `${parts.join(', ')}: ` : ''}${several(lots.length, 'lot')}, ${count(trees)} trees`;
}

export interface LotGroupRows {
  name: string;
  lots: ShownLot[];
}

/** Lots in their groups, each in the order they came; one nameless group where they are not grouped. */
export function groupsOf(lots: readonly ShownLot[], group: LotGroup): LotGroupRows[] {
  if (group === 'none') return [{ name: '', lots: [...lots] }];
  const name = (lot: ShownLot) =>
    group === 'species' ? lot.species : group === 'place' ? lot.place : statusWords[lot.view.standing.status];
  const groups = new Map<string, ShownLot[]>();
  for (const lot of lots) groups.set(name(lot), [...(groups.get(name(lot)) ?? []), lot]);
  const rows = [...groups].map(([of, these]) => ({ name: of, lots: these }));
  return group === 'status' ? rows : rows.sort((a, b) => byNature(a.name, b.name));
}
