import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { jeffreys } from '../chance/betaCdf';
import { normalCdf } from '../chance/normal';
import { normalDraw, seededRandom } from '../chance/random';
import { COLLAR_CV, cvWeight, pooledCv } from '../growth/sizeBelief';
import { recompute } from '../working/working';
import { gradeOutlook, HEIGHT_COLLAR, type Between, type GradeClass } from './gradeOutlook';

/** A spread known for certain about one mean. */
const sure = (mean: number, cv: number): Between => ({
  means: Float64Array.of(mean),
  cv,
  cvOf: 1e12,
  measured: true,
});
const MANY = 1_000_000;
const grade = (fromCm: number | null, toCm: number | null, collarMm: number | null = null): GradeClass => ({
  fromCm,
  toCm,
  collarMm,
});
const ladder = [grade(20, 40), grade(40, 60), grade(60, null)];

describe('what a lot would give by grade', () => {
  it('is the share of a normal spread between the heights, where all is known', () => {
    const { grades, small, thin, beside, roots } = gradeOutlook(
      ladder,
      sure(50, 0.25),
      sure(6, 0.2),
      MANY,
      null,
    ).value;
    const below = (cm: number) => normalCdf((cm - 50) / 12.5);
    [below(40) - below(20), below(60) - below(40), 1 - below(60)].forEach((share, k) =>
      expect(grades[k].p50 / MANY).toBeCloseTo(share, 3),
    );
    expect(small.p50 / MANY).toBeCloseTo(below(20), 3);
    expect(thin.p50).toBe(0);
    expect(beside.p50).toBe(0);
    expect(roots).toBeNull();
  });
  it('looks at height and collar together: of a pair that go together by ρ, ¼ + asin ρ ÷ 2π are above both means', () => {
    const { grades, thin } = gradeOutlook(
      [grade(50, null, 6)],
      sure(50, 0.25),
      sure(6, 0.2),
      MANY,
      null,
    ).value;
    // Sheppard 1899.
    const both = 0.25 + Math.asin(HEIGHT_COLLAR) / (2 * Math.PI);
    expect(grades[0].p50 / MANY).toBeCloseTo(both, 2);
    expect(thin.p50 / MANY).toBeCloseTo(0.5 - both, 2);
  });
  it('counts what is too thin to the next lower grade that takes its collar, where the scheme says so', () => {
    const classes = [grade(20, 50, 3), grade(50, 70, 6), grade(70, null, 9)];
    const of = (rule: 'out' | 'lower') =>
      gradeOutlook(classes, sure(55, 0.25), sure(6, 0.2), MANY, null, rule).value;
    const [out, lower] = [of('out'), of('lower')];
    // None is of a higher grade for it, none is lost, and hardly any collar of such a lot is under 3 mm.
    expect(Math.abs(lower.grades[2].p50 - out.grades[2].p50) / MANY).toBeLessThan(1e-3);
    expect(lower.grades[0].p50).toBeGreaterThan(out.grades[0].p50 + 0.05 * MANY);
    expect(lower.thin.p50 / MANY).toBeLessThan(0.01);
    const sum = (bands: { p50: number }[]) => bands.reduce((total, { p50 }) => total + p50, 0);
    expect(sum(lower.grades) / MANY).toBeCloseTo((sum(out.grades) + out.thin.p50) / MANY, 2);
    // A tall tree with the collar of the middle grade is of the middle grade.
    expect(lower.grades[1].p50 + lower.grades[0].p50).toBeGreaterThan(out.grades[1].p50 + out.grades[0].p50);
  });
  it('counts every tree once, whatever is asked', () => {
    const classes = fc
      .array(
        fc.tuple(
          fc.integer({ min: 1, max: 20 }),
          fc.integer({ min: 1, max: 20 }),
          fc.option(fc.integer({ min: 1, max: 12 })),
        ),
        {
          minLength: 1,
          maxLength: 5,
        },
      )
      .map((steps) => {
        let at = 10;
        return steps.map(([gap, wide, collar]) => {
          const from = (at += gap);
          return grade(from, (at += wide), collar);
        });
      });
    fc.assert(
      fc.property(
        classes,
        fc.integer({ min: 0, max: 120 }),
        fc.integer({ min: 0, max: 6 }),
        fc.constantFrom('out' as const, 'lower' as const),
        (all, mean, failing, thinRule) => {
          const bad = failing ? jeffreys(failing, 12) : null;
          const { grades, small, thin, beside, roots } = gradeOutlook(
            all,
            sure(mean, 0.3),
            sure(mean / 8, 0.2),
            MANY,
            bad,
            thinRule,
          ).value;
          const bands = [...grades, small, thin, beside, ...(roots ? [roots] : [])];
          for (const { p10, p50, p90 } of bands) {
            expect(p10).toBeLessThanOrEqual(p50);
            expect(p50).toBeLessThanOrEqual(p90);
            expect(p10).toBeGreaterThanOrEqual(0);
          }
          // Medians of parts come to the whole where only roots vary.
          const total = bands.reduce((sum, { p50 }) => sum + p50, 0);
          expect(Math.abs(total / MANY - 1)).toBeLessThan(0.02);
        },
      ),
      { numRuns: 60 },
    );
  });
  it('takes none where nothing is up, and no more than stand', () => {
    const { grades, small } = gradeOutlook(ladder, sure(0, 0.25), sure(0, 0.2), 40, null).value;
    expect(grades.every(({ p90 }) => p90 === 0)).toBe(true);
    expect(small.p90).toBe(40);
    const few = gradeOutlook([grade(1, null)], sure(50, 0.25), sure(6, 0.2), 7, null).value;
    expect(few.grades[0].p90).toBeLessThanOrEqual(7);
  });
  it('shows a working that can be done again', () => {
    for (const { expression, result } of gradeOutlook(
      ladder,
      sure(50, 0.25),
      sure(6, 0.2),
      400,
      jeffreys(1, 10),
    ).working)
      if (expression) expect(recompute(expression)).toBeCloseTo(result as number, 2);
  });
  it('never calls a record what was assumed from its kind', () => {
    const kind = { ...sure(6, 0.2), measured: false };
    const originsOf = (heights: Between) =>
      gradeOutlook([grade(20, 40, 4)], heights, kind, 400, null).working.flatMap(({ inputs = [] }) =>
        inputs.filter(({ name }) => name !== 'trees that stand').map((one) => one.origin),
      );
    expect(new Set(originsOf({ ...sure(30, 0.25), measured: false }))).toEqual(new Set(['starting']));
    expect(originsOf(sure(30, 0.25)).filter((origin) => origin === 'starting')).toHaveLength(1);
  });
  it('holds 75–85 % of what simulated lots gave, for a nominal 80', () => {
    const random = seededRandom(20261130);
    const collared = [grade(20, 40, 4), grade(40, 60, 6), grade(60, null, 8)];
    let held = 0;
    let judged = 0;
    for (let lot = 0; lot < 240; lot++) {
      // A lot's mean as believed and as it is; its spread as it is, and as 24 plants showed it.
      const believed = 45 * Math.exp(0.2 * normalDraw(random));
      const mean = believed * Math.exp(0.1 * normalDraw(random));
      const cv = 0.25 * Math.exp(0.25 * normalDraw(random));
      const thick = (believed / 8) * Math.exp(0.1 * normalDraw(random));
      const plant = () => {
        const z = normalDraw(random);
        const other = HEIGHT_COLLAR * z + Math.sqrt(1 - HEIGHT_COLLAR ** 2) * normalDraw(random);
        return { cm: mean * (1 + cv * z), mm: thick * (1 + cv * COLLAR_CV * other) };
      };
      const measured = Array.from({ length: 24 }, plant);
      const between = (of: 'cm' | 'mm', believedMean: number, start: number): Between => {
        const values = measured.map((p) => p[of]);
        const seen = values.reduce((a, b) => a + b, 0) / values.length;
        const sd = Math.sqrt(values.reduce((t, x) => t + (x - seen) ** 2, 0) / (values.length - 1));
        const samples = [{ n: values.length, mean: seen, sd }];
        const means = Float64Array.from(
          { length: 300 },
          () => believedMean * Math.exp(0.1 * normalDraw(random)),
        );
        return { means, cv: pooledCv(samples, start), cvOf: cvWeight(samples), measured: true };
      };
      const trees = 60 + Math.floor(random() * 900);
      const outlook = gradeOutlook(
        collared,
        between('cm', believed, 0.25),
        between('mm', believed / 8, 0.25 * COLLAR_CV),
        trees,
        null,
      ).value;
      const given = [0, 0, 0];
      for (let i = 0; i < trees; i++) {
        const { cm, mm } = plant();
        const k = collared.findIndex((c) => cm >= c.fromCm! && cm < (c.toCm ?? Infinity));
        if (k >= 0 && mm >= collared[k].collarMm!) given[k]++;
      }
      outlook.grades.forEach((band, k) => {
        // Grades of which there are hardly any say nothing: whole numbers hold them all.
        if (band.p50 < 5) return;
        judged++;
        if (given[k] >= band.p10 && given[k] <= band.p90) held++;
      });
    }
    expect(judged).toBeGreaterThan(400);
    expect(held / judged).toBeGreaterThan(0.75);
    expect(held / judged).toBeLessThan(0.85);
  });
});
