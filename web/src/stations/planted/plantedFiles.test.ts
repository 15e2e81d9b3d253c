import type { Planting, Walk } from '@kauri/core/contract';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { plantedTable, walkTable } from './plantedFiles';

const part = (id: string, count: number): Planting['parts'][number] => ({
  id,
  lotId: 'l',
  code: `26-ALN-0${count}`,
  speciesId: 'alder',
  parcelId: 'p',
  form: 'bare-root',
  raisedIn: 'bed',
  grade: '=40+',
  fromCm: 40,
  toCm: null,
  on: '2026-11-20',
  count,
  guard: 'closed tube',
  guardNow: 'none',
  stake: 'none',
  planter: 'Tam',
  note: '',
  by: 'Isla',
});
const planting: Planting = {
  id: 'x',
  version: 1,
  name: 'Weir bank',
  where: 'By the weir',
  purpose: '',
  ground: 'wet',
  mulch: '',
  layout: { kind: 'rows', rows: 1, perRow: 12, rowM: 2, treeM: 2 },
  note: '',
  parts: [part('a', 5), part('b', 7)],
};
const none = { alive: 0, 'leader dead': 0, dying: 0, dead: 0, missing: 0 };
const walk: Walk = {
  id: 'w',
  plantingId: 'x',
  on: '2027-07-20',
  kind: 'every',
  by: 'Isla',
  trees: 12,
  endedAt: '2027-07-20T10:00:00Z',
  note: '',
  found: [
    {
      partId: 'a',
      found: { ...none, alive: 3, 'leader dead': 1, dead: 1 },
      causes: [{ cause: 'voles', count: 1 }],
    },
    { partId: 'b', found: { ...none, alive: 7 }, causes: [] },
  ],
};
const rows = (csv: string) => Papa.parse<Record<string, string>>(csv, { header: true }).data;

describe('plantings and walks as tables', () => {
  it('have a line for each part, and no grade that a spreadsheet takes for a formula', () => {
    const all = rows(plantedTable([planting], () => 'Alder'));
    expect(all.map(({ trees }) => trees)).toEqual(['5', '7']);
    expect(all[0]).toMatchObject({
      planting: 'Weir bank',
      species: 'Alder',
      guard: 'closed tube',
      guard_now: 'none',
      to_cm: '',
      grade: "'=40+",
    });
  });
  it('say of each walk what was found of each part, and of what', () => {
    const [a, b] = rows(walkTable([walk], [planting], () => 'Alder'));
    expect(a).toMatchObject({
      lot: '26-ALN-05',
      planted: '5',
      alive: '3',
      leader_dead: '1',
      dead: '1',
      missing: '0',
      of_voles: '1',
      of_heat: '0',
      ended: 'yes',
    });
    expect(b).toMatchObject({ alive: '7', dead: '0' });
    // A walk through a planting that was taken out since is kept all the same.
    expect(rows(walkTable([walk], [], () => ''))[0]).toMatchObject({ planting: '', alive: '3' });
  });
});
