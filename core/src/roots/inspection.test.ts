import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../chance/random';
import { recompute } from '../working/working';
import { lotVerdict, usualTerms, type PulledPlant } from './lotVerdict';
import { dicksonQualityIndex } from './qualityIndex';
import { radialBalance } from './radialBalance';
import { pathShares, plugScoreOf, rootFigures } from './rootFigures';
import type { LateralRoot, RootPath, RootPlant } from './rootPlant';
import { meets, scorePlant, startingScorecards, type Scorecard } from './scorecard';
import { sequentialPlan, sequentialVerdict } from './sequentialPlan';

const lateral = (azimuthDeg: number, path: RootPath = 'straight'): LateralRoot => ({
  azimuthDeg,
  path,
  thicknessMm: 1.5,
  band: 'top',
});
const noSizes = { heightCm: null, diameterMm: null, shootDryG: null, rootDryG: null };
const drawn = (laterals: LateralRoot[], more: Partial<Extract<RootPlant, { kind: 'drawn' }>> = {}) =>
  ({
    kind: 'drawn',
    laterals,
    tap: 'stopped',
    plug: { score: 2, fibre: { top: 2, middle: 2, low: 2 }, surface: 1, tips: 'white', nodules: null },
    ...noSizes,
    ...more,
  }) satisfies RootPlant;
const allRound = [0, 60, 120, 180, 240, 300].map((a) => lateral(a));

describe('radial balance', () => {
  it('does not change when the plant is turned or its roots are named in another order', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 360, noNaN: true }), { minLength: 1, maxLength: 20 }),
        fc.double({ min: -720, max: 720, noNaN: true }),
        (azimuths, turn) => {
          const a = radialBalance(azimuths).value;
          const b = radialBalance(azimuths.map((x) => x + turn).reverse()).value;
          expect(b.meanResultantLength).toBeCloseTo(a.meanResultantLength, 9);
          expect(b.largestGapDeg).toBeCloseTo(a.largestGapDeg, 6);
          expect(a.largestGapDeg).toBeGreaterThanOrEqual(360 / azimuths.length - 1e-9);
          expect(a.rayleighP).toBeGreaterThanOrEqual(0);
          expect(a.rayleighP).toBeLessThanOrEqual(1);
        },
      ),
    );
  });
  it('shows a sum that comes to its figures; says what none and one mean', () => {
    const { value, working } = radialBalance([10, 20, 30, 350]);
    expect(recompute(working[0].expression!)).toBeCloseTo(value.meanResultantLength, 5);
    expect(recompute(working[1].expression!)).toBeCloseTo(value.rayleighP, 5);
    expect(radialBalance([]).value).toEqual({ meanResultantLength: 0, rayleighP: 1, largestGapDeg: 360 });
    expect(radialBalance([77]).value.largestGapDeg).toBe(360);
    expect(() => radialBalance([NaN])).toThrow(/direction/);
  });
  it('calls roots at random one-sided at its own rate', () => {
    const random = seededRandom(7);
    let called = 0;
    for (let i = 0; i < 4000; i++) {
      const azimuths = Array.from({ length: 12 }, () => random() * 360);
      if (radialBalance(azimuths).value.rayleighP < 0.1) called++;
    }
    expect(called / 4000).toBeGreaterThan(0.085);
    expect(called / 4000).toBeLessThan(0.115);
  });
});

describe('the figures of a plant', () => {
  it('count what was drawn', () => {
    const plant = drawn([lateral(0), lateral(90), lateral(180, 'circling'), lateral(270, 'steep')], {
      heightCm: 36,
      diameterMm: 4,
      shootDryG: 3,
      rootDryG: 1.5,
    });
    expect(rootFigures(plant)).toMatchObject({
      laterals: 4,
      largestGapDeg: 90,
      straight: 0.5,
      straightTop: 2,
      turned: 0.25,
      steep: 0.25,
      fibre: 2,
      sturdiness: 9,
      shootRoot: 2,
    });
    expect(rootFigures(plant).qualityIndex).toBeCloseTo(4.5 / (9 + 2), 12);
    expect(pathShares(plant)).toMatchObject({ straight: 0.5, circling: 0.25, steep: 0.25, j: 0 });
  });
  it('leave unsaid what was not seen', () => {
    const bare = rootFigures(drawn([]));
    expect(bare).toMatchObject({ laterals: 0, largestGapDeg: 360, straight: null, turned: null });
    expect(bare.sturdiness).toBeNull();
    const quick: RootPlant = {
      kind: 'quick',
      look: { score: 3, round: 'one-sided', runs: 'straight', surface: 'clean', tips: 'white' },
      ...noSizes,
    };
    expect(rootFigures(quick)).toMatchObject({ laterals: null, oneSided: 0.8, plug: 3, fibre: null });
    expect(plugScoreOf(quick)).toBe(3);
    expect(pathShares(quick)).toBeNull();
  });
  it('need every mass for the quality index', () =>
    expect(() =>
      dicksonQualityIndex({ totalDryG: 4, shootDryG: 3, rootDryG: 0, heightCm: 30, diameterMm: 4 }),
    ).toThrow(/above 0/));
});

describe('scorecards', () => {
  const { structure, fibre, depth } = startingScorecards;
  const verdicts = (plant: RootPlant) =>
    [structure, fibre, depth].map((card) => scorePlant(rootFigures(plant), card).value.passes);
  const tapped = drawn(allRound, {
    tap: 'straight',
    plug: {
      score: 2,
      fibre: { top: 1, middle: 1, low: 2 },
      surface: 0,
      tips: 'white',
      nodules: null,
    },
  });
  it('of the schools judge the same plant each in its own way', () => {
    expect(verdicts(drawn(allRound))).toEqual([true, true, false]);
    expect(verdicts(tapped)).toEqual([true, false, true]);
    const caged = allRound.map((l, i) => ({ ...l, path: (i < 3 ? 'circling' : 'straight') as RootPath }));
    expect(verdicts(drawn(caged))).toEqual([false, true, false]);
  });
  it('name what fails a plant, and weigh only what was seen', () => {
    const { value, working } = scorePlant(rootFigures(drawn([lateral(0), lateral(20)])), structure);
    expect(value.passes).toBe(false);
    expect(value.missed.map((c) => c.figure)).toEqual(['laterals', 'largestGapDeg', 'oneSided']);
    expect(value.unseen.map((c) => c.figure)).toEqual(['sturdiness']);
    expect(recompute(working[0].expression!)).toBeCloseTo(value.score, 6);
    const blind: Scorecard = { ...structure, criteria: structure.criteria.slice(-1) };
    expect(() => scorePlant(rootFigures(drawn([])), blind)).toThrow(/Nothing/);
  });
  it('never score a plant worse for one figure brought within bounds', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 359, noNaN: true }), { maxLength: 9 }), (azimuths) => {
        const turned = drawn(azimuths.map((a) => lateral(a, 'kinked')));
        const straight = drawn(azimuths.map((a) => lateral(a)));
        const score = (plant: RootPlant) => scorePlant(rootFigures(plant), structure).value.score;
        expect(score(straight)).toBeGreaterThanOrEqual(score(turned) - 1e-12);
      }),
    );
  });
  it('take a bound itself as met', () => {
    expect(meets({ least: 0.6, most: null }, 0.6)).toBe(true);
    expect(meets({ least: null, most: 3 }, 3.01)).toBe(false);
  });
});

describe('the sequential plan', () => {
  const plan = sequentialPlan(usualTerms).value;
  it('shows sums that come to its lines', () => {
    const { value, working } = sequentialPlan({
      acceptable: 0.05,
      rejectable: 0.2,
      producerRisk: 0.05,
      consumerRisk: 0.1,
    });
    const sums = working.map((step) => recompute(step.expression!));
    expect(sums[0]).toBeCloseTo(value.slope, 5);
    expect(sums[1]).toBeCloseTo(value.acceptIntercept, 5);
    expect(sums[2]).toBeCloseTo(value.rejectIntercept, 5);
  });
  it('accepts at nine good ones in a row, rejects at two bad at once, and lets a call stand', () => {
    const run = (fails: boolean[], cap = 60) => sequentialVerdict(usualTerms, fails, cap).value;
    expect(-plan.acceptIntercept / plan.slope).toBeLessThan(9);
    expect(run(Array(8).fill(false)).call).toBe('pull');
    expect(run(Array(9).fill(false))).toMatchObject({ call: 'accept', by: 'line' });
    expect(run([true]).call).toBe('pull');
    expect(run([true]).soonestReject).toBe(1);
    expect(run([true, true])).toMatchObject({ call: 'reject', failing: 2 });
    expect(run([true, true, ...Array(20).fill(false)]).call).toBe('reject');
    expect(run([])).toMatchObject({ call: 'pull', pulled: 0, soonestAccept: 9, soonestReject: 2 });
  });
  it('decides by the odds at the cap', () => {
    const fails = [true, false, false, false, false, false];
    expect(sequentialVerdict(usualTerms, fails, 6).value).toMatchObject({ call: 'accept', by: 'cap' });
    expect(sequentialVerdict(usualTerms, [false, true, false, false, true], 5).value).toMatchObject({
      call: 'reject',
      by: 'cap',
    });
  });
  it.each([
    [0.1, 'reject'],
    [0.3, 'accept'],
  ] as const)('errs on a lot of which %f fail no oftener than it says', (share, wrong) => {
    const random = seededRandom(11);
    const lots = 4000;
    let errors = 0;
    let pulled = 0;
    for (let lot = 0; lot < lots; lot++) {
      const fails: boolean[] = [];
      let call: string = 'pull';
      while (call === 'pull') {
        fails.push(random() < share);
        call = sequentialVerdict(usualTerms, fails, 400).value.call;
      }
      pulled += fails.length;
      if (call === wrong) errors++;
    }
    // Wald’s bound on the error is the nominal risk over one less the other: 0.111.
    expect(errors / lots).toBeLessThan(0.115);
    expect(pulled / lots).toBeLessThan(25);
  });
  it('refuses terms that make no sense', () => {
    expect(() => sequentialPlan({ ...usualTerms, acceptable: 0.4 })).toThrow(/below/);
    expect(() => sequentialPlan({ ...usualTerms, producerRisk: 0 })).toThrow(/between 0 and 1/);
    expect(() => sequentialPlan({ ...usualTerms, producerRisk: 0.6, consumerRisk: 0.5 })).toThrow(/together/);
    expect(() => sequentialVerdict(usualTerms, [], 0)).toThrow(/At least one/);
  });
});

describe('the verdict on a lot', () => {
  const pulled = (plants: RootPlant[]): PulledPlant[] =>
    plants.map((plant, i) => ({ id: String(i), day: 100 + i, plant }));
  it('joins plants, card and plan, and counts what they miss', () => {
    const bad = drawn(allRound.map((l) => ({ ...l, path: 'circling' as const })));
    const { value } = lotVerdict(pulled([bad, bad, drawn(allRound)]), startingScorecards.structure);
    expect(value.sequential).toMatchObject({ call: 'reject', pulled: 3, failing: 2 });
    expect(value.passing.share).toBeCloseTo(1 / 3, 12);
    expect(value.passing.p10).toBeLessThan(1 / 3);
    expect(value.passing.p90).toBeGreaterThan(1 / 3);
    expect(value.defects[0]).toMatchObject({ figure: 'turned', plants: 2, fatal: true });
  });
  it('leaves out plants of which the card asks nothing that was seen', () => {
    const masses: Scorecard = {
      school: 'depth',
      pass: 0.5,
      criteria: [{ figure: 'qualityIndex', least: 0.2, most: null, weight: 1, fatal: false }],
    };
    const { value } = lotVerdict(pulled([drawn(allRound)]), masses);
    expect(value).toMatchObject({ unjudged: 1, plants: [], sequential: { pulled: 0 } });
  });
  it('is that nothing is known before the first plant', () => {
    const { value } = lotVerdict([], startingScorecards.fibre);
    expect(value.sequential.call).toBe('pull');
    expect(value.defects).toEqual([]);
    expect(value.passing).toMatchObject({ share: 0 });
  });
});
