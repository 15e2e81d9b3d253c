import { say } from '../speech/say';
import type { ContainerType, Place, RaisingRoute, RouteStage, Species } from '../contract';
import { containerVolume } from '../container/container';
import {
  nothingLearnt,
  shareLearnt,
  stageKindOf,
  stageShare,
  workOfStage,
  type RaisingLearnt,
  type StageShare,
} from '../plan/raisingLearnt';
import type { RouteLot } from '../plan/routeSowing';
import { startOf } from '../species/startOf';
import { factsFrom, homeOf, type Lookup, type SeenOfLot, type SownRow } from './factsFrom';

/** Whether all that stages name is still in the yard and the list of containers. */
export const isThere = (
  stages: readonly Pick<RouteStage, 'placeId' | 'containerTypeId'>[],
  { places, containers }: Pick<Lookup, 'places' | 'containers'>,
): boolean =>
  stages.every(
    ({ placeId, containerTypeId }) =>
      places.has(placeId) && (containerTypeId === null || containers.has(containerTypeId)),
  );

/** Evidence of a lot that nothing was recorded of. */
const nothingSeen: SeenOfLot = {
  counts: [],
  sizes: [],
  pulls: [],
  movements: [],
  stages: [],
  events: [],
  care: [],
  roots: [],
};

/**
 * A route as a lot would follow it, with what the nursery learnt of its species in its last container, and how well it knows the
 * shares that go on.
 * @throws Error where it names a place or a container that the yard no longer has, in a sentence
 */
export function routeLot(route: RaisingRoute, lookup: Lookup, learnt: RaisingLearnt): RouteLot {
  const last = route.stages[route.stages.length - 1];
  const row: SownRow = {
    id: route.id,
    code: route.name,
    speciesId: route.speciesId,
    extraWinters: 0,
    sownOn: '2000-01-01',
    origin: route.start === 'cuttings' ? 'cuttings' : 'seed',
    cutting: route.cutting,
    seedState: route.start === 'fresh seed' ? 'fresh' : 'ready',
    stage: last,
    targetHeightCm: null,
    leafFallOn: null,
  };
  const { sownOn: _, home: __, homes: ___, ...facts } = factsFrom(row, nothingSeen, lookup);
  return {
    facts,
    stages: route.stages.map((stage) => ({
      home: homeOf(route.name, stage, lookup),
      ends: stage.ends,
      goesOn: stage.goesOn,
      counted: ownShareOf(route.speciesId, stage, lookup, learnt).counted,
    })),
  };
}

/** A stage's share that goes on, as it would be with what own lots of the species say of homes like it. */
export function ownShareOf(
  speciesId: string,
  { containerTypeId, goesOn }: Pick<RouteStage, 'containerTypeId' | 'goesOn'>,
  { containers }: Pick<Lookup, 'containers'>,
  learnt: RaisingLearnt,
): StageShare {
  const container = containerTypeId === null ? null : containers.get(containerTypeId)!.values;
  return stageShare(goesOn, shareLearnt(learnt, speciesId, stageKindOf(container)));
}

/** Plants a square metre of a bed where nobody said. */
export const USUAL_DENSITY = 150;
/** Cells and pots that starting routes look for, mL, and how deep tap roots want them, mm. */
const CELL_ML = 150;
const POT_ML = 2000;
const TAP_DEPTH_MM = 200;
/** Seed thinner than this is sown in a flat and pricked out, mm. */
const SMALL_SEED_MM = 2;

/** Whether seed of a species sleeps until it is treated, or a winter wakes it. */
export const seedSleeps = (species: Species): boolean =>
  startOf(species).protocols.some(({ phases }) => phases.length > 0);

/**
 * Days that seed which is dry today takes to be ready by its first protocol, at the pace of a cold store and a warm room: sown
 * treated before, it would have to be bought so, or be under treatment already. 0 for seed that sleeps no more.
 */
export const treatmentDays = (species: Species): number =>
  startOf(species).protocols[0].phases.reduce((sum, { days }) => sum + days, 0);

/**
 * Ways a species may be raised in a yard that wrote none down, by its habit: in a bed in spring, or in autumn where its
 * seed sleeps; in cells; from cells into pots; pricked out of a flat where seed is small; from cuttings where they root.
 * Only what the yard has places and containers for. Shares and hours are rules of thumb, moved by what own lots and recorded
 * work say.
 */
export function startingRoutes(
  species: Species,
  places: readonly Place[],
  containers: readonly ContainerType[],
  learnt: RaisingLearnt = nothingLearnt,
): RaisingRoute[] {
  const start = startOf(species);
  const sleeps = seedSleeps(species);
  const bed = places.find(({ place }) => place.kind === 'bed');
  const bench =
    places.find(({ place }) => place.kind === 'bench') ?? places.find(({ place }) => place.kind === 'ground');
  const flat = containers.find(({ values }) => values.kind === 'flat');
  const cell = nearest(
    containers.filter(
      ({ values }) => values.kind !== 'flat' && (start.rootHabit !== 'tap' || values.depthMm >= TAP_DEPTH_MM),
    ),
    CELL_ML,
  );
  const pot = nearest(
    containers.filter(({ values }) => stageKindOf(values) === 'pots'),
    POT_ML,
  );
  const byId = new Map(containers.map((container) => [container.id, container]));
  const routes: RaisingRoute[] = [];
  const add = (
    name: string,
    begin: Pick<RaisingRoute, 'start' | 'cutting'>,
    ...stages: readonly RouteStage[]
  ) =>
    routes.push({
      id: `starting ${species.code} ${routes.length}`,
      speciesId: species.id,
      name,
      ...begin,
      stages: stages.map((stage, i) => {
        const work = workOfStage(begin.start, stages[i - 1]?.ends ?? null);
        const pace = work === null ? 1 : learnt.paces[work].factor;
        return {
          ...stage,
          goesOn: rounded(ownShareOf(species.id, stage, { containers: byId }, learnt).goesOn),
          hoursPer100: rounded(stage.hoursPer100 * pace),
        };
      }),
    });
  const seed = { start: 'treated seed', cutting: null } as const;
  const inBed = (goesOn: number, hoursPer100: number): RouteStage => ({
    placeId: bed!.id,
    containerTypeId: null,
    densityPerM2: USUAL_DENSITY,
    ends: null,
    goesOn,
    hoursPer100,
  });
  const inContainer = (
    container: ContainerType,
    ends: RouteStage['ends'],
    goesOn: number,
    hoursPer100: number,
  ): RouteStage => ({
    placeId: bench!.id,
    containerTypeId: container.id,
    densityPerM2: null,
    ends,
    goesOn,
    hoursPer100,
  });
  if (bed) {
    add(say`Bed, bare-root`, seed, inBed(0.85, 0.3));
    if (sleeps) add(say`Bed, fresh seed in autumn`, { start: 'fresh seed', cutting: null }, inBed(0.85, 0.3));
  }
  if (bench && cell) {
    add(say`Cells, as plugs`, seed, inContainer(cell, null, 0.9, 0.5));
    if (flat && start.thicknessMm < SMALL_SEED_MM)
      add(
        say`Flat, pricked out into cells`,
        seed,
        inContainer(flat, 'true leaves', 0.85, 0.2),
        inContainer(cell, null, 0.9, 1),
      );
    if (pot)
      add(
        say`Cells, then pots`,
        seed,
        inContainer(cell, 'plug holds', 0.9, 0.5),
        inContainer(pot, null, 0.95, 2),
      );
    const [kind] = Object.keys(start.cuttings) as (keyof typeof start.cuttings)[];
    if (kind)
      add(say`Cuttings in cells`, { start: 'cuttings', cutting: kind }, inContainer(cell, null, 0.85, 0.8));
  }
  return routes;
}

/** Routes of a species: the nursery's own where it wrote some, else what its habit suggests. */
export function routesOf(
  species: Species,
  all: readonly RaisingRoute[],
  { places, containers }: Pick<Lookup, 'places' | 'containers'>,
  learnt: RaisingLearnt,
): { routes: RaisingRoute[]; own: boolean } {
  const written = all.filter((route) => route.speciesId === species.id);
  return written.length
    ? { routes: written, own: true }
    : {
        routes: startingRoutes(species, [...places.values()], [...containers.values()], learnt),
        own: false,
      };
}

/** To the hundredth, as a grower would write it. */
const rounded = (value: number): number => Math.max(0.01, Math.round(value * 100) / 100);

const volumeOf = (values: ContainerType['values']): number => containerVolume(values).value;

/** The container nearest to a volume, by ratio. */
function nearest(containers: readonly ContainerType[], ml: number): ContainerType | undefined {
  const off = ({ values }: ContainerType) => Math.abs(Math.log(volumeOf(values) / ml));
  return [...containers].sort((a, b) => off(a) - off(b))[0];
}
