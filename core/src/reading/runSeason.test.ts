import { beforeAll, describe, expect, it } from 'vitest';
import { dayOf } from '../calendar/day';
import { startingContainers } from '../container/startingContainers';
import { startingPrices } from '../bed/prices';
import {
  PlannedSowing,
  SeasonResult,
  type ContainerType,
  type Place,
  type SeedRoom,
  type Species,
} from '../contract';
import { nothingLearnt } from '../plan/raisingLearnt';
import { speciesLibrary } from '../species/speciesLibrary';
import { generateWeather } from '../weather/generator';
import { knownWeather } from '../weather/known';
import { roughNormals } from '../weather/normals';
import { boardRow, staysOf } from './board';
import { lookupFrom } from './lookupFrom';
import { testBed, testBench } from './places.fixture';
import {
  staysPut,
  type SeasonLine,
  type SeasonLot,
  type SeasonNursery,
  type SeasonTerms,
} from './seasonNursery';
import { seedUnderTreatment } from './propagules';
import { startingRoutes, treatmentDays } from './routeLot';
import { runSeason, type SeasonProgress } from './runSeason';

const uuid = (n: number) => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const today = dayOf('2026-11-24');
const species = ['ALN', 'BPE'].map(
  (code, i) =>
    ({ id: uuid(1 + i), version: 1, ...speciesLibrary.find((s) => s.code === code)! }) as unknown as Species,
);
const containers = startingContainers.map(
  (values, i) => ({ id: uuid(100 + i), version: 1, values }) as ContainerType,
);
const places: Place[] = [
  { ...testBed, id: uuid(20) },
  { ...testBed, id: uuid(21) },
  { ...testBench, id: uuid(22) },
];
const lookup = lookupFrom({ species, places, containers, media: [] });
const weatherAt = (latitudeDeg: number, elevationM: number, seed = 7) =>
  knownWeather(
    generateWeather(roughNormals(latitudeDeg, elevationM), today - 3652, 3653, seed),
    { latitudeDeg, elevationM },
    today,
  );
const line = (n: number, more: Partial<SeasonLine> = {}): SeasonLine => ({
  id: uuid(50 + n),
  speciesId: species[n % 2].id,
  form: 'bare-root',
  on: dayOf('2027-12-01'),
  until: dayOf('2028-02-15'),
  fromCm: null,
  toCm: null,
  trees: 150,
  worth: 1,
  weight: 1,
  ...more,
});
const room: SeedRoom = { lots: [], moves: [], treatments: [], stockBeds: [], layers: [], records: [] };
const bagOf = (speciesId: string, more: object = {}) =>
  ({
    id: uuid(80),
    speciesId,
    receivedOn: '2026-10-01',
    collectedOn: '2026-09-20',
    moisturePct: null,
    store: 'fridge',
    price: null,
    ...more,
  }) as unknown as SeedRoom['lots'][number];
/** A seed room with one bag of the first species. */
const storeOf = (seeds: number): SeedRoom => {
  const bag = bagOf(species[0].id);
  const moves = [{ id: uuid(81), seedLotId: bag.id, on: '2026-10-01', grams: 1, seeds }];
  return { ...room, lots: [bag], moves: moves as unknown as SeedRoom['moves'] };
};
const terms: SeasonTerms = {
  chance: 0.9,
  hoursAWeek: null,
  hourCost: 15,
  buyTimes: null,
  spend: null,
  seedInStore: false,
};
const nurseryOf = (lines: SeasonLine[], more: Partial<SeasonNursery> = {}): SeasonNursery => ({
  today,
  lookup,
  weather: weatherAt(54.6, 185),
  lines,
  routes: [],
  learnt: nothingLearnt,
  lots: [],
  parcels: [],
  planned: [],
  room,
  prices: startingPrices,
  terms,
  ...more,
});
let made = 0;
/** Plans a season; what is told on the way never gets worse. */
const run = async (nursery: SeasonNursery, told: (of: SeasonProgress) => void = () => undefined) => {
  let ticks = 0;
  let cost = Infinity;
  const noWorse = (result: SeasonResult) => {
    expect(result.cost).toBeLessThanOrEqual(cost + 1e-6);
    expect(result.bound ?? -Infinity).toBeLessThanOrEqual(result.cost + 1e-6);
    cost = result.cost;
  };
  const result = await runSeason(nursery, {
    seconds: 10,
    now: () => ticks++ / 10,
    newId: () => uuid(1000 + ++made),
    told: (of) => {
      if (of.result) noWorse(of.result);
      told(of);
    },
  });
  noWorse(result);
  return result;
};
/** No place holds more than it can on any day. */
function expectFits(result: SeasonResult, nursery: SeasonNursery) {
  const stays = [
    ...result.sowings.map(({ sowing }) => sowing),
    ...nursery.planned.filter(({ pinned }) => pinned),
  ].flatMap(staysOf);
  for (const place of places)
    for (const { share } of boardRow(place, stays, lookup, today, today + 900))
      expect(share).toBeLessThan(1.0001);
}
const sums = ({ lines }: SeasonResult) => {
  for (const { trees, kept, standing, sown, short } of lines)
    expect(kept + sown + short + standing.reduce((n, of) => n + of.trees, 0)).toBeGreaterThanOrEqual(trees);
};

describe('a season planned', () => {
  let result: SeasonResult;
  const steps: string[] = [];
  const nursery = nurseryOf([line(0), line(1)]);
  beforeAll(async () => {
    result = await run(nursery, ({ step }) => steps.at(-1) !== step && steps.push(step));
  });
  it('serves what there is room for, in places that hold it, with a bound', () => {
    expect(SeasonResult.safeParse(result).error).toBeUndefined();
    expect(result.lines.map(({ short }) => short)).toEqual([0, 0]);
    expectFits(result, nursery);
    sums(result);
    expect(result.bound).not.toBeNull();
    expect(result.bound!).toBeLessThanOrEqual(result.cost + 1e-6);
    expect(steps).toEqual(['weeks', 'choosing', 'placing', 'replaying']);
  });
  it('keeps in simulated seasons what it was planned for, nine chances in ten', () => {
    for (const { met } of result.lines) {
      expect(met).toBeGreaterThanOrEqual(0.85);
      expect(met).toBeLessThanOrEqual(0.95);
    }
    expect(result.returns.p10).toBeLessThanOrEqual(result.returns.p90);
  });
  it('says what would free a line that does not fit, and that much more room frees it', async () => {
    // Two beds of 2.9 m² at 150 a square metre hold some 860.
    const crowded = nurseryOf([line(0, { trees: 600, worth: 2 }), line(1, { trees: 500 })]);
    const tight = await run(crowded);
    expectFits(tight, crowded);
    sums(tight);
    const [one] = tight.lines.filter(({ short }) => short > 0);
    expect(one.why).toBe('no room');
    expect(one.frees!.rooms.length).toBeGreaterThan(0);
    expect(tight.dear[0].perM2).toBeGreaterThan(0);
    const more = { ...places[0], id: uuid(30) };
    const wider = {
      ...crowded,
      lookup: lookupFrom({ species, places: [...places, more], containers, media: [] }),
    };
    const freed = await run(wider);
    const short = (of: SeasonResult) => of.lines.reduce((sum, l) => sum + l.short, 0);
    expect(short(freed)).toBeLessThan(short(tight));
  });
  it('serves what there is room for of a line far larger than the yard', async () => {
    const huge = nurseryOf([line(0, { trees: 9000 })]);
    const of = await run(huge);
    expectFits(of, huge);
    sums(of);
    // Two beds of 2.9 m² at 150 a square metre, less what is lost.
    expect(of.lines[0].sown).toBeGreaterThan(450);
    expect(of.lines[0].short).toBe(9000 - of.lines[0].sown);
  });
  it('keeps what is pinned where it is, and plans beside it', async () => {
    const [{ sowing }] = result.sowings;
    const pinned: PlannedSowing = { ...sowing, pinned: true };
    const beside = nurseryOf(nursery.lines.slice(), { planned: [pinned] });
    const again = await run(beside);
    expectFits(again, beside);
    const at = nursery.lines.findIndex(({ id }) => id === sowing.lineId);
    expect(again.lines[at].kept).toBe(sowing.wanted.trees);
    expect(again.sowings.filter((of) => of.sowing.lineId === sowing.lineId)).toHaveLength(
      sowing.wanted.trees >= nursery.lines[at].trees ? 0 : 1,
    );
  });
  it('is planned beside what is pinned in a place or a container that is gone', async () => {
    const [{ sowing }] = result.sowings;
    const [stage] = sowing.stages;
    const gone = [
      { ...sowing, pinned: true, stages: [{ ...stage, placeId: uuid(99) }] },
      {
        ...sowing,
        id: uuid(98),
        pinned: true,
        stages: [{ ...stage, containerTypeId: uuid(97), densityPerM2: null, trays: 3, areaM2: null }],
      },
    ];
    const of = await run(nurseryOf(nursery.lines.slice(), { planned: gone }));
    expect(of.kept).toHaveLength(2);
  });
  it('changes as little as may be when it is planned again', async () => {
    const planned = result.sowings.map(({ sowing }) => sowing);
    const again = await run(nurseryOf(nursery.lines.slice(), { today, planned }));
    const weeksOf = (of: SeasonResult) =>
      of.sowings.map(({ sowing }) => `${sowing.lineId} ${sowing.route} ${sowing.stages[0].from}`).sort();
    expect(weeksOf(again)).toEqual(weeksOf(result));
  });
  it('plans anew what was not sown in its week, and keeps what is in it', async () => {
    const [{ sowing }] = result.sowings;
    const inWeek = dayOf(sowing.stages[0].from) + 6;
    expect(staysPut(sowing, inWeek)).toBe(true);
    expect(staysPut(sowing, inWeek + 1)).toBe(false);
    const planned = result.sowings.map(({ sowing: of }) => of);
    const late = await run(
      nurseryOf(nursery.lines.slice(), { today: inWeek + 8, weather: weatherAt(54.6, 185), planned }),
    );
    for (const { sowing: of } of late.sowings)
      expect(dayOf(of.stages[0].from)).toBeGreaterThanOrEqual(inWeek + 8);
    expect(late.kept).not.toContain(sowing.id);
  });
  it('tells lines that nothing can serve, and why', async () => {
    const hopeless = await run(
      nurseryOf([
        line(0, { form: 'bare-root', on: dayOf('2027-07-01'), until: dayOf('2027-07-10') }),
        line(1, { form: 'pot', on: today + 8, until: today + 20 }),
      ]),
    );
    expect(hopeless.lines.map(({ why }) => why)).toEqual(['no week', 'no week']);
    expect(hopeless.sowings).toEqual([]);
    const none = await run(nurseryOf([]));
    expect(none).toMatchObject({ lines: [], sowings: [], cost: 0 });
    const noYard = await run({
      ...nurseryOf([line(0)]),
      lookup: lookupFrom({ species, places: [], containers, media: [] }),
    });
    expect(noYard.lines[0]).toMatchObject({ why: 'no route', short: 150 });
  });
  it('keeps to the hours that people have, and says when they are too few', async () => {
    const lines = [line(0, { trees: 300 }), line(1, { trees: 300 })];
    const few = await run(nurseryOf(lines, { terms: { ...terms, hoursAWeek: 0.2 } }));
    const byWeek = new Map<string, number>();
    for (const { sowing } of few.sowings)
      for (const { from, plants, hoursPer100 } of sowing.stages)
        byWeek.set(from, (byWeek.get(from) ?? 0) + (plants * hoursPer100) / 100);
    for (const hours of byWeek.values()) expect(hours).toBeLessThanOrEqual(0.2 + 1e-6);
    const short = few.lines.find((of) => of.short > 0)!;
    expect(short.frees!.hours.length).toBeGreaterThan(0);
  });
  it('is the same whether sowings were run ahead before, for other terms, or not', async () => {
    const bare = (of: SeasonResult) =>
      of.sowings.map(({ sowing: { route, stages } }) => [
        route,
        stages.map(({ from, plants }) => [from, plants]),
      ]);
    const runs: SeasonNursery['runs'] = new Map();
    await run(nurseryOf([line(0)], { runs }));
    expect(runs.size).toBeGreaterThan(10);
    const surer = { ...terms, chance: 0.95 };
    const kept = await run(nurseryOf([line(0)], { runs, terms: surer }));
    expect(bare(kept)).toEqual(bare(await run(nurseryOf([line(0)], { terms: surer }))));
  });
  it('plans by the seasons of the south', async () => {
    const south = nurseryOf([line(0, { on: dayOf('2028-06-01'), until: dayOf('2028-08-01'), fromCm: 20 })], {
      weather: weatherAt(-41.2, 780),
    });
    const of = await run(south);
    expect(of.lines[0].short).toBe(0);
    for (const { sowing } of of.sowings) {
      const month = Number(sowing.stages[0].from.slice(5, 7));
      // Ready seed goes out from the end of the southern winter on, fresh seed in its autumn.
      expect(sowing.start === 'fresh seed' ? [2, 3, 4, 5, 6, 7] : [7, 8, 9, 10, 11, 12, 1]).toContain(month);
    }
  });
  it('sows treated seed no sooner than its treatment is done', async () => {
    const hornbeam = {
      id: uuid(9),
      version: 1,
      ...speciesLibrary.find((s) => s.code === 'CBE')!,
    } as unknown as Species;
    const days = treatmentDays(hornbeam);
    expect(days).toBeGreaterThan(100);
    const nursery = (more: Partial<SeasonNursery> = {}) => ({
      ...nurseryOf([line(0, { speciesId: hornbeam.id })], more),
      lookup: lookupFrom({ species: [hornbeam], places, containers, media: [] }),
    });
    const earliest = (of: SeasonResult) =>
      Math.min(
        ...of.sowings
          .filter(({ sowing }) => sowing.start === 'treated seed')
          .map(({ sowing }) => dayOf(sowing.stages[0].from)),
      );
    const of = await run(nursery());
    expect(of.sowings.length).toBeGreaterThan(0);
    expect(earliest(of)).toBeGreaterThanOrEqual(today + days);
    // What lies under treatment since long is ready sooner, as much as there is of it.
    const bag = bagOf(hornbeam.id, { receivedOn: '2026-06-01', collectedOn: '2026-05-20' });
    const batch = { id: uuid(86), seedLotId: bag.id, state: 'under way', startedOn: '2026-07-01', seeds: 60 };
    const underWay = { ...room, lots: [bag], treatments: [batch] } as unknown as SeedRoom;
    const species = hornbeam;
    const treated = seedUnderTreatment(underWay, species, today, 0.9)!;
    expect(treated.readyOn).toBe(Math.max(today, dayOf('2026-07-01') + days));
    expect(treated.plants).toBeGreaterThan(0);
    expect(treated.plants).toBeLessThan(60);
    const soon = await run(nursery({ room: underWay }));
    for (const { sowing } of soon.sowings)
      if (sowing.start === 'treated seed' && dayOf(sowing.stages[0].from) < today + days)
        expect(sowing.stages[0].plants).toBeLessThanOrEqual(treated.plants);
  });
  it('plans on where the forecast of a lot fails: it stays where it is, serves nothing, and is told', async () => {
    const stage = {
      placeId: places[0].id,
      containerTypeId: null,
      densityPerM2: 150,
      trays: null,
      areaM2: 2.9,
      startedOn: '2026-04-01',
    };
    const row = { id: uuid(70), speciesId: species[0].id, stage } as unknown as SeasonLot['row'];
    const broken = nurseryOf(nursery.lines.slice(), { lots: [{ row, facts: null }] });
    const of = await run(broken);
    expect(of.failed).toEqual([row.id]);
    expect(of.lines.map(({ standing }) => standing)).toEqual([[], []]);
    for (const { sowing } of of.sowings)
      for (const { placeId } of sowing.stages) expect(placeId).not.toBe(places[0].id);
  });
  it('buys in what it has no room for, where that is cheaper than going without, as far as the money goes', async () => {
    const lines = [line(0, { trees: 600, worth: 2 }), line(1, { trees: 900, weight: 0.5 })];
    const open = await run(nurseryOf(lines, { terms: { ...terms, buyTimes: 0.7 } }));
    // A hope weighs less than what its trees cost: it is not bought in.
    expect(open.lines[0].short).toBe(0);
    expect(open.lines[1].bought).toBe(0);
    const much = await run(nurseryOf([line(0, { trees: 5000 })], { terms: { ...terms, buyTimes: 0.7 } }));
    expect(much.lines[0]).toMatchObject({ short: 0, why: null });
    expect(much.lines[0].bought).toBeGreaterThan(3000);
    const spend = 1000;
    const few = await run(
      nurseryOf([line(0, { trees: 5000 })], { terms: { ...terms, buyTimes: 0.7, spend } }),
    );
    expect(few.paid!).toBeLessThanOrEqual(spend + 1e-6);
    expect(few.paid!).toBeGreaterThan(spend - 1);
    expect(few.lines[0].short).toBeGreaterThan(0);
  });
  it('sows no more than the seed in store gives, and says how much more would do', async () => {
    const stocked = storeOf(150);
    const lines = [line(0), line(1)];
    const of = await run(nurseryOf(lines, { room: stocked, terms: { ...terms, seedInStore: true } }));
    const [some, none] = of.lines;
    expect(some.sown).toBeGreaterThan(0);
    expect(some.short).toBeGreaterThan(0);
    expect(none.sown).toBe(0);
    expect(none.frees!.things).toMatchObject([{ of: 'seed' }]);
    expect(none.frees!.things[0].more).toBeGreaterThan(0);
  });
  it('leaves to what is pinned the seed that it takes', async () => {
    const stocked = storeOf(400);
    const of = (planned: PlannedSowing[]) =>
      run(nurseryOf([line(0)], { room: stocked, planned, terms: { ...terms, seedInStore: true } }));
    const alone = await of([]);
    const [{ sowing }] = alone.sowings;
    // The same seed is wanted by what is pinned for somebody else.
    const pinned = { ...sowing, id: uuid(82), lineId: null, pinned: true };
    const beside = await of([pinned]);
    expect(beside.lines[0].sown).toBeLessThan(alone.lines[0].sown);
  });
  it('sticks no more cuttings in a season than stock beds give', async () => {
    const willow = {
      id: uuid(8),
      version: 1,
      ...speciesLibrary.find((s) => s.code === 'SVI')!,
    } as unknown as Species;
    const stockBeds = [
      {
        id: uuid(82),
        version: 1,
        speciesId: willow.id,
        name: 'Stools',
        plants: 4,
        plantedOn: '2018-03-01',
        yieldPerPlant: 10,
        plantsPerM: 2,
        restShare: 0,
        note: '',
      },
    ];
    const fromCuttings = startingRoutes(willow, places, containers).filter(
      ({ start }) => start === 'cuttings',
    );
    const plugs = line(0, {
      speciesId: willow.id,
      form: 'plug',
      on: dayOf('2027-09-01'),
      until: dayOf('2027-10-15'),
    });
    const of = await run({
      ...nurseryOf([plugs], { room: { ...room, stockBeds }, routes: fromCuttings }),
      lookup: lookupFrom({ species: [willow], places, containers, media: [] }),
    });
    expect(of.lines[0].short).toBeGreaterThan(0);
    expect(of.lines[0].frees!.things).toMatchObject([{ of: 'cuttings' }]);
    const stuck = of.sowings.filter(({ sowing }) => sowing.start === 'cuttings');
    expect(stuck.reduce((sum, { sowing }) => sum + sowing.stages[0].plants, 0)).toBeLessThanOrEqual(40);
  });
});
