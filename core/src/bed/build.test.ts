import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { startingContainers } from '../container/startingContainers';
import { startingMedia } from '../medium/medium';
import { recompute, type Step } from '../working/working';
import { buildSheet } from './buildSheet';
import { buyingList, stockOf } from './buyingList';
import { bedAgainstContainer } from './compare';
import { bedCost } from './cost';
import { buildOf, timberClasses, type BedDesign } from './design';
import { dressedSize } from './dressedSize';
import { bedGeometry } from './geometry';
import { serviceLife } from './life';
import { proposeModules } from './modules';
import { bedParts } from './parts';
import { boardPrice, startingPrices } from './prices';
import { depthThrough, retaining } from './retaining';
import { beamSag, bedSupports } from './supports';
import { bedWeight } from './weight';

const large: BedDesign = {
  schema: 1,
  measured: 'outside',
  lengthMm: 3000,
  widthMm: 1200,
  tiers: ['50x200', '50x200'],
  layers: [
    { kind: 'mesh', openingMm: [12.7, 12.7], wireMm: 1.05 },
    { kind: 'mesh', openingMm: [150, 150], wireMm: 3.4 },
  ],
  fillBelowRimMm: 30,
  ground: 'paving',
  airGapMm: 90,
  lidAboveRimMm: 400,
};
const [living, , sand] = startingMedia;
const sizes = fc.record({
  lengthMm: fc.integer({ min: 600, max: 6000 }),
  widthMm: fc.integer({ min: 400, max: 1500 }),
  tiers: fc.array(fc.constantFrom('50x150', '50x200', '2x8', '2x6'), { minLength: 1, maxLength: 3 }),
  lidAboveRimMm: fc.option(fc.integer({ min: 100, max: 900 })),
});
const designs = sizes.map((s): BedDesign => ({ ...large, ...s }));

function expectToRecompute(steps: readonly Step[]) {
  for (const step of steps)
    if (step.expression && typeof step.result === 'number')
      expect(recompute(step.expression) / (step.result || 1), step.what).toBeCloseTo(step.result ? 1 : 0, 4);
}

describe('two half beds', () => {
  it('hold as much medium, and weigh as much of it, as one whole of the same inside', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 800, max: 6000 }),
        fc.integer({ min: 400, max: 1400 }),
        (length, width) => {
          const whole: BedDesign = { ...large, measured: 'inside', lengthMm: length, widthMm: width };
          const half = { ...whole, lengthMm: length / 2 };
          expect(2 * bedGeometry(half).value.mediumL).toBeCloseTo(bedGeometry(whole).value.mediumL, 6);
          expect(2 * bedWeight(half, living).value.mediumWetKg).toBeCloseTo(
            bedWeight(whole, living).value.mediumWetKg,
            6,
          );
        },
      ),
    );
  });
});

describe('what carries a bed', () => {
  it('sags as the handbook’s beam does', () => {
    // 1 N/mm over 1000 mm on 47 × 97: 5·1·10¹²/(384·6400·3 574 645).
    expect(beamSag(1, 1000, 47, 97)).toBeCloseTo(5e12 / (384 * 6400 * ((47 * 97 ** 3) / 12)), 9);
  });
  it('is enough for the ordinary large bed, and its working says how', () => {
    const { value, working } = bedSupports(large, living);
    expect(value.faults).toEqual([]);
    expect(value.bayMm).toBeLessThanOrEqual(value.bayLimitMm);
    expectToRecompute(working);
  });
  it('is said to be too little: bearers, bays, feet, and bearers in the ground', () => {
    const build = buildOf(large);
    const faults = (change: Partial<typeof build>, design = large, medium = living) =>
      bedSupports({ ...design, build: { ...build, ...change } }, medium).value.faults.join(' ');
    expect(faults({ crossMembers: 0 })).toContain('belly');
    expect(faults({ crossBoard: '50x50' }, large, sand)).toContain('Bearers of 50x50 sag');
    expect(faults({ feet: { kind: 'bricks', count: 4 } }, large, sand)).toMatch(/feet are needed, not 4/);
    expect(faults({ crossBoard: '50x100' })).toContain('stand on the ground');
    expect(
      faults({ feet: { kind: 'blocks', count: 4 } }, { ...large, lengthMm: 6000, tiers: ['25x150'] }),
    ).toContain('long sides sag');
  });
  it('never says more feet bear more each', () => {
    fc.assert(
      fc.property(designs, fc.integer({ min: 4, max: 20 }), (design, count) => {
        const on = (n: number) =>
          bedSupports(
            { ...design, build: { ...buildOf(design), feet: { kind: 'bricks', count: n } } },
            living,
          ).value;
        expect(on(count + 2).perFootKg).toBeLessThan(on(count).perFootKg);
        expect(on(count + 2).sideSagMm).toBeLessThanOrEqual(on(count).sideSagMm!);
      }),
    );
  });
});

describe('what lies under the medium', () => {
  it('holds it, and lets tips through, or says what does', () => {
    expect(retaining(large, living)).toMatchObject({ holds: true, tipsPass: true });
    expect(retaining(large, sand)).toMatchObject({ holds: false });
    expect(retaining(large, sand).sentence).toContain('falls through');
    const clothed = (shadeShare: number) =>
      retaining({ layers: [...large.layers, { kind: 'cloth', shadeShare }] }, sand);
    expect(clothed(0.5)).toMatchObject({ holds: true, tipsPass: true });
    expect(clothed(0.7)).toMatchObject({ holds: true, tipsPass: false });
    expect(retaining({ layers: [] }, living).holds).toBe(false);
  });
  it('the medium settles through the season, fast at first, by its share at the end', () => {
    expect(depthThrough(360, 0.2, 0)).toBe(360);
    expect(depthThrough(360, 0.2, 1)).toBeCloseTo(288, 9);
    expect(depthThrough(360, 0.2, 0.5)).toBeLessThan(324);
  });
});

describe('timber', () => {
  it('treated lasts longest, scrap shortest; weeds take years off', () => {
    const seasons = timberClasses.map(
      (timber) => serviceLife({ ...large, build: { ...buildOf(large), timber } }).value.median,
    );
    expect(seasons).toEqual([...seasons].sort((a, b) => b - a));
    expect(serviceLife({ ...large, ground: 'weeds' }).value.median).toBeLessThan(
      serviceLife(large).value.median,
    );
    expectToRecompute(serviceLife(large).working);
  });
  it('is priced by its nominal section', () => {
    expect(boardPrice('50x200', 3000, 1000)).toBe(30);
    expect(boardPrice('2x8', 3000, 1000)).toBe(30.97);
  });
});

describe('parts', () => {
  it('go together to the bed’s own sizes', () => {
    fc.assert(
      fc.property(designs, (design) => {
        const g = bedGeometry(design).value;
        const { timber, sheets, fixings } = bedParts(design);
        const long = timber.filter((t) => t.name.startsWith('Long side'));
        const ends = timber.filter((t) => t.name.startsWith('End'));
        expect(long).toHaveLength(design.tiers.length);
        for (const t of long) expect(t.lengthMm).toBeCloseTo(g.outsideLengthMm, 1);
        for (const t of ends)
          expect(t.lengthMm + 2 * dressedSize(t.board).thicknessMm).toBeCloseTo(g.outsideWidthMm, 1);
        for (const s of sheets.filter((x) => !x.name.startsWith('Lid'))) {
          expect(s.lengthMm * s.widthMm).toBeGreaterThanOrEqual(g.insideLengthMm * g.insideWidthMm);
        }
        expect(fixings.brackets).toBe(4 * design.tiers.length);
        expect(sheets.some((s) => s.name === 'Lid mesh')).toBe(design.lidAboveRimMm !== null);
        for (const t of timber) expect(t.lengthMm).toBeGreaterThan(0);
      }),
    );
  });
  it('follow the build: legs, butt joints, no runners', () => {
    const build = {
      ...buildOf(large),
      corners: 'butt' as const,
      runners: false,
      feet: { kind: 'legs' as const, count: 6 },
    };
    const { timber, fixings } = bedParts({ ...large, build });
    expect(timber.find((t) => t.name === 'Leg')).toMatchObject({ count: 6, lengthMm: 90 + 195 });
    expect(timber.some((t) => t.name.startsWith('Runner'))).toBe(false);
    expect(fixings.brackets).toBe(0);
  });
});

describe('a build sheet', () => {
  const items = [
    { name: 'Large', design: large, count: 2, medium: living },
    {
      name: 'Small',
      design: { ...large, lengthMm: 1200, widthMm: 600, tiers: ['50x200'] },
      count: 4,
      medium: living,
    },
  ];
  it('adds up several beds, and its boards hold every piece', async () => {
    const sheet = buildSheet(items, startingPrices);
    expect(sheet.mediumL[0].litres).toBeCloseTo(
      2 * bedGeometry(large, 0.2).value.mediumL + 4 * bedGeometry(items[1].design, 0.2).value.mediumL,
      6,
    );
    const list = await buyingList(sheet, 3, (board) => stockOf(board, 'durable', startingPrices));
    for (const { board, plan } of list) {
      const wanted = sheet.timber.filter((t) => t.board === board).reduce((n, t) => n + t.count, 0);
      expect(plan.boards.reduce((n, b) => n + b.count * b.cutsMm.length, 0)).toBe(wanted);
      expect(plan.bound).toBeLessThanOrEqual(plan.cost + 1e-9);
    }
    expect(new Set(list.map((l) => l.board))).toEqual(new Set(sheet.timber.map((t) => t.board)));
  });
  it('has its cautions beside the steps', () => {
    const { steps, tools } = buildSheet(items, startingPrices);
    const cautions = steps.map((s) => s.caution ?? '').join(' ');
    expect(cautions).toMatch(/ear protection/);
    expect(cautions).toMatch(/gloves/i);
    expect(cautions).toMatch(/Legionella/);
    expect(cautions).toMatch(/rated for the load/);
    expect(tools.length).toBeGreaterThan(3);
    expect(steps.some((s) => s.what.includes('riser'))).toBe(true);
  });
  it('names the board that is too short for a side', async () => {
    const sheet = buildSheet([{ ...items[0], design: { ...large, lengthMm: 6000 } }], startingPrices);
    await expect(buyingList(sheet, 3, (b) => stockOf(b, 'durable', startingPrices))).rejects.toThrow(
      /^50x200: A piece of 6000 mm is longer than the longest board/,
    );
  });
});

describe('cost', () => {
  it('spreads over seasons and trees, as its working says', () => {
    const { value, working } = bedCost(large, living, startingPrices, 500);
    expect(value.total).toBeCloseTo(value.timber + value.mesh + value.fixings + value.medium, 9);
    expect(value.perTree).toBeCloseTo(value.perSeason / 500, 9);
    expect(value.perSeason).toBeLessThan(value.total);
    expectToRecompute(working);
  });
  it('of the same trees in pots: more ground and hours in small cells’ care, less medium', () => {
    const tube = startingContainers.find((c) => c.name.startsWith('Tube 150'))!;
    const { value, working } = bedAgainstContainer(
      large,
      living,
      240,
      tube,
      startingMedia[3],
      startingPrices,
      430,
    );
    expect(value.trees).toBe(Math.floor(bedGeometry(large, 0.2).value.insideAreaM2 * 240));
    expect(value.container.mediumL).toBeCloseTo(value.trees * 0.15, 6);
    expect(value.bed.mediumL).toBeGreaterThan(value.container.mediumL);
    expectToRecompute(working);
    expect(() => bedAgainstContainer(large, living, 0.1, tube, living, startingPrices, 430)).toThrow(
      /no tree/,
    );
  });
});

describe('modules', () => {
  it('fit the ground with their paths, and tile the footprint', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 30 }),
        fc.integer({ min: 2, max: 20 }),
        fc.double({ min: 0.6, max: 1.5, noNaN: true }),
        (length, width, path) => {
          for (const f of proposeModules(length, width, path, [600, 900, 1200], [2400, 3000, 4800])) {
            expect(f.rows * f.widthMm + (f.rows - 1) * path * 1000).toBeLessThanOrEqual(width * 1000 + 1e-6);
            expect(f.perRow * f.lengthMm).toBeLessThanOrEqual(length * 1000 + 1e-6);
            expect(f.bedShare).toBeLessThanOrEqual(1);
            for (const t of f.tiles)
              expect(t.per * t.lengthMm * t.widthMm).toBeCloseTo(f.lengthMm * f.widthMm, 6);
          }
        },
      ),
    );
    expect(() => proposeModules(10, 10, 0.4, [900], [2400])).toThrow(/0.6 m/);
  });
});
