import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOf } from '../calendar/day';
import { generateWeather } from '../weather/generator';
import { roughNormals } from '../weather/normals';
import { recompute, type Step } from '../working/working';
import { bucketHolds, cropCoefficient, runBalance, waterPlan, waterYears, type Bucket } from './balance';
import { dripGrid } from './dripGrid';
import { lateralUniformity, longestLateral } from './lateralUniformity';
import { waterFault, type WaterReading } from './response';
import { bucketTest, USABLE_SUPPLY, zonesFor } from './supply';

function expectToRecompute(steps: readonly Step[]) {
  for (const step of steps)
    if (step.expression && typeof step.result === 'number')
      expect(recompute(step.expression) / (step.result || 1), step.what).toBeCloseTo(step.result ? 1 : 0, 4);
}

const bed = { insideLengthMm: 2930, insideWidthMm: 1130 };
const line = {
  emitterSpacingM: 0.3,
  nominalFlowLph: 1.6,
  nominalPressureM: 10,
  exponent: 0.5,
  insideDiameterMm: 6,
  inletPressureM: 10,
  manufacturingCv: 0.04,
};

describe('a drip grid', () => {
  it('lies centred, whole lines and whole emitters, as its working says', () => {
    const { value, working } = dripGrid({
      ...bed,
      lineSpacingMm: 300,
      emitterSpacingMm: 300,
      emitterFlowLph: 1.6,
    });
    expect(value).toMatchObject({ lines: 3, emittersPerLine: 9, emitters: 27 });
    expect(value.totalFlowLph).toBeCloseTo(43.2, 9);
    expect(value.applicationMmPerH).toBeCloseTo(43.2 / 3.3109, 4);
    expect(value.lineAtMm).toEqual([265, 565, 865]);
    expectToRecompute(working);
  });
  it('stays inside any bed, evenly about its middle', () => {
    fc.assert(
      fc.property(
        fc.record({
          insideLengthMm: fc.integer({ min: 200, max: 9000 }),
          insideWidthMm: fc.integer({ min: 200, max: 1500 }),
          lineSpacingMm: fc.integer({ min: 60, max: 900 }),
          emitterSpacingMm: fc.integer({ min: 60, max: 900 }),
          emitterFlowLph: fc.double({ min: 0.2, max: 8, noNaN: true }),
        }),
        (choice) => {
          const { value } = dripGrid(choice);
          expect(value.lineAtMm).toHaveLength(value.lines);
          for (const [at, length] of [
            [value.lineAtMm, choice.insideWidthMm],
            [value.emitterAtMm, choice.insideLengthMm],
          ] as const) {
            expect(Math.min(...at)).toBeGreaterThanOrEqual(0);
            expect(Math.max(...at)).toBeLessThanOrEqual(length);
            expect(at[0] + at[at.length - 1]).toBeCloseTo(length, 6);
          }
        },
      ),
    );
  });
  it('is refused without a spacing', () => {
    expect(() => dripGrid({ ...bed, lineSpacingMm: 0, emitterSpacingMm: 300, emitterFlowLph: 1 })).toThrow(
      /above 0/,
    );
  });
});

describe('a drip line', () => {
  it('loses pressure and flow towards its end, less the wider it is', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 200 }),
        fc.double({ min: 3, max: 20, noNaN: true }),
        (emitters, d) => {
          const { value } = lateralUniformity({ ...line, emitters, insideDiameterMm: d });
          expect(value.endPressureM).toBeLessThanOrEqual(line.inletPressureM);
          for (let i = 1; i < emitters; i++)
            expect(value.flowsLph[i]).toBeLessThanOrEqual(value.flowsLph[i - 1] + 1e-9);
          const wider = lateralUniformity({ ...line, emitters, insideDiameterMm: d * 1.2 }).value;
          expect(wider.emissionUniformityPct).toBeGreaterThanOrEqual(value.emissionUniformityPct - 1e-6);
        },
      ),
    );
  });
  it('gives the pressure it was asked for when stepped back up', () => {
    const { value } = lateralUniformity({ ...line, emitters: 40 });
    let pressure = value.endPressureM;
    let carried = 0;
    for (const flow of [...value.flowsLph].reverse()) {
      carried += flow;
      pressure +=
        (7.89e7 * (carried / 3600) ** 1.75 * line.emitterSpacingM) / line.insideDiameterMm ** 4.75 / 100;
    }
    expect(pressure).toBeCloseTo(line.inletPressureM, 6);
    expectToRecompute(lateralUniformity({ ...line, emitters: 40 }).working);
  });
  it('is as long as its uniformity allows, and not one emitter longer', () => {
    const most = longestLateral(line);
    const eu = (emitters: number) => lateralUniformity({ ...line, emitters }).value.emissionUniformityPct;
    expect(eu(most)).toBeGreaterThanOrEqual(85);
    expect(eu(most + 1)).toBeLessThan(85);
    expect(longestLateral({ ...line, manufacturingCv: 0.3 })).toBe(0);
  });
  it.each([
    [{ inletPressureM: 0 }, /Without pressure/],
    [{ insideDiameterMm: 0 }, /above 0/],
  ])('%o is refused in a sentence', (wrong, sentence) => {
    expect(() => lateralUniformity({ ...line, emitters: 10, ...wrong })).toThrow(sentence);
  });
});

describe('the supply', () => {
  it('is what fills a bucket', () => {
    const { value, working } = bucketTest(10, 43);
    expect(value).toBeCloseTo(837.2, 1);
    expectToRecompute(working);
    expect(() => bucketTest(10, 0)).toThrow(/above 0/);
  });
  it('is never exceeded by a zone, and every place is in one', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 1, max: 300, noNaN: true }), { maxLength: 30 }),
        fc.integer({ min: 400, max: 2000 }),
        (flows, supply) => {
          const zones = zonesFor(
            flows.map((flowLph, i) => ({ placeId: `p${i}`, flowLph })),
            supply,
          );
          expect(zones.flatMap((z) => z.placeIds).sort()).toEqual(flows.map((_, i) => `p${i}`).sort());
          for (const z of zones) expect(z.flowLph).toBeLessThanOrEqual(supply * USABLE_SUPPLY + 1e-6);
        },
      ),
    );
  });
  it('names a place that alone needs more than the tap gives', () => {
    expect(() => zonesFor([{ placeId: 'a', flowLph: 900 }], 840, () => 'Bed 3')).toThrow(
      /^Bed 3 alone needs 900 L\/h; the tap gives 840/,
    );
  });
});

const deep: Bucket = {
  depthMm: 280,
  heldShare: 0.3,
  canopyCover: 1,
  dryDown: 0.5,
  rainShare: 0.9,
  applicationMmPerH: 13,
};
const site = { latitudeDeg: 54.6, elevationM: 185 };
const from = dayOf('2026-05-04');
const series = generateWeather(roughNormals(54.6, 185), dayOf('2016-01-01'), 3980, 5);

describe('the water balance', () => {
  it('never holds more than full or less than nothing, and waters only past the dry-down', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            et: fc.double({ min: 0, max: 9, noNaN: true }),
            rain: fc.double({ min: 0, max: 60, noNaN: true }),
          }),
          {
            minLength: 1,
            maxLength: 200,
          },
        ),
        fc.boolean(),
        (days, rainOnly) => {
          const run = runBalance(
            deep,
            days.map((d) => d.et),
            days.map((d) => d.rain),
            0,
            rainOnly,
          );
          for (const missing of run.depletionMm) {
            expect(missing).toBeGreaterThanOrEqual(0);
            expect(missing).toBeLessThanOrEqual(84 + 1e-9);
            if (!rainOnly) expect(missing).toBeLessThanOrEqual(42 + 1e-9);
          }
          if (rainOnly) expect(run.wateredOn).toEqual([]);
        },
      ),
    );
  });
  it('conserves water over a run by hand', () => {
    const run = runBalance({ ...deep, canopyCover: 0, rainShare: 1 }, [10, 10, 10], [0, 1, 0]);
    expect([...run.depletionMm].map((d) => Math.round(d * 10) / 10)).toEqual([3, 5, 8]);
    expect(cropCoefficient(0)).toBe(0.3);
    expect(cropCoefficient(2)).toBe(1);
  });
  it('a deeper bed waits longer, a shallow pot is watered far more often', () => {
    const years = waterYears(series, site, from, 140);
    expect(years.length).toBeGreaterThanOrEqual(8);
    const plan = (bucket: Bucket) => waterPlan(bucket, years, from).value;
    const total = (bucket: Bucket) => plan(bucket).weeks.reduce((t, w) => t + w.times, 0);
    expect(plan(deep).firstNeedDays).toBeGreaterThan(plan({ ...deep, depthMm: 100 }).firstNeedDays);
    expect(total({ ...deep, depthMm: 100 })).toBeGreaterThan(total(deep));
    expect(plan({ ...deep, rainShare: 0 }).rainOnlyShare).toBe(0);
    expect(plan(deep).weeks).toHaveLength(20);
    expectToRecompute(waterPlan(deep, years, from).working);
    expectToRecompute(bucketHolds(deep).working);
  });
  it('is not planned from nothing', () => {
    expect(() => waterPlan(deep, [], from)).toThrow(/past years/);
    expect(waterYears(series, site, dayOf('2050-01-01'), 100).length).toBeGreaterThan(0);
  });
});

describe('what the readings say', () => {
  const good: WaterReading = { day: 1, askedLitres: 20, litres: 20, before: 0.6, after: 0.95 };
  it.each([
    [null, [good, good, good]],
    ['stuck-closed', [good, { ...good, litres: 0, after: 0.6 }].slice(1)],
    ['stuck-open', [{ ...good, askedLitres: 0, litres: 260 }]],
    ['dead-probe', [{ ...good, before: null, after: null }]],
    [
      'no-response',
      [
        { ...good, after: 0.6 },
        { ...good, after: 0.605 },
      ],
    ],
    [null, []],
    [null, [{ ...good, askedLitres: 0, litres: 0, after: 0.6 }]],
  ] as const)('%s', (fault, readings) => {
    expect(waterFault(readings)).toBe(fault);
  });
  it('no flow anywhere is the supply, not a valve', () => {
    expect(waterFault([{ ...good, litres: 0 }], false)).toBe('no-supply');
  });
});
