import { noEvidence } from '@kauri/core';
import type { Evidence, LotRow } from '@kauri/core/contract';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { recordTables, type RecordNames } from './recordTables';

const stage = {
  id: 's1',
  placeId: 'p1',
  containerTypeId: 'c1',
  trays: 4,
  densityPerM2: null,
  areaM2: null,
  startedOn: '2026-04-01',
  endedOn: null,
};
const row = (id: string, code: string) =>
  ({
    id,
    code,
    speciesId: 'sp',
    origin: 'seed',
    sownOn: '2026-04-01',
    seedState: 'ready',
    stage,
    held: { seed: 0, sown: 3, standing: 90, lifted: 0, sent: 0, planted: 0, out: 7 },
    lastRecordOn: null,
  }) as unknown as LotRow;
const named = (records: Partial<Evidence>, more: [string, Partial<Evidence>][] = []): RecordNames => {
  const all: [string, Partial<Evidence>][] = [['26-SOR-03', records], ...more];
  return {
    lots: new Map(all.map(([code], i) => [`l${i}`, row(`l${i}`, code)])),
    evidence: new Map(all.map(([, some], i) => [`l${i}`, { ...noEvidence(`l${i}`), ...some }])),
    speciesName: () => 'Rowan',
    placeName: () => 'Bench 1',
    containerName: (id) => (id === null ? '' : 'Tube'),
  };
};
const read = (csv: string) => Papa.parse<Record<string, string>>(csv, { header: true }).data;

describe('records of lots as tables', () => {
  it('are a line each, by day and then by lot, and of no lot that is not at hand', () => {
    const count = (on: string) => ({
      entry: on,
      on,
      count: 90,
      multi: null,
      damaged: 2,
      patches: [{ name: 'north', counted: 40 }],
      note: '=1+1',
    });
    const names = named({ counts: [count('2026-06-02')] }, [
      ['26-ACA-01', { counts: [count('2026-06-02'), count('2026-05-02')] }],
    ]);
    const lines = read(recordTables.counts(names));
    expect(lines.map(({ day, lot }) => `${day} ${lot}`)).toEqual([
      '2026-05-02 26-ACA-01',
      '2026-06-02 26-ACA-01',
      '2026-06-02 26-SOR-03',
    ]);
    // What nobody looked at is blank and not none; no note is a formula.
    expect(lines[0]).toMatchObject({ standing: '90', several_stems: '', damaged: '2', note: "'=1+1" });
    expect(lines[0].patches).toBe('north: 40');
    expect(read(recordTables.counts({ ...names, lots: new Map() }))).toHaveLength(0);
  });
  it('tell of a move what its roots looked like, and where it went', () => {
    const seen = { looked: 60, circling: 9, teased: 7, shaved: 2, rejected: 4 };
    const names = named({
      stages: [stage],
      shifts: [
        { entry: 'a', on: '2026-08-01', to: 's1', roots: seen, note: '' },
        { entry: 'b', on: '2026-09-01', to: 's1', roots: null, note: 'carried' },
      ],
    });
    expect(read(recordTables.moves(names))).toMatchObject([
      { place: 'Bench 1', container: 'Tube', trays: '4', looked_at: '60', circling: '9', rejected: '4' },
      { looked_at: '', circling: '', note: 'carried' },
    ]);
  });
  it('keep work of all kinds in the same columns', () => {
    const names = named({
      care: [
        { entry: 'a', on: '2026-05-01', done: { what: 'water', mm: 5 }, note: '' },
        { entry: 'b', on: '2026-05-02', done: { what: 'prune', toCm: 40 }, note: '' },
      ],
    });
    expect(read(recordTables.work(names))).toMatchObject([
      { what: 'water', water_mm: '5', pruned_to_cm: '' },
      { what: 'prune', water_mm: '', pruned_to_cm: '40' },
    ]);
  });
  it('say of the ledger what takes another movement back, and of lots how many are where', () => {
    const move = {
      entry: 'a',
      on: '2026-05-01',
      from: 'standing',
      to: 'out:died',
      count: 3,
      note: '',
    } as const;
    const names = named({
      movements: [
        { ...move, id: 'm1', reverses: null },
        { ...move, id: 'm2', from: move.to, to: move.from, reverses: 'm1' },
      ],
    });
    expect(read(recordTables.movements(names)).map((line) => line.takes_back)).toEqual(['', 'yes']);
    expect(read(recordTables.lots(names))).toMatchObject([
      { lot: '26-SOR-03', species: 'Rowan', place: 'Bench 1', in_the_ground: '3', standing: '90', out: '7' },
    ]);
  });
  it('have each figure of a plant’s roots in its own column', () => {
    const plant = {
      kind: 'quick' as const,
      look: {
        score: 2 as const,
        round: 'all round' as const,
        runs: 'straight' as const,
        surface: 'clean' as const,
        tips: 'white' as const,
      },
      heightCm: 30,
      diameterMm: 4.1000000000000005,
      shootDryG: null,
      rootDryG: null,
    };
    const [line] = read(
      recordTables.roots(
        named({ roots: [{ entry: 'a', on: '2026-05-01', plant, spoiled: true, note: '' }] }),
      ),
    );
    expect(line).toMatchObject({
      seen: 'quick',
      height_cm: '30',
      collar_mm: '4.1',
      sturdiness: '7.31707',
      plug: '2',
      spoiled: 'yes',
    });
    expect(line.laterals).toBe('');
    expect(Object.keys(line)).toContain('quality_index');
  });
  it('are empty tables where nothing was recorded', () => {
    for (const [name, table] of Object.entries(recordTables))
      if (name !== 'lots') expect(read(table(named({}))), name).toHaveLength(0);
  });
});
