import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { startingPrices, startingTreePrices } from '../bed/prices';
import { dayOf, isoOf } from '../calendar/day';
import { startingContainers } from '../container/startingContainers';
import type { ContainerType, Medium, Place, PlannedSowing } from '../contract';
import { startingMedia } from '../medium/medium';
import { speciesLibrary } from '../species/speciesLibrary';
import { evaporationAhead, evaporationBetween } from '../water/evaporationAhead';
import { generateWeather } from '../weather/generator';
import { knownWeather } from '../weather/known';
import { roughNormals } from '../weather/normals';
import { recompute } from '../working/working';
import { lookupFrom } from './lookupFrom';
import { testBed, testBench } from './places.fixture';
import { costPerTree, costTerms, sowingCost, type CostTerms } from './sowingCost';

const media = startingMedia.map((values, i) => ({
  id: `medium ${i}`,
  version: 1,
  values,
})) as unknown as Medium[];
const filled = (place: Place, medium: number): Place => ({
  ...place,
  place: { ...place.place, mediumId: media[medium].id },
});
const places = [filled({ ...testBed, id: 'bed' }, 0), filled({ ...testBench, id: 'bench' }, 3)];
const containers = startingContainers.map(
  (values, i) => ({ id: `container ${i}`, version: 1, values }) as ContainerType,
);
const tray = containers.find(({ values }) => values.cellsPerTray > 1 && values.trayPrice !== undefined)!;
const lookup = lookupFrom({ species: [], places, containers, media });
const terms: CostTerms = { prices: startingPrices, hourCost: 15, seedPrice: () => 0.02, evaporation: null };
const stage = {
  placeId: 'bench',
  containerTypeId: tray.id,
  densityPerM2: null,
  ends: null,
  goesOn: 0.9,
  hoursPer100: 0.5,
};
const inCells = (plants: number, from = '2027-03-01', until = '2028-03-01'): PlannedSowing =>
  ({
    speciesId: 'alder',
    start: 'treated seed',
    stages: [{ ...stage, from, plants, trays: Math.ceil(plants / tray.values.cellsPerTray), areaM2: null }],
    until,
  }) as unknown as PlannedSowing;
const inBed = (areaM2: number, until = '2028-03-01'): PlannedSowing =>
  ({
    speciesId: 'alder',
    start: 'treated seed',
    stages: [
      {
        ...stage,
        placeId: 'bed',
        containerTypeId: null,
        densityPerM2: 100,
        from: '2027-03-01',
        plants: 100 * areaM2,
        trays: null,
        areaM2,
      },
    ],
    until,
  }) as unknown as PlannedSowing;

describe('what a sowing costs', () => {
  it('adds up, and every line of its working can be done again', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5000 }), fc.integer({ min: 20, max: 900 }), (plants, days) => {
        const until = isoOf(dayOf('2027-03-01') + days);
        for (const sowing of [inCells(plants, '2027-03-01', until), inBed(plants / 2000, until)]) {
          const { value, working } = sowingCost(sowing, lookup, terms);
          const sum = Object.values(value.parts).reduce((a, b) => a + b, 0);
          expect(value.total).toBeCloseTo(sum, 9);
          for (const { expression, result } of working)
            expect(recompute(expression!)).toBeCloseTo(Number(result), 2);
          expect(value.unpriced).toEqual([]);
        }
      }),
      { numRuns: 50 },
    );
  });
  it('counts a year in cells as a hand would', () => {
    const { value } = sowingCost(inCells(200), lookup, terms);
    const { cellsPerTray, trayPrice, uses = 1, trayLengthMm, trayWidthMm } = tray.values;
    const trays = Math.ceil(200 / cellsPerTray);
    expect(value.parts.containers).toBeCloseTo((trays * trayPrice!) / uses, 9);
    expect(value.parts.hands).toBeCloseTo(15, 9);
    expect(value.parts.care).toBeCloseTo(200 * startingTreePrices.carePerTree, 9);
    expect(value.parts.seed).toBeCloseTo(4, 9);
    expect(value.groundM2).toBeCloseTo((trays * trayLengthMm * trayWidthMm) / 1e6, 9);
    expect(value.parts.ground).toBeCloseTo(value.groundM2 * startingTreePrices.placePerM2, 9);
    expect(value.parts.beds).toBe(0);
    expect(value.paid).toBeCloseTo(value.parts.seed + value.parts.filling, 9);
    expect(value.carriedKg!).toBeGreaterThan(0);
  });
  it('counts a bed by its share of it and by a season at least; bare roots carry nothing', () => {
    const whole = sowingCost(inBed(2), lookup, terms).value;
    const half = sowingCost(inBed(1), lookup, terms).value;
    expect(half.parts.beds).toBeCloseTo(whole.parts.beds / 2, 9);
    // Sown late it takes the bed for that season all the same.
    for (const until of ['2027-08-30', '2028-02-01']) {
      const one = sowingCost(inBed(2, until), lookup, terms).value.parts;
      expect([one.beds, one.ground, one.care]).toEqual([
        whole.parts.beds,
        whole.parts.ground,
        whole.parts.care,
      ]);
    }
    const two = sowingCost(inBed(2, '2029-03-01'), lookup, terms).value.parts;
    expect(two.beds / whole.parts.beds).toBeCloseTo(2, 1);
    expect(whole.carriedKg).toBe(0);
  });
  it('spreads the cost over the trees that forecasts leave', () => {
    const sowing = { ...inCells(200), wanted: { trees: 90 } as PlannedSowing['wanted'] };
    const kept = { p10: 0, p50: 0.5, p90: 1 };
    const { least, middle, most, mustFetch } = costPerTree({ total: 180 }, sowing, { kept: kept as never });
    expect([least, middle, most, mustFetch]).toEqual([1, 2, Infinity, 2]);
  });
  it('says what nobody priced, and counts cuttings no seed', () => {
    const bare = {
      ...lookup,
      media: new Map(),
      containers: new Map(
        containers.map((c) => [c.id, { ...c, values: { ...c.values, trayPrice: undefined } }]),
      ),
    };
    const { value } = sowingCost(inCells(100), bare, { ...terms, seedPrice: () => null });
    expect(value.unpriced).toEqual(['seed', 'containers', 'filling']);
    expect(value.carriedKg).toBeNull();
    const stuck = sowingCost({ ...inCells(100), start: 'cuttings' }, lookup, terms).value;
    expect(stuck.parts.seed).toBe(0);
    expect(sowingCost(inBed(1), bare, terms).value.unpriced).toEqual(['beds']);
  });
  it('takes more water in summer than in winter, north and south', () => {
    for (const latitudeDeg of [54.6, -41.2]) {
      const day = dayOf('2026-11-24');
      const site = { latitudeDeg, elevationM: 185 };
      const { outlook } = knownWeather(
        generateWeather(roughNormals(latitudeDeg, 185), day - 3652, 3653, 7),
        site,
        day,
      );
      const ahead = evaporationAhead(outlook);
      const mm = (from: number, until: number) => evaporationBetween(ahead, from, until);
      const [june, december] = [
        mm(dayOf('2027-06-01'), dayOf('2027-07-01')),
        mm(dayOf('2026-12-01'), dayOf('2027-01-01')),
      ];
      expect(Math.max(june, december)).toBeGreaterThan(60);
      expect(Math.min(june, december)).toBeLessThan(30);
      expect(june > december).toBe(latitudeDeg > 0);
      expect(mm(day + 10, day + 10)).toBe(0);
      expect(mm(day + 1, day + 40)).toBeCloseTo(mm(day + 1, day + 20) + mm(day + 20, day + 40), 9);
    }
  });
  it('prices seed by what its bags cost', () => {
    const alder = { id: 'alder', version: 1, ...speciesLibrary.find((s) => s.code === 'ALN')! };
    const of = (prices: (number | null)[]) =>
      costTerms(
        {
          prices: startingPrices,
          room: { lots: prices.map((price) => ({ speciesId: 'alder', price })) as never },
          lookup: { species: new Map([['alder', alder as never]]) },
        },
        15,
      ).seedPrice('alder');
    expect(of([])).toBeNull();
    expect(of([null])).toBeNull();
    expect(of([500, 300, null, 400])! / of([100])!).toBeCloseTo(4, 9);
  });
});
