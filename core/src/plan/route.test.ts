import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOf, isoOf, type EpochDay } from '../calendar/day';
import type { Home } from '../home/home';
import { stageShare } from './raisingLearnt';
import { startingSpecies } from '../species/startingSpecies';
import { feltWeather } from '../forecast/underCover';
import { generateWeather } from '../weather/generator';
import { knownWeather } from '../weather/known';
import { roughNormals } from '../weather/normals';
import { formOfRoute, plantsByStage } from './route';
import {
  pointOf,
  sowRoute,
  worthSowing,
  type RouteLot,
  type RouteSowing,
  type TreesWanted,
} from './routeSowing';
import { sowingWindow, weeksOfSowing } from './sowingWindow';

const asOf = dayOf('2026-11-24');
const weatherAt = (latitudeDeg: number, elevationM: number) => {
  const series = generateWeather(roughNormals(latitudeDeg, elevationM), asOf - 3652, 3653, 7);
  return feltWeather(knownWeather(series, { latitudeDeg, elevationM }, asOf));
};
const north = weatherAt(54.6, 185);
const tube: Home = { kind: 'container', name: 'Tube', cellMl: 110, depthMm: 140, airShare: 0.3, pitchMm: 52 };
const pot: Home = { kind: 'container', name: 'Pot', cellMl: 2000, depthMm: 145, airShare: 0.2, pitchMm: 160 };
const bed: Home = {
  kind: 'bed',
  densityPerM2: 150,
  settledDepthMm: 220,
  airShare: 0.5,
  headroomCm: null,
};
type Stage = RouteLot['stages'][number];
const routeOf = (stages: (Pick<Stage, 'home' | 'ends'> & Partial<Stage>)[], code = 'ALN'): RouteLot => ({
  facts: {
    id: 'route',
    code: 'route',
    species: startingSpecies.find((s) => s.code === code)!.values,
    seedState: 'ready',
    targetHeightCm: null,
    leafFallOn: null,
    counts: [],
    sizes: [],
    pulls: [],
    movements: [],
  },
  stages: stages.map((stage) => ({ goesOn: 1, counted: stageShare(0.9).counted, ...stage })),
});
const inTubes = routeOf([{ home: tube, ends: null }]);
const want = (iso: string, more: Partial<TreesWanted> = {}): TreesWanted => ({
  on: dayOf(iso),
  until: dayOf(iso),
  fromCm: null,
  toCm: null,
  chance: 0.9,
  ...more,
});
const sharesBy = (days: ArrayLike<number>, day: EpochDay) =>
  Array.from(days).filter((d) => d <= day).length / days.length;
const weeks = (from: string, to: string) => {
  const days: EpochDay[] = [];
  for (let day = dayOf(from); day <= dayOf(to); day += 7) days.push(day);
  return days;
};

describe('a sowing run ahead', () => {
  it('is ready the less and bound the less, the later it is sown', () => {
    const wanted = want('2027-09-20');
    const ready: number[] = [];
    const bound: number[] = [];
    for (const on of weeks('2027-02-01', '2027-08-30')) {
      const sowing = sowRoute(inTubes, on, wanted, north);
      ready.push(sharesBy(sowing.ready, wanted.until));
      bound.push(sharesBy(sowing.bound, wanted.on));
    }
    for (let i = 1; i < ready.length; i++) {
      expect(ready[i]).toBeLessThanOrEqual(ready[i - 1] + 0.02);
      expect(bound[i]).toBeLessThanOrEqual(bound[i - 1] + 0.02);
    }
    expect(ready[0]).toBeGreaterThan(0.7);
    expect(ready.at(-1)).toBeLessThan(0.1);
  });
  it('has a window that lies before the day wanted, and moves with it', () => {
    const windowFor = (iso: string) => {
      const wanted = want(iso);
      const sowings = weeks('2027-01-04', iso).map((on) => sowRoute(inTubes, on, wanted, north));
      return sowingWindow({ sowings, wantedOn: wanted.on, readyChance: 0.5, boundChance: 0.3 });
    };
    const september = windowFor('2027-09-27');
    const october = windowFor('2027-10-25');
    expect(september.latest!).toBeLessThan(dayOf('2027-09-27') - 40);
    expect(october.latest!).toBeGreaterThan(september.latest!);
  });
  it('asks the more of the time, the taller its trees must be, and no more than the other way round', () => {
    const at = (fromCm: number | null, toCm: number | null) =>
      sowRoute(inTubes, dayOf('2027-04-05'), want('2027-10-20', { fromCm, toCm }), north);
    const [any, tall] = [at(null, null), at(40, null)];
    Array.from(any.ready).forEach((day, i) => expect(tall.ready[i]).toBeGreaterThanOrEqual(day));
    expect(at(null, 15).chance).toBeLessThan(any.chance + 1e-9);
  });
  it('serves the fewer, the surer it must be, the narrower the size and the more are lost on the way', () => {
    const on = dayOf('2027-04-05');
    const inBed = routeOf([{ home: bed, ends: null }]);
    const serves = (route: RouteLot, more: Partial<TreesWanted> = {}) => {
      const wanted = want('2028-01-15', more);
      return pointOf(sowRoute(route, on, wanted, north), wanted).serves;
    };
    expect(serves(inBed)).toBe(1);
    const lossy = routeOf([{ home: bed, ends: null, goesOn: 0.7 }]);
    expect(serves(lossy)).toBeGreaterThan(0.7);
    expect(serves(lossy)).toBeLessThan(1);
    expect(serves(lossy, { chance: 0.5 })).toBeGreaterThan(serves(lossy));
    expect(serves(inBed, { fromCm: 20, toCm: 60, chance: 0.5 })).toBeLessThan(1);
  });
  it('goes from cell to pot once its plug holds, and is ready when the pot is filled', () => {
    const route = routeOf([
      { home: tube, ends: 'plug holds' },
      { home: pot, ends: null },
    ]);
    const on = dayOf('2027-03-15');
    const alone = sowRoute(inTubes, on, want('2028-06-01'), north);
    const moved = sowRoute(route, on, want('2028-06-01'), north);
    const middle = Array.from(alone.ready).sort((a, b) => a - b)[Math.floor(alone.ready.length / 2)];
    expect(Math.abs(moved.begins[1] - middle)).toBeLessThan(15);
    Array.from(moved.ready).forEach((day) => expect(day).toBeGreaterThan(moved.begins[1]));
  });
  it('in a bed is ready once it rests; the other hemisphere half a year on; where nothing rests once it is tall', () => {
    const inBed = routeOf([{ home: bed, ends: null }]);
    const readyIn = (lat: number, sown: string, wanted: TreesWanted) =>
      sowRoute(inBed, dayOf(sown), wanted, weatherAt(lat, 50));
    const middle = ({ ready }: RouteSowing) =>
      Array.from(ready).sort((a, b) => a - b)[Math.floor(ready.length / 2)];
    expect(isoOf(middle(readyIn(54.6, '2027-03-15', want('2028-01-15'))))).toBe('2027-11-01');
    expect(isoOf(middle(readyIn(-41, '2027-09-15', want('2028-08-20'))))).toBe('2028-05-01');
    // Sown so late that it comes up shortly before growth stops, its first season is the next year's.
    expect(isoOf(middle(readyIn(54.6, '2027-08-30', want('2029-01-15'))))).toBe('2028-11-01');
    const warm = readyIn(2, '2027-03-15', want('2028-01-15', { fromCm: 30 }));
    expect(middle(warm)).toBeLessThan(dayOf('2027-11-01'));
  });
  it('in a bed comes to nothing for days on which nothing is lifted, and says when it is', () => {
    const inBed = routeOf([{ home: bed, ends: null }]);
    const at = (iso: string, lat = 54.6) =>
      sowRoute(inBed, dayOf('2027-04-05'), want(iso), lat > 0 && lat < 10 ? weatherAt(lat, 50) : north);
    const june = at('2028-06-15');
    expect(june.chance).toBe(0);
    expect(june.outsideLifting).not.toBeNull();
    expect(at('2028-01-15')).toMatchObject({ outsideLifting: null });
    expect(at('2028-01-15').chance).toBeGreaterThan(0.9);
    expect(at('2028-06-15', 2).outsideLifting).toBeNull();
  });
  it('that can come to nothing before the horizon says so', () => {
    const route = routeOf([
      { home: tube, ends: 'plug holds' },
      { home: pot, ends: null },
    ]);
    const late = sowRoute(route, asOf + 1140, want('2027-09-20'), north);
    expect(late).toMatchObject({ chance: 0 });
  });
});

describe('plants for each stage', () => {
  it('are enough that, with each share going on, enough leave', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 100_000 }),
        fc.array(fc.double({ min: 0.05, max: 1, noNaN: true }), { minLength: 1, maxLength: 4 }),
        (leave, shares) => {
          const plants = plantsByStage(
            leave,
            shares.map((goesOn) => ({ goesOn })),
          );
          expect(plants).toHaveLength(shares.length);
          plants.forEach((count, i) => {
            const after = plants[i + 1] ?? leave;
            expect(count * shares[i]).toBeGreaterThanOrEqual(after - 1e-3);
            expect((count - 1) * shares[i]).toBeLessThan(after + 1e-3);
          });
        },
      ),
    );
  });
  it('leave in the form of their last home', () => {
    expect([bed, tube, pot].map((home) => formOfRoute([tube, home]))).toEqual(['bare-root', 'plug', 'pot']);
  });
});

describe('weeks of sowing', () => {
  const week = (on: number, ready: number, past: number, chance = Math.max(0, ready - past)) => ({
    on,
    ready,
    past,
    chance,
  });
  it('are open from the first that is not past to the last that is in time', () => {
    const points = [week(0, 1, 0.4), week(7, 0.95, 0.1), week(14, 0.92, 0.05), week(21, 0.6, 0)];
    const found = weeksOfSowing(points, 0.9);
    expect(found).toMatchObject({ earliest: 7, latest: 14, isOpen: true });
    expect(found.best!.on).toBe(14);
  });
  it('have their best furthest from either edge of those as good', () => {
    const flat = [
      week(0, 0.5, 0),
      ...[7, 14, 21, 28, 35].map((on) => week(on, 1, 0)),
      week(42, 0.4, 0),
      week(49, 1, 0),
    ];
    expect(weeksOfSowing(flat, 0.9).best!.on).toBe(21);
  });
  it('leave out those in which ready seed would lie in the cold, not those of fresh seed', () => {
    const point = (on: number, up: number) => ({
      ...week(on, 1, 0),
      up: { p10: up, p50: up, p90: up },
      begins: [on],
      outsideLifting: null,
      serves: 1,
      kept: { p10: 1, p50: 1, p90: 1 },
    });
    const points = [point(0, 140), point(60, 140), point(100, 145)];
    const kind = { sleeps: true, latitudeDeg: 54.6 };
    expect(worthSowing(points, 'treated seed', kind).map(({ on }) => on)).toEqual([100]);
    expect(worthSowing(points, 'fresh seed', { ...kind, sleeps: false })).toEqual(points);
    expect(worthSowing(points.slice(0, 2), 'cuttings', kind)).toHaveLength(2);
    // Seed that sleeps is fresh from its ripening until midwinter, by hemisphere; in the tropics at any time.
    const on = (iso: string) => ({ ...points[0], on: dayOf(iso) });
    const year = ['2027-02-08', '2027-05-17', '2027-08-02', '2027-10-18', '2028-01-17'].map(on);
    const fresh = (latitudeDeg: number) =>
      worthSowing(year, 'fresh seed', { sleeps: true, latitudeDeg }).map((point) => isoOf(point.on));
    expect(fresh(54.6)).toEqual(['2027-08-02', '2027-10-18', '2028-01-17']);
    expect(fresh(-41)).toEqual(['2027-02-08', '2027-05-17']);
    expect(fresh(2)).toHaveLength(5);
  });
  it('cross where no week keeps both sides, and still have a best', () => {
    const points = [week(0, 0.95, 0.4), week(7, 0.8, 0.2), week(14, 0.5, 0.05)];
    const found = weeksOfSowing(points, 0.9);
    expect(found).toMatchObject({ earliest: 14, latest: 0, isOpen: false });
    expect(found.best!.on).toBe(7);
  });
  it('have no best where none is ever in time', () => {
    expect(weeksOfSowing([week(0, 0, 0)], 0.9)).toEqual({
      earliest: 0,
      latest: null,
      isOpen: false,
      best: null,
    });
    expect(weeksOfSowing([], 0.9)).toMatchObject({ earliest: null, latest: null, best: null });
  });
  it('agree with the window of the same runs', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.array(fc.integer({ min: 50, max: 150 }), { minLength: 10, maxLength: 10 }), fc.nat(60)),
          {
            minLength: 1,
            maxLength: 8,
          },
        ),
        fc.constantFrom(0.5, 0.8, 0.9),
        (rows, chance) => {
          const sowings = rows.map(([ready, hold], i) => ({
            on: i * 7,
            ready,
            bound: ready.map((day) => day + hold),
          }));
          const window = sowingWindow({
            sowings,
            wantedOn: 100,
            readyChance: chance,
            boundChance: 1 - chance,
          });
          const points = sowings.map(({ on, ready, bound }) =>
            week(on, sharesBy(ready, 100), sharesBy(bound, 100)),
          );
          const { earliest, latest } = weeksOfSowing(points, chance);
          expect({ earliest, latest }).toEqual(window);
        },
      ),
    );
  });
});
