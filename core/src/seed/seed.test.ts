import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { betaMean } from '../chance/beta';
import { normalDraw, seededRandom } from '../chance/random';
import { normalCdf, normalQuantile } from '../chance/normal';
import { recompute } from '../working/working';
import { readGermination } from './germinationTest';
import { passportColumns, passportLine, readSeedLot, seedLotLine, type SeedLotRecord } from './passport';
import { mustRun, protocolsFrom, wintersOf } from '../species/protocol';
import { mustAgree, mustHold, seedHeld, takenByCount, takenByMass } from './seedStore';
import { viabilityAt, viabilityOutlook, viabilityPosterior, type StoredLot } from './seedViability';
import { moistureFactor, storeFactor, stores } from '../species/startValues';
import { viabilityAfter } from './viability';

const lot = (more: Partial<StoredLot> = {}): StoredLot => ({
  since: 20_000,
  fresh: { alpha: 7, beta: 3 },
  sigmaDays: { median: 700, sdLog: 0.4 },
  tests: [],
  ...more,
});

describe('viability in store', () => {
  it('only falls, and its working recomputes', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.02, max: 0.98, noNaN: true }),
        fc.integer({ min: 5, max: 5000 }),
        fc.integer({ min: 0, max: 2000 }),
        fc.integer({ min: 1, max: 500 }),
        (initial, sigmaDays, days, more) => {
          const { value, working } = viabilityAfter({ initial, sigmaDays }, days);
          expect(value).toBeLessThanOrEqual(initial + 1e-12);
          expect(viabilityAfter({ initial, sigmaDays }, days + more).value).toBeLessThanOrEqual(value);
          expect(recompute(working[0].expression!)).toBeCloseTo(working[0].result as number, 4);
        },
      ),
    );
  });

  it.each([
    [{ initial: 0, sigmaDays: 100 }, 1, /between 0 and 100/],
    [{ initial: 0.5, sigmaDays: 0 }, 1, /above 0/],
    [{ initial: 0.5, sigmaDays: 10 }, -1, /0 or more/],
    [{ initial: NaN, sigmaDays: 10 }, 1, /between/],
  ])('%j after %d days is refused with a sentence', (seed, days, sentence) => {
    expect(() => viabilityAfter(seed, days)).toThrow(sentence);
  });

  it('keeps worse out of its proper store, and recalcitrant seed dies frozen or dry', () => {
    for (const store of stores) expect(storeFactor('orthodox', store)).toBeLessThanOrEqual(3);
    expect(storeFactor('orthodox', 'freezer')).toBeGreaterThan(storeFactor('orthodox', 'fridge'));
    expect(storeFactor('recalcitrant', 'freezer')).toBeLessThan(0.1);
    expect(moistureFactor('recalcitrant', 20)).toBeLessThan(moistureFactor('recalcitrant', 45));
    expect(moistureFactor('orthodox', 15)).toBeLessThan(moistureFactor('orthodox', 8));
    expect(moistureFactor('orthodox', null)).toBe(1);
  });
});

describe('what tests say of a seed lot', () => {
  it('starts at the species’ value and moves to what was counted', () => {
    const before = viabilityAt(viabilityPosterior(lot()), 20_000);
    expect(before.mean).toBeCloseTo(0.7, 1);
    const after = viabilityAt(
      viabilityPosterior(lot({ tests: [{ day: 20_000, kind: 'germination', n: 100, k: 40 }] })),
      20_000,
    );
    expect(after.mean).toBeGreaterThan(0.38);
    expect(after.mean).toBeLessThan(0.5);
    expect(after.p90 - after.p10).toBeLessThan(before.p90 - before.p10);
    expect(betaMean(after.beta)).toBeCloseTo(after.mean, 3);
  });

  it('a cut test says less than a germination test of the same seeds', () => {
    const width = (kind: 'cut' | 'germination' | 'float') => {
      const v = viabilityAt(
        viabilityPosterior(lot({ tests: [{ day: 20_000, kind, n: 50, k: 25 }] })),
        20_000,
      );
      return v.p90 - v.p10;
    };
    expect(width('germination')).toBeLessThan(width('cut'));
    expect(width('cut')).toBeLessThan(width('float'));
  });

  it('two tests a year apart teach how fast this lot ages', () => {
    const tests = [
      { day: 20_000, kind: 'germination' as const, n: 200, k: 160 },
      { day: 20_400, kind: 'germination' as const, n: 200, k: 60 },
    ];
    const slow = viabilityOutlook(lot({ tests: tests.slice(0, 1) }), 20_400).value;
    const quick = viabilityOutlook(lot({ tests }), 20_400).value;
    expect(quick.now.mean).toBeLessThan(slow.now.mean - 0.15);
    expect(quick.deadOn).toBeLessThan(slow.deadOn);
  });

  it('holds the truth within its band eight times in ten', () => {
    const random = seededRandom(5);
    let inside = 0;
    const trials = 300;
    for (let t = 0; t < trials; t++) {
      // The truth is drawn from what is believed before: Beta(7, 3) by its probit, σ log-normal.
      let v = 0;
      do v = normalCdf(normalQuantile(0.7) + 0.48 * normalDraw(random));
      while (v <= 0.01 || v >= 0.99);
      const sigma = 700 * Math.exp(0.4 * normalDraw(random));
      const p = (day: number) => normalCdf(normalQuantile(v) - day / sigma);
      let k = 0;
      for (let i = 0; i < 50; i++) if (random() < p(100)) k++;
      const now = viabilityAt(
        viabilityPosterior(lot({ tests: [{ day: 20_100, kind: 'germination', n: 50, k }] })),
        20_300,
      );
      if (now.p10 <= p(300) && p(300) <= now.p90) inside++;
    }
    expect(inside / trials).toBeGreaterThan(0.74);
    expect(inside / trials).toBeLessThan(0.88);
  });

  it('asks for a test where none germinated any, and later as the band grows', () => {
    expect(viabilityOutlook(lot(), 20_010).value.retestOn).toBe(20_010);
    const tested = viabilityOutlook(
      lot({ tests: [{ day: 20_000, kind: 'germination', n: 200, k: 150 }] }),
      20_010,
    ).value;
    expect(tested.retestOn).toBeGreaterThan(20_100);
    expect(tested.deadOn).toBeGreaterThan(tested.retestOn);
  });

  it('recalcitrant seed is dead within two winters', () => {
    const acorns = viabilityOutlook(
      lot({ fresh: { alpha: 8.5, beta: 1.5 }, sigmaDays: { median: 75, sdLog: 0.4 } }),
      20_000,
    ).value;
    expect(acorns.deadOn - 20_000).toBeGreaterThan(100);
    expect(acorns.deadOn - 20_000).toBeLessThan(500);
  });

  it.each([
    [{ day: 20_010, kind: 'germination' as const, n: 10, k: 11 }, /11 of 10/],
    [{ day: 20_010, kind: 'cut' as const, n: 0, k: 0 }, /at least one/],
    [{ day: 19_999, kind: 'germination' as const, n: 10, k: 5 }, /before the seed was collected/],
  ])('%j is refused with a sentence', (test, sentence) => {
    expect(() => viabilityPosterior(lot({ tests: [test] }))).toThrow(sentence);
  });
});

describe('a germination test’s counts', () => {
  it('give share, half day and whether it ended too soon', () => {
    const reading = readGermination(
      [
        { day: 4, germinated: 3 },
        { day: 7, germinated: 10 },
        { day: 14, germinated: 7 },
      ],
      40,
      28,
    );
    expect(reading).toMatchObject({ k: 20, share: 0.5, halfDay: 7, endedEarly: false });
    expect(reading.meanDays).toBeCloseTo((12 + 70 + 98) / 20);
    expect(readGermination([{ day: 27, germinated: 1 }], 40, 28).endedEarly).toBe(true);
    expect(readGermination([], 40, 28)).toMatchObject({ k: 0, halfDay: null, meanDays: null });
  });
  it.each([
    [[{ day: 3, germinated: 50 }], /50 of 40/],
    [[{ day: 30, germinated: 1 }], /run of 28/],
    [
      [
        { day: 5, germinated: 1 },
        { day: 4, germinated: 1 },
      ],
      /does not follow/,
    ],
  ])('%j is refused', (counts, sentence) => {
    expect(() => readGermination(counts, 40, 28)).toThrow(sentence);
  });
});

describe('protocols', () => {
  it('are read as a table writes them', () => {
    expect(protocolsFrom('soak1 cold60 | tub: cold90 | sown: warm30 cold90')).toEqual([
      {
        school: 'indoors',
        phases: [
          { kind: 'soak', days: 1 },
          { kind: 'cold', days: 60 },
        ],
      },
      { school: 'tub', phases: [{ kind: 'cold', days: 90 }] },
      {
        school: 'sown',
        phases: [
          { kind: 'warm', days: 30 },
          { kind: 'cold', days: 90 },
        ],
      },
    ]);
    expect(protocolsFrom('')).toEqual([{ school: 'indoors', phases: [] }]);
    expect(wintersOf(protocolsFrom('cold30 warm60 cold90')[0].phases)).toBe(2);
  });
  it('refuses a phase of no days, one too long, and one not known', () => {
    expect(() => mustRun([{ kind: 'cold', days: 0 }])).toThrow(/longer than zero days/);
    expect(() => mustRun([{ kind: 'cold', days: 900 }])).toThrow(/two years/);
    expect(() => protocolsFrom('freeze20')).toThrow(/not a phase/);
  });
});

describe('the seed store', () => {
  it('balances by mass and by count', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 1000 }), { maxLength: 8 }), (takes) => {
        const moves = [{ grams: 1e4, seeds: 1e5 }, ...takes.map((g) => ({ grams: -g, seeds: -10 * g }))];
        const held = seedHeld(moves);
        expect(held.seeds).toBeCloseTo(held.grams * 10, 6);
      }),
    );
  });
  it('refuses more than it holds, and a mass and count that disagree', () => {
    expect(() => mustHold({ grams: 10, seeds: 100 }, { grams: 11, seeds: 90 }, 'S1')).toThrow(/holds 10 g/);
    expect(() => mustHold({ grams: 10, seeds: 100 }, { grams: 10, seeds: 100 }, 'S1')).not.toThrow();
    expect(() => mustAgree(100, 50, 10_000)).toThrow(/about 1000 seeds/);
    expect(() => mustAgree(100, 1100, 10_000)).not.toThrow();
  });
});

describe('seed lots in files', () => {
  const record: SeedLotRecord = {
    code: 'S-26-04',
    latin: 'Sorbus aucuparia',
    common: 'Rowan',
    collectedOn: '2026-09-12',
    receivedOn: '2026-10-01',
    grams: 320,
    seedsPerKg: 280_000,
    moisturePct: null,
    store: 'fridge',
    price: null,
    provenance: {
      place: 'Upper wood, north bank',
      latitudeDeg: 54.61,
      longitudeDeg: -2.41,
      altitudeM: 260,
      zone: 'Upland 3',
      collector: 'Isla',
      parents: 24,
    },
    note: 'Cleaned wet',
  };
  it('come back as they went out, in both column sets', () => {
    expect(readSeedLot({ ...seedLotLine(record) }, () => null)).toEqual(record);
    const line = passportLine(record);
    expect(Object.keys(line)).toEqual([...passportColumns]);
    expect(line.COLLDATE).toBe('20260912');
    expect(readSeedLot(line, () => null)).toEqual(record);
  });
  it('read a passport with part of a date, and take seeds a kilogram from the species', () => {
    const line = {
      ACCENUMB: 'X1',
      GENUS: 'Betula',
      SPECIES: 'pendula',
      COLLDATE: '2024----',
      REMARKS: 'grams:5',
    };
    expect(readSeedLot(line, () => 1_500_000)).toMatchObject({
      collectedOn: '2024-07-15',
      seedsPerKg: 1_500_000,
    });
  });
  it.each([
    [{ code: '', latin: 'A b', received_on: '2026-01-01', grams: '3' }, /code is missing/],
    [{ code: 'A', latin: '', received_on: '2026-01-01', grams: '3' }, /species is missing/],
    [{ code: 'A', latin: 'A b', received_on: '2026-02-30', grams: '3' }, /does not exist|that exists/],
    [{ code: 'A', latin: 'A b', received_on: '2026-01-01', grams: 'x' }, /not a number/],
    [{ code: 'A', latin: 'A b', received_on: '2026-01-01', grams: '0' }, /mass/],
    [{ code: 'A', latin: 'A b', received_on: '2026-01-01', grams: '3', latitude: '95' }, /off the globe/],
    [
      { code: 'A', latin: 'A b', received_on: '2026-01-01', collected_on: '2026-05-01', grams: '3' },
      /before it was collected/,
    ],
    [{ code: 'A', latin: 'A b', received_on: '2026-01-01', grams: '3', store: 'attic' }, /attic/],
  ])('%j is refused with a sentence', (line, sentence) => {
    expect(() => readSeedLot(line as Record<string, string>, () => 1000)).toThrow(sentence);
  });
});

describe('seed out of a counted bag', () => {
  const held = { grams: 100, seeds: 4950 };
  it('goes by the bag’s own seeds a gram, whatever its kind has', () => {
    expect(takenByMass(held, 20, 60_000)).toEqual({ grams: 20, seeds: 990 });
    expect(takenByCount(held, 990, 60_000).grams).toBeCloseTo(20, 9);
    expect(takenByMass({ grams: 0, seeds: 0 }, 20, 60_000)).toEqual({ grams: 20, seeds: 1200 });
  });
  it('is all of it at all of its mass, as scales and screens round it', () => {
    for (const grams of [100, 99.7, 100.4]) expect(takenByMass(held, grams, 60_000)).toEqual(held);
    expect(takenByCount(held, 4950, 60_000)).toEqual(held);
    expect(() => mustHold(held, takenByMass(held, 100, 60_000), 'bag')).not.toThrow();
    expect(() => mustHold(held, takenByMass(held, 102, 60_000), 'bag')).toThrow(/holds 100 g/);
  });
});
