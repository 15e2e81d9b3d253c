import {
  compareShares,
  seedActWords,
  speciesLibrary,
  startingSpecies,
  upBy,
  english,
  speakBy,
  speechOf,
} from '@kauri/core';
import type { LotRow } from '@kauri/core/contract';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import type { TDocumentDefinitions } from '../../print/pdf';
import { phasesWords, shareBand } from '../../words/seed';
import { patchOf } from '../grow/patch';
import { shownPatches } from '../yard/patches';
import { spacingTemplate, templateMarks } from './desk/spacingTemplate';
import { findLot } from './labels/findLot';
import { labelSheets, labelSizes, labelStocks, singleLabel, type Label } from '../../print/labels';
import { figureWords, rangeWords, speciesFigures } from './species/speciesFigures';
import { readSpeciesFile, speciesCsv, speciesJson } from './species/speciesFiles';
import { surely } from '../../words/numbers';
import { armVerdict } from './up/verdict';

const row = (more: Partial<LotRow>): LotRow =>
  ({
    id: 'a',
    code: 'A',
    speciesId: 's',
    sownOn: '2026-04-02',
    patch: null,
    held: { seed: 0, sown: 10, standing: 0, lifted: 0, sent: 0, planted: 0, out: 0 },
    stage: { placeId: 'bed' },
    ...more,
  }) as LotRow;

describe('labels', () => {
  const label = (code: string): Label => ({
    code,
    species: 'Rowan',
    latin: 'Sorbus aucuparia',
    provenance: 'Upper ghyll',
    sownOn: 'sown 2 Apr 2026',
    count: '400 seeds',
    address: `http://yard/grow/${code}`,
  });
  const cells = (doc: TDocumentDefinitions) =>
    (
      doc.content as { table: { body: { columns?: { stack?: { text: string }[]; qr?: string }[] }[][] } }[]
    ).flatMap((sheet) => sheet.table.body.flat());

  it.each(labelStocks.map((stock) => [stock.name, stock] as const))(
    '%s lies on an A4 sheet, whole',
    (_, stock) => {
      expect(stock.columns * stock.widthMm).toBeLessThanOrEqual(210);
      expect(stock.rows * stock.heightMm).toBeLessThanOrEqual(297);
      // Every line of a label is on it, and its code large enough for a phone.
      const { tallMm, insideMm, qrMm } = labelSizes(stock);
      expect(tallMm).toBeLessThanOrEqual(insideMm);
      expect(qrMm).toBeGreaterThanOrEqual(24);
    },
  );

  it('are as many as asked, after those used, over as many sheets as it takes', () => {
    const [stock] = labelStocks;
    const doc = labelSheets([label('A'), label('B')], [20, 3], stock, 2);
    expect(doc.content).toHaveLength(2);
    const all = cells(doc);
    const codes = all.map((cell) => cell.columns?.[0].stack?.[0].text ?? '');
    expect(codes.slice(0, 2)).toEqual(['', '']);
    expect(codes.filter((code) => code === 'A')).toHaveLength(20);
    expect(codes.filter((code) => code === 'B')).toHaveLength(3);
    expect(all[2].columns?.[1].qr).toBe('http://yard/grow/A');
  });

  it('one stands on a page of its own size', () => {
    const { pageSize } = singleLabel(label('A'), labelStocks[1]) as {
      pageSize: { width: number; height: number };
    };
    expect(pageSize.width / pageSize.height).toBeCloseTo(99 / 34);
    expect(pageSize.width).toBeCloseTo((99 * 72) / 25.4);
  });
});

describe('a lost label', () => {
  const leaves: Record<string, string> = {
    rowan: 'feathered, toothed leaflets, alternate',
    maple: 'five lobes, opposite',
  };
  const lots = [
    row({ id: '1', code: 'ROWAN', speciesId: 'rowan' }),
    row({ id: '2', code: 'MAPLE', speciesId: 'maple' }),
    row({
      id: '3',
      code: 'GONE',
      speciesId: 'rowan',
      held: { seed: 0, sown: 0, standing: 0, lifted: 9, sent: 0, planted: 0, out: 0 },
    }),
  ];
  const find = (lost: Parameters<typeof findLot>[0]) =>
    findLot(lost, lots, (lot) => leaves[lot.speciesId]).map((c) => c.lot.code);
  it('is found by leaf, place and month; what stands nowhere is not offered', () => {
    expect(find({ placeId: '', month: '', leaf: 'feathered' })).toEqual(['ROWAN']);
    expect(find({ placeId: '', month: '', leaf: 'opposite lobes' })).toEqual(['MAPLE']);
    expect(find({ placeId: 'bed', month: '2026-04', leaf: '' })).toEqual(['MAPLE', 'ROWAN']);
    expect(find({ placeId: 'other', month: '2020-01', leaf: 'needles' })).toEqual([]);
    expect(find({ placeId: '', month: '', leaf: '' })).toEqual([]);
  });
});

describe('the spacing template', () => {
  it('has its marks at full size: rows and gaps as asked, every second row set off', () => {
    const marks = templateMarks(120, 20);
    const rows = [...new Set(marks.map((m) => m.y))];
    expect(rows).toEqual([0, 120]);
    const first = marks.filter((m) => m.y === 0).map((m) => m.x);
    expect(first[1] - first[0]).toBe(20);
    expect(marks.find((m) => m.y === 120)!.x).toBe(10);
  });
  it('is drawn in millimetres, with a bar to check the printer', () => {
    const doc = spacingTemplate({ title: 'Rowan', rowMm: 120, gapMm: 18, depth: '' });
    const drawing = (doc.content as { svg?: string; width?: number }[]).find((part) => part.svg)!;
    expect(drawing.svg).toContain('h100m0');
    const [, width] = /viewBox="-2 -2 ([\d.]+)/.exec(drawing.svg!)!;
    expect(drawing.width! / Number(width)).toBeCloseTo(72 / 25.4);
  });
});

describe('species in files', () => {
  const none = new Set<string>();
  it('come back as they went out, as a table and whole', () => {
    const json = readSpeciesFile(speciesJson(speciesLibrary), 'species.json', none);
    expect(json.bad).toEqual([]);
    expect(json.good).toEqual(
      speciesLibrary.map(({ code, common, latin, values }) => ({ code, common, latin, values })),
    );
    const csv = readSpeciesFile(speciesCsv(startingSpecies), 'species.csv', none);
    expect(csv.bad).toEqual([]);
    expect(csv.good.map((s) => s.values.seedsPerKg)).toEqual(startingSpecies.map((s) => s.values.seedsPerKg));
  });
  it('name each line that cannot be taken', () => {
    const text = Papa.unparse([
      { code: 'AAA', common: 'One', latin: 'Una una', seeds_per_kg: 'many', viability: '' },
      { code: 'BPE', common: 'Birch', latin: 'Betula x' },
      { code: 'toolongcode', common: 'Two', latin: 'Dua dua' },
      { code: 'ABC', common: 'Three', latin: 'Tria tria', viability: 1.4 },
    ]);
    const { good, bad } = readSpeciesFile(text, 'x.csv', new Set(['BPE']));
    expect(good).toEqual([]);
    expect(bad[0]).toContain('Line 2: seeds_per_kg: “many” is not a number.');
    expect(bad[1]).toContain('BPE already');
    expect(bad).toHaveLength(4);
    expect(readSpeciesFile('{', 'x.json', none).bad).toEqual(['This file is not JSON.']);
    expect(readSpeciesFile('{}', 'x.json', none).bad).toEqual(['This file holds no species.']);
  });
});

describe('figures of a species', () => {
  it.each(speciesFigures.map((f) => [f.what, f] as const))(
    '%s is set where it is read, and nothing else is',
    (_, figure) => {
      const { values } = startingSpecies[0];
      const before = figure.value(values, values.start!);
      expect(before).toBeGreaterThanOrEqual(figure.least);
      expect(before).toBeLessThanOrEqual(figure.most);
      const after = figure.set(values, values.start!, before * 1.1);
      expect(figure.value(after, after.start!)).toBeCloseTo(before * 1.1);
      expect(figure.set(after, after.start!, before)).toEqual(values);
    },
  );
  it('read with a range of eight in ten', () => {
    expect(rangeWords({ median: 110, sdLog: 0.25 })).toBe('80 to 150');
    expect(figureWords(0.0032)).toBe('0.0032');
  });
});

describe('the verdict in words', () => {
  const verdict = (k: number, n: number, m: number, o: number, trays = 1) =>
    armVerdict(
      'Bag',
      'Tub',
      compareShares({ name: 'Bag', n, k, trays }, { name: 'Tub', n: o, k: m, trays }).value,
      trays,
    );
  it('calls what is plain, and does not call small samples', () => {
    expect(verdict(230, 400, 120, 400).headline).toBe(
      '“Bag” does better than “Tub”: 26 more of a hundred come up',
    );
    expect(verdict(8, 10, 3, 10).headline).toContain('may be luck');
    expect(verdict(20, 40, 19, 40).headline).toContain('No telling yet');
    expect(verdict(20, 40, 19, 40).detail).toMatch(/trays? more of each would likely settle it|No number/);
    expect(verdict(26, 40, 18, 40).detail).toContain('One tray or patch of each');
    expect(verdict(10_000, 20_000, 9950, 20_000, 100).headline).toContain('do alike');
  });
  it('never says a chance is whole', () => {
    expect(surely(1)).toContain('over 99');
    expect(surely(0)).toContain('under 1');
    expect(surely(0.5)).toContain('50');
  });
});

describe('patches of a bed', () => {
  const mm = (value: number) => value;
  it('are read as typed; blank is none, rubbish is refused by NaN', () => {
    expect(patchOf({ patchFrom: '', patchTo: '', rows: '' }, mm)).toBeNull();
    expect(patchOf({ patchFrom: '', patchTo: '600', rows: '6' }, mm)).toEqual({
      fromMm: 0,
      toMm: 600,
      firstRow: 1,
      lastRow: 6,
    });
    expect(patchOf({ patchFrom: 'x', patchTo: '600', rows: '' }, mm)!.fromMm).toBeNaN();
  });
  it('stand in order from the bed’s end, without what is gone', () => {
    const patch = (fromMm: number) => ({ fromMm, toMm: fromMm + 100, firstRow: null, lastRow: null });
    const lots = [
      row({ code: 'B', patch: patch(500) }),
      row({ code: 'A', patch: patch(0) }),
      row({
        code: 'C',
        patch: patch(900),
        held: { seed: 0, sown: 0, standing: 0, lifted: 1, sent: 0, planted: 0, out: 1 },
      }),
      row({ code: 'D' }),
    ];
    expect(shownPatches(lots, 'bed').map((p) => p.code)).toEqual(['A', 'B']);
  });
});

describe('seed in words', () => {
  it('says shares, protocols and what is asked for', () => {
    expect(shareBand({ mean: 0.624, p10: 0.51, p90: 0.72 })).toBe('62\u00a0% (51 to 72)');
    expect(
      phasesWords([
        { kind: 'soak', days: 1 },
        { kind: 'cold', days: 60 },
      ]),
    ).toBe('soak 1 d, then cold, moist 60 d');
    expect(phasesWords([])).toContain('ready to sow');
    const act = {
      part: 'clock' as const,
      subjectId: 'b',
      rule: 'radicles-out' as const,
      when: 'now' as const,
      by: 20_004,
    };
    const words = seedActWords({ ...act, figures: { since: 20_000 } }, 'rowan', 20_001);
    expect(words.title).toBe('Sow rowan at once: radicles are out');
    expect(words.reason).toContain('root down, barely covered, mulch');
    for (const rule of [
      'sow-batch',
      'check-batch',
      'retest',
      'likely-dead',
      'sever',
      'look-layer',
      'keep-on',
    ] as const)
      expect(
        seedActWords(
          {
            ...act,
            rule,
            figures: { since: 1, chance: 0.5, alive: 0.4, low: 0.2, high: 0.6, severBy: 20_100 },
          },
          'it',
          20_001,
        ).title,
      ).toMatch(/it/);
  });
  it('counts all ever up by each day, takings-back and all', () => {
    const move = (on: string, from: 'sown' | 'standing', to: 'sown' | 'standing', count: number) => ({
      id: on,
      entry: on,
      on,
      from,
      to,
      count,
      note: '',
      reverses: null,
    });
    const ups = upBy({
      counts: [{ entry: 'c', on: '2026-05-01', count: 0, multi: null, damaged: null, patches: [], note: '' }],
      movements: [
        move('2026-05-10', 'sown', 'standing', 40),
        move('2026-05-20', 'sown', 'standing', 30),
        move('2026-05-21', 'standing', 'sown', 30),
      ],
    });
    expect(ups.map((u) => u.up)).toEqual([0, 40, 70, 40]);
  });
});

it('a stock of labels for bundles is found in any language', () => {
  const spoken = speechOf('es', { 'Bundle tag': 'Etiqueta de haz' });
  speakBy(() => spoken);
  try {
    expect(labelStocks.find(({ on }) => on === 'bundle')!.name).toBe('Etiqueta de haz');
  } finally {
    speakBy(() => english);
  }
});
