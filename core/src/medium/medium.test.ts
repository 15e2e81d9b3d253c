import { releaseChoice } from '../growing/feedChoice';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOf } from '../calendar/day';
import { containerSuitability, containerFigures, holdingWarmth, plantingSites } from '../growing/suitability';
import { startingContainers } from '../container/startingContainers';
import { startingSpecies } from '../species/startingSpecies';
import { weatherOutlook } from '../weather/ensemble';
import { generateWeather } from '../weather/generator';
import { roughNormals } from '../weather/normals';
import { recompute } from '../working/working';
import { controlledRelease } from './controlledRelease';
import { startingMedia } from './medium';
import { batchFor, materials, MIXING_LOSS, mixOf } from './mix';

describe('recipes', () => {
  it('weigh and hold what lies between their materials, as their working says', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.constantFrom(...materials.map((m) => m.name)), { minLength: 1, maxLength: 5 }),
        fc.infiniteStream(fc.double({ min: 0.1, max: 9, noNaN: true })),
        (names, stream) => {
          const parts = names.map((material) => ({ material, parts: stream.next().value as number }));
          const { value, working } = mixOf('m', parts);
          const used = materials.filter((m) => names.includes(m.name));
          for (const key of ['wetKgPerM3', 'dryKgPerM3', 'airShare', 'heldShare', 'settling'] as const) {
            expect(value[key]).toBeGreaterThanOrEqual(Math.min(...used.map((m) => m[key])) - 1e-9);
            expect(value[key]).toBeLessThanOrEqual(Math.max(...used.map((m) => m[key])) + 1e-9);
          }
          for (const step of working)
            expect(recompute(step.expression!)).toBeCloseTo(step.result as number, 2);
        },
      ),
    );
  });
  it('of the starting media name known materials, and are lighter dry than wet', () => {
    for (const m of startingMedia) {
      expect(() => mixOf(m.name, m.parts!)).not.toThrow();
      expect(m.dryKgPerM3).toBeLessThan(m.wetKgPerM3);
    }
  });
  it.each([
    [[], /at least one/],
    [[{ material: 'moon dust', parts: 1 }], /moon dust/],
    [[{ material: 'coir', parts: 0 }], /above 0/],
  ])('are refused in a sentence', (parts, sentence) => {
    expect(() => mixOf('m', parts)).toThrow(sentence);
  });
});

describe('a batch', () => {
  const parts = [
    { material: 'bark fines', parts: 3 },
    { material: 'coir', parts: 1 },
  ];
  it('measures out its parts with the loss of mixing, in bags and barrows', () => {
    const { value, working } = batchFor({
      litres: 180,
      parts,
      bagL: 70,
      barrowL: 80,
      feedGPerL: 3,
      inoculumMlPerL: 0.5,
    });
    expect(value.looseL).toBeCloseTo(180 / (1 - MIXING_LOSS), 9);
    expect(value.parts.map((p) => p.litres)).toEqual([150, 50]);
    expect(value.parts.map((p) => p.bags)).toEqual([3, 1]);
    expect(value.feedG).toBe(540);
    expect(value.inoculumMl).toBe(90);
    for (const step of working) expect(recompute(step.expression!)).toBeCloseTo(step.result as number, 3);
  });
  it('needs litres', () => {
    expect(() =>
      batchFor({ litres: 0, parts, bagL: 70, barrowL: 80, feedGPerL: 3, inoculumMlPerL: 0 }),
    ).toThrow(/above 0/);
  });
});

describe('controlled-release feed', () => {
  it('is four fifths spent at its rated life at 21 °C, and runs faster the warmer it is', () => {
    const at = (t: number) =>
      controlledRelease({ meanTempsC: new Array<number>(152).fill(t), ratedMonths: 5 }).value;
    expect(at(21).released).toBeCloseTo(0.8, 3);
    expect(at(31).progress).toBeCloseTo(2 * at(21).progress, 9);
    fc.assert(
      fc.property(fc.double({ min: -5, max: 35, noNaN: true }), (t) => {
        expect(at(t + 1).released).toBeGreaterThan(at(t).released);
        expect(at(t).released).toBeLessThan(1);
      }),
    );
    expect(() => controlledRelease({ meanTempsC: [20], ratedMonths: 0 })).toThrow(/above 0/);
  });
  it('is chosen as the longest that is used up by the end', () => {
    const series = generateWeather(roughNormals(54.6, 185), dayOf('2016-01-01'), 3982, 3);
    const outlook = weatherOutlook(series, { latitudeDeg: 54.6, elevationM: 185 }, dayOf('2026-11-24'));
    const cool = releaseChoice(outlook, dayOf('2027-04-01'), dayOf('2027-09-13'));
    const warm = releaseChoice(outlook, dayOf('2027-04-01'), dayOf('2027-09-13'), undefined, 8);
    expect(warm.best ?? 0).toBeGreaterThanOrEqual(cool.best ?? 0);
    for (const c of cool.choices) {
      expect(c.early).toBeLessThanOrEqual(c.late);
      expect(c.unspentAtEnd).toBeGreaterThan(0);
    }
    const best = cool.choices.find((c) => c.ratedMonths === cool.best);
    if (best) expect(best.unspentAtEnd).toBeLessThanOrEqual(0.21);
    expect(() => releaseChoice(outlook, 10, 10)).toThrow(/after/);
  });
});

describe('containers for a species and a site', () => {
  const oak = startingSpecies.find((s) => s.code === 'QPE')!.values;
  const birch = startingSpecies.find((s) => s.code === 'BPE')!.values;
  const named = (name: string) => startingContainers.find((c) => c.name.startsWith(name))!;
  it('are graded with reasons', () => {
    expect(containerSuitability(named('Round pot'), birch, 'ordinary').grade).toBe(-1);
    expect(containerSuitability(named('Slit-wall cell 200'), birch, 'ordinary').grade).toBe(1);
    expect(containerSuitability(named('Root-pruning block'), oak, 'ordinary').grade).toBe(-1);
    expect(containerSuitability(named('Deep tube'), oak, 'dry').grade).toBeGreaterThan(
      containerSuitability(named('Closed plug'), oak, 'dry').grade,
    );
    expect(containerSuitability(named('Fabric bag 12'), birch, 'rocky').grade).toBe(-1);
    for (const c of startingContainers)
      for (const site of plantingSites) {
        const { reasons, grade } = containerSuitability(c, birch, site);
        expect(reasons.length).toBeGreaterThan(0);
        if (grade === 1) expect(reasons.every((r) => r.for)).toBe(true);
        else expect(reasons.some((r) => !r.for)).toBe(true);
      }
  });
  it('a larger cell takes more warmth, and holds longer', () => {
    const [small, large] = [holdingWarmth(100, birch).value, holdingWarmth(600, birch).value];
    expect(large.readyDd).toBeGreaterThan(small.readyDd);
    expect(large.boundDd - large.readyDd).toBeGreaterThan(small.boundDd - small.readyDd);
  });
  it('have figures that agree with one another', () => {
    for (const c of startingContainers) {
      const f = containerFigures(c, 620);
      expect(f.mediumPer1000L).toBe(f.volumeMl);
      if (f.perM2Spaced !== null) expect(f.perM2Spaced).toBeCloseTo(f.perM2 / 2, 9);
      expect(f.trayWetKg).toBeGreaterThan((f.volumeMl * c.cellsPerTray * 620) / 1e6);
    }
  });
});
