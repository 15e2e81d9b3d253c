import {
  dayOf,
  formatQuantity,
  startingSpecies,
  type LotFacts,
  type LotForecast,
  type Standing,
} from '@kauri/core';
import type { Evidence } from '@kauri/core/contract';
import { describe, expect, it } from 'vitest';
import { byUrgency } from '../../parts/sortLots';
import { typedNumber } from '../../parts/typed';
import type { ShownLot } from '../../parts/useLots';
import { ribbonWindows } from '../../shell/ribbonWindows';
import type { LotView } from '../../workers/forecast.worker';
import { groundLine } from './groundLine';
import { dayAt, at, groundLineOption } from './groundLineOption';
import { nextCode } from './newLot';
import { recordLines } from './recordLines';

const day = dayOf;

describe('what is typed as a number', () => {
  it.each([
    ['12', 12],
    [' 12,5 ', 12.5],
    ['−3', -3],
    ['.5', 0.5],
    ['+7', 7],
  ])('“%s” is %f', (text, value) => expect(typedNumber(text)).toBe(value));
  it.each(['', 'x', '1,2,3', '1e9', '12cm', '0x1F', 'Infinity'])('“%s” is none', (text) =>
    expect(typedNumber(text)).toBeNaN(),
  );
});

describe('the next code', () => {
  it('is the first number not taken of that year and species', () => {
    expect(nextCode('ALN', '2026-04-08', ['26-ALN-01', '26-aln-02', '25-ALN-03'])).toBe('26-ALN-03');
    expect(nextCode('ALN', '2026-04-08', ['26-ALN-02'])).toBe('26-ALN-01');
  });
});

const evidence: Evidence = {
  roots: [],
  culls: [],
  events: [],
  care: [],
  shifts: [],
  stages: [],
  lotId: 'lot',
  counts: [
    { entry: 'c1', on: '2026-05-12', count: 70, multi: null, damaged: null, patches: [], note: 'by tray' },
  ],
  sizes: [
    { entry: 's1', on: '2026-08-01', what: 'height', n: 12, mean: 30, sd: 4 },
    { entry: 's1', on: '2026-08-01', what: 'diameter', n: 1, mean: 4, sd: 0 },
  ],
  pulls: [{ entry: 'p1', on: '2026-09-01', scores: [2, 3], spoiled: 1, note: '' }],
  movements: [
    {
      id: 'm0',
      entry: 'lot',
      on: '2026-04-08',
      from: 'supply',
      to: 'seed',
      count: 100,
      note: '',
      reverses: null,
    },
    {
      id: 'm1',
      entry: 'c1',
      on: '2026-05-12',
      from: 'sown',
      to: 'standing',
      count: 70,
      note: '',
      reverses: null,
    },
    {
      id: 'm2',
      entry: 'p1',
      on: '2026-09-01',
      from: 'standing',
      to: 'out:sampled',
      count: 1,
      note: '',
      reverses: null,
    },
    {
      id: 'm3',
      entry: 'l1',
      on: '2026-11-20',
      from: 'standing',
      to: 'lifted',
      count: 50,
      note: 'heeled in',
      reverses: null,
    },
    {
      id: 'm4',
      entry: 'l1',
      on: '2026-11-20',
      from: 'standing',
      to: 'out:culled',
      count: 4,
      note: 'heeled in',
      reverses: null,
    },
    {
      id: 'm5',
      entry: 'w1',
      on: '2026-11-21',
      from: 'sown',
      to: 'out:not-emerged',
      count: 30,
      note: '',
      reverses: null,
    },
    {
      id: 'm6',
      entry: 'l2',
      on: '2026-11-22',
      from: 'standing',
      to: 'lifted',
      count: 3,
      note: '',
      reverses: null,
    },
    {
      id: 'm7',
      entry: 'u1',
      on: '2026-11-24',
      from: 'lifted',
      to: 'standing',
      count: 3,
      note: 'taken back',
      reverses: 'm6',
    },
  ],
};

describe('the records of a lot', () => {
  const lines = recordLines(evidence, (value, quantity, digits) =>
    formatQuantity(value, quantity, 'metric', digits),
  );
  it('are one line a record, newest first, without sowing and without what was taken back', () => {
    expect(lines.map((line) => [line.what, line.on])).toEqual([
      ['Out', '2026-11-21'],
      ['Lift', '2026-11-20'],
      ['Pull', '2026-09-01'],
      ['Measure', '2026-08-01'],
      ['Count', '2026-05-12'],
    ]);
  });
  it('say all that one record holds', () => {
    expect(lines[4].words).toMatch(/^\d+ standing$/);
    const [count] = evidence.counts;
    const patches = [
      { name: 'North end', counted: count.count - 5 },
      { name: 'South end', counted: 5 },
    ];
    const apart = recordLines({ ...evidence, counts: [{ ...count, patches }] }, String).find(
      (line) => line.what === 'Count',
    );
    expect(apart!.words).toBe(`${count.count} standing: North end ${count.count - 5}, South end 5`);
    expect(lines[0].words).toBe('30 seeds did not come up');
    expect(lines[1]).toMatchObject({ words: '50 trees lifted; 4 trees culled', note: 'heeled in' });
    // Grades of one lift are told together, and so is what one sending took of them.
    const lift = evidence.movements.find((m) => m.id === 'm3')!;
    const more = [
      { ...lift, id: 'm8', count: 20 },
      ...[15, 5].map((n) => ({
        ...lift,
        id: `s${n}`,
        entry: 'sending',
        from: 'lifted' as const,
        to: 'sent' as const,
        count: n,
        note: '',
      })),
    ];
    const sent = recordLines({ ...evidence, movements: [...evidence.movements, ...more] }, String);
    expect(sent.map(({ what, words }) => [what, words])).toContainEqual(['Sent', '20 trees sent out']);
    expect(sent.map(({ words }) => words)).toContainEqual('70 trees lifted; 4 trees culled');
    // A sending is known by what it is, not by its words.
    expect(sent.filter((line) => line.isSending).map(({ entry }) => entry)).toEqual(['sending']);
    // What came back is one record too, the dead among it, and taken back where it was written.
    const came = { ...lift, entry: 'back', note: '' };
    const back = [
      { ...came, id: 'b1', from: 'sent' as const, to: 'lifted' as const, count: 6 },
      { ...came, id: 'b2', from: 'lifted' as const, to: 'out:drought' as const, count: 2 },
    ];
    const [cameBack] = recordLines(
      { ...evidence, movements: [...evidence.movements, ...back] },
      String,
    ).filter(({ entry }) => entry === 'back');
    expect(cameBack).toMatchObject({
      what: 'Came back',
      words: '6 trees came back; 2 trees drought',
      isSending: true,
    });
    expect(lines[2].words).toBe('2 holds, 3 tight; 1 spoiled');
    expect(lines[3].words).toBe(
      'height 30.0\u00a0cm ± 4.0\u00a0cm, 12 plants; collar 4.0\u00a0mm ± 0.0\u00a0mm, 1 plant',
    );
  });
});

const flat = (value: number) => ({ p10: value * 0.9, p50: value, p90: value * 1.1 });
const on = (iso: string) => ({ p10: day(iso) - 10, p50: day(iso), p90: day(iso) + 10 });
const facts: LotFacts = {
  id: 'lot',
  code: '26-ALN-01',
  species: startingSpecies[0].values,
  sownOn: day('2026-04-08'),
  seedState: 'ready',
  home: { kind: 'container', name: 'Tube', cellMl: 150, depthMm: 165, airShare: 0.3 },
  targetHeightCm: 30,
  leafFallOn: null,
  counts: [],
  sizes: [
    { day: day('2026-08-01'), what: 'height', n: 12, mean: 30, sd: 4 },
    { day: day('2026-12-24'), what: 'height', n: 12, mean: 90, sd: 4 },
  ],
  pulls: [{ day: day('2026-09-01'), scores: [2, 3] }],
  movements: [],
};
const forecast = {
  lotId: 'lot',
  asOf: day('2026-11-24'),
  emergence: { seen: day('2026-05-12'), band: on('2026-05-12') },
  ready: on('2026-09-19'),
  bound: on('2027-05-28'),
  toTarget: on('2026-08-01'),
  lid: null,
  lifting: { from: day('2026-11-14'), until: day('2027-03-28'), bestBefore: day('2027-03-17') },
  state: {
    day: day('2026-11-24'),
    heightCm: flat(35),
    diameterMm: flat(5),
    fill: flat(0.8),
    chanceReady: 1,
    chanceBound: 0,
    shareToSize: 0.8,
  },
  course: {
    days: ['2026-04-08', '2026-06-08', '2026-08-08', '2026-11-24', '2027-02-24', '2027-06-24'].map(day),
    heightCm: [2.5, 12, 30, 35, 35, 38].map(flat),
    fill: [0.01, 0.1, 0.5, 0.8, 0.82, 1.05].map(flat),
  },
} as unknown as LotForecast;
const standing = (status: Standing['status'], decision: Standing['decision']): Standing => ({
  status,
  decision,
  tally: { seeds: 100, sown: 0, standing: 70, lifted: 0, sent: 0, planted: 0, out: 30, balances: true },
  urgent: false,
});
const ready = standing('ready', {
  kind: 'move-by',
  holdsSince: day('2026-09-19'),
  by: day('2027-05-18'),
  half: day('2027-05-28'),
});

describe('the chart of a lot', () => {
  const line = groundLine(facts, forecast, ready)!;
  it('begins where it came up, and shows nothing as seen that lies ahead', () => {
    expect(line.height[0].day).toBe(day('2026-06-08'));
    expect(line.samples.map((s) => s.value)).toEqual([30]);
    expect(line.pulls[0].value).toBeCloseTo((0.75 + 1) / 2, 9);
    expect(line.tallest).toBeGreaterThan(38 * 1.1);
  });
  it('marks the holding window and the risk after it, and nothing for what is lifted', () => {
    expect(line.windows).toEqual([
      { words: 'plug holds', from: day('2026-09-19'), to: day('2027-05-18'), risk: false },
      { words: 'root-bound risk', from: day('2027-05-18'), to: day('2027-06-07'), risk: true },
    ]);
    expect(groundLine(facts, forecast, standing('lifted', { kind: 'done' }))!.windows).toEqual([]);
  });
  it('has the lid for a bed, and no plug lines', () => {
    const inBed = {
      ...facts,
      home: { kind: 'bed', densityPerM2: 240, settledDepthMm: 270, airShare: 0.7, headroomCm: 33 } as const,
    };
    const bed = groundLine(
      inBed,
      forecast,
      standing('lift', { kind: 'lift', from: 1, bestBefore: 2, until: 3 }),
    )!;
    expect(bed.lines.map((l) => l.words)).toEqual(['wanted', 'lid']);
    expect(bed.windows[0].words).toBe('lift');
  });
  it('is drawn in the grower’s own units, past whole and ahead broken', () => {
    const shown = (v: number) => v / 2.54;
    const option = groundLineOption(line, () => '#123456', { shown, unit: () => 'in' }, true) as {
      series: { type: string; data: number[][]; lineStyle?: { type?: number[] } }[];
      yAxis: { name?: string; max: number }[];
    };
    expect(option.yAxis[0].name).toBe('in');
    expect(option.yAxis[0].max).toBeCloseTo(line.tallest / 2.54, 9);
    const [, past, ahead] = option.series;
    expect(past.lineStyle?.type).toBeUndefined();
    expect(ahead.lineStyle?.type).toBeDefined();
    // The two meet on the day the forecast is made.
    expect(past.data.at(-1)).toEqual(ahead.data[0]);
    expect(dayAt(at(20_000))).toBe(20_000);
  });
});

describe('a lot’s windows on the ribbon', () => {
  const strip = { start: day('2026-01-01'), end: day('2027-03-31') };
  const view = (s: Standing) => ({ forecast, standing: s, acts: [] }) as unknown as LotView;
  it('are cut to the strip', () => {
    const windows = ribbonWindows(view(ready), strip);
    expect(windows).toMatchObject([{ words: 'plug holds', from: day('2026-09-19'), to: strip.end }]);
  });
  it('are those of its way of standing', () => {
    const lift = standing('lift', { kind: 'lift', from: 1, bestBefore: 2, until: 3 });
    expect(ribbonWindows(view(lift), strip).map((w) => w.words)).toEqual(['lift']);
    expect(
      ribbonWindows(
        view(standing('waiting', { kind: 'await-emergence', from: 0, around: 1, by: 2 })),
        strip,
      )[0].words,
    ).toBe('comes up');
    expect(ribbonWindows(view(standing('ended', { kind: 'done' })), strip)).toEqual([]);
  });
});

describe('the order of lots', () => {
  const lot = (code: string, s: Standing) =>
    ({ row: { code }, view: { standing: s } }) as unknown as ShownLot;
  it('has what waits least first, then by date, then by code', () => {
    const by = (d: number) => standing('ready', { kind: 'move-by', holdsSince: 0, by: d, half: d });
    const lots = [
      lot('E', standing('lifted', { kind: 'done' })),
      lot('D', by(50)),
      lot('C', by(20)),
      lot('B', by(20)),
      lot('A', standing('bound', { kind: 'move-now', boundSince: 1, chanceBound: 1 })),
    ];
    expect(lots.sort(byUrgency).map((l) => l.row.code)).toEqual(['A', 'B', 'C', 'D', 'E']);
  });
});
