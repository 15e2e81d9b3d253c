import { describe, expect, it } from 'vitest';
import { startingContainers } from '../container/startingContainers';
import { RaisingRoute, type ContainerType, type Place, type Species } from '../contract';
import { nothingLearnt } from '../plan/raisingLearnt';
import { speciesLibrary } from '../species/speciesLibrary';
import { lookupFrom } from './lookupFrom';
import { testBed, testBench } from './places.fixture';
import { routeLot, routesOf, startingRoutes } from './routeLot';

const uuid = (n: number) => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const speciesOf = (code: string) =>
  ({ id: uuid(1), version: 1, ...speciesLibrary.find((s) => s.code === code)! }) as unknown as Species;
const containers = startingContainers.map(
  (values, i) => ({ id: uuid(100 + i), version: 1, values }) as ContainerType,
);
const bench: Place = { ...testBench, id: uuid(2) };
const bed: Place = { ...testBed, id: uuid(3) };
const lookupFor = (species: Species) =>
  lookupFrom({ species: [species], places: [bench, bed], containers, media: [] });

describe('routes that a habit suggests', () => {
  it.each(speciesLibrary.map(({ code }) => code))('for %s can be kept, and run as a lot', (code) => {
    const species = speciesOf(code);
    const routes = startingRoutes(species, [bench, bed], containers);
    expect(routes.length).toBeGreaterThan(1);
    routes.forEach((route, i) => {
      const read = RaisingRoute.safeParse({ ...route, id: uuid(200 + i) });
      expect(read.success ? null : read.error.issues, route.name).toBeNull();
      const lot = routeLot(route, lookupFor(species), nothingLearnt);
      expect(lot.stages).toHaveLength(route.stages.length);
      expect(lot.facts.cuttings ?? false).toBe(route.start === 'cuttings');
      expect(lot.facts.seedState).toBe(route.start === 'fresh seed' ? 'fresh' : 'ready');
    });
  });
  it('give tap roots deep cells, and fresh seed only where seed sleeps', () => {
    const oak = startingRoutes(speciesOf('QPE'), [bench, bed], containers);
    const cell = oak.find(({ name }) => name === 'Cells, as plugs')!.stages[0];
    expect(containers.find(({ id }) => id === cell.containerTypeId)!.values.depthMm).toBeGreaterThanOrEqual(
      200,
    );
    const names = (code: string) =>
      startingRoutes(speciesOf(code), [bench, bed], containers).map((r) => r.name);
    expect(names('SOR')).toContain('Bed, fresh seed in autumn');
  });
  it('need a place: a yard with none has none, one without beds has no bed in them', () => {
    const alder = speciesOf('ALN');
    expect(startingRoutes(alder, [], containers)).toEqual([]);
    const inCells = startingRoutes(alder, [bench], containers);
    expect(inCells.length).toBeGreaterThan(0);
    expect(inCells.flatMap(({ stages }) => stages).every(({ placeId }) => placeId === bench.id)).toBe(true);
    expect(startingRoutes(alder, [bench], [])).toEqual([]);
  });
  it('give way to those that the nursery wrote', () => {
    const alder = speciesOf('ALN');
    const [mine] = startingRoutes(alder, [bench, bed], containers);
    expect(routesOf(alder, [mine], lookupFor(alder), nothingLearnt)).toEqual({ routes: [mine], own: true });
    expect(routesOf(alder, [{ ...mine, speciesId: uuid(9) }], lookupFor(alder), nothingLearnt).own).toBe(
      false,
    );
  });
  it('that name a container no longer there say so', () => {
    const alder = speciesOf('ALN');
    const route = startingRoutes(alder, [bench], containers)[0];
    const gone = lookupFrom({ species: [alder], places: [bench], containers: [], media: [] });
    expect(() => routeLot(route, gone, nothingLearnt)).toThrow(/names a container that is not in the list/);
  });
});
