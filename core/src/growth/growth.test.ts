import { Unfit } from '../working/unfit';
import { densityFactor, depthFactor } from '../home/factors';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { studentQuantile, normalCdf, normalQuantile } from '../chance/normal';
import { normalDraw, seededRandom } from '../chance/random';
import { gompertz, gompertzTime } from './gompertz';
import { sampleSize, summarise } from './sample';
import { drawSizes, sizePosterior } from './sizePosterior';

const curve = fc.record({
  asymptote: fc.double({ min: 10, max: 200, noNaN: true }),
  rate: fc.double({ min: 0.001, max: 0.008, noNaN: true }),
});

describe('the growth curve', () => {
  it('begins at the seedling, rises, and stays below its end', () => {
    fc.assert(
      fc.property(
        curve,
        fc.double({ min: 0, max: 3000, noNaN: true }),
        fc.double({ min: 0, max: 500, noNaN: true }),
        (c, tau, more) => {
          expect(gompertz(c.asymptote, 2.5, c.rate, 0)).toBeCloseTo(2.5, 9);
          const now = gompertz(c.asymptote, 2.5, c.rate, tau);
          expect(gompertz(c.asymptote, 2.5, c.rate, tau + more)).toBeGreaterThanOrEqual(now - 1e-9);
          expect(now).toBeLessThanOrEqual(c.asymptote);
        },
      ),
    );
  });
  it('and the time it takes to a size are each other’s inverse', () => {
    fc.assert(
      fc.property(curve, fc.double({ min: 0.1, max: 0.95, noNaN: true }), (c, share) => {
        const size = 2.5 + share * (c.asymptote - 2.5);
        expect(gompertz(c.asymptote, 2.5, c.rate, gompertzTime(c.asymptote, 2.5, c.rate, size))).toBeCloseTo(
          size,
          6,
        );
      }),
    );
    expect(gompertzTime(30, 2.5, 0.003, 31)).toBe(Infinity);
    expect(gompertzTime(30, 2.5, 0.003, 1)).toBe(0);
  });
  it('suffers from shallow and crowded beds', () => {
    expect(depthFactor(75)).toBeCloseTo(1 - 1 / Math.E, 12);
    expect(depthFactor(300)).toBeGreaterThan(depthFactor(150));
    expect(densityFactor(250, 250)).toBeCloseTo(2 ** -0.4, 12);
    expect(densityFactor(400, 250)).toBeLessThan(densityFactor(100, 250));
  });
});

describe('what is believed of a lot’s size', () => {
  const start = { asymptote: { median: 40, sdLog: 0.3 }, rate: { median: 0.003, sdLog: 0.25 }, initial: 2.5 };
  const mean = (values: Float64Array) => values.reduce((a, b) => a + b, 0) / values.length;
  it('rests wholly on the starting value before any sample', () => {
    const p = sizePosterior(start, 1, []);
    expect(p.startingShare).toBeCloseTo(1, 6);
    expect(p.weights.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
  });
  it('moves to what was measured, and narrows', () => {
    const truth = (tau: number) => gompertz(60, 2.5, 0.0035, tau);
    const samples = [600, 1000, 1500].map((tau) => ({
      thermalTime: tau,
      mean: truth(tau),
      standardError: truth(tau) * 0.05,
    }));
    const p = sizePosterior(start, 1, samples);
    expect(p.startingShare).toBeLessThan(0.6);
    const { asymptote, rate } = drawSizes(p, 60);
    const forecast = mean(asymptote.map((a, i) => gompertz(a, 2.5, rate[i], 1500)));
    expect(Math.abs(forecast - truth(1500)) / truth(1500)).toBeLessThan(0.08);
  });
  it('draws that stand for it: sorted in the size they tend to, repeatable', () => {
    const p = sizePosterior(start, 0.9, []);
    const a = drawSizes(p, 30);
    expect(a).toEqual(drawSizes(p, 30));
    for (let i = 1; i < 30; i++) expect(a.asymptote[i]).toBeGreaterThanOrEqual(a.asymptote[i - 1]);
  });
});

describe('a sample', () => {
  it('has the mean and spread of its values', () => {
    const s = summarise([10, 12, 14]);
    expect(s).toMatchObject({ n: 3, mean: 12, sd: 2 });
    expect(s.margin).toBeCloseTo((2.92 * 2) / Math.sqrt(3), 2);
    expect(summarise([10]).margin).toBe(Infinity);
  });
  it.each([[[]], [[0]], [[-1, 2]], [[NaN]], [[Infinity]]])('%j is refused', (values) => {
    expect(() => summarise(values)).toThrow(Unfit);
  });
  it('of the advised size has the margin wanted, one smaller has not', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 0.8, noNaN: true }),
        fc.double({ min: 0.03, max: 0.3, noNaN: true }),
        (cv, margin) => {
          const n = sampleSize(cv, margin);
          const reach = (m: number) => (studentQuantile(0.95, m - 1) * cv) / Math.sqrt(m);
          expect(reach(n)).toBeLessThanOrEqual(margin);
          if (n > 3) expect(reach(n - 2)).toBeGreaterThan(margin * 0.9);
        },
      ),
    );
  });
  it('holds its mean within the margin nine times in ten', () => {
    const random = seededRandom(9);
    let held = 0;
    for (let i = 0; i < 600; i++) {
      const s = summarise(Array.from({ length: 12 }, () => 30 + 6 * normalDraw(random)));
      if (Math.abs(s.mean - 30) <= s.margin) held++;
    }
    expect(held / 600).toBeGreaterThan(0.86);
    expect(held / 600).toBeLessThan(0.94);
  });
});

describe('the normal', () => {
  it('and its quantile are each other’s inverse', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-6, max: 1 - 1e-6, noNaN: true }), (p) => {
        expect(normalCdf(normalQuantile(p))).toBeCloseTo(p, 9);
      }),
    );
    expect(normalQuantile(0.975)).toBeCloseTo(1.959963985, 8);
    expect(studentQuantile(0.95, 11)).toBeCloseTo(1.7959, 3);
    expect(() => normalQuantile(1)).toThrow(Unfit);
  });
});
