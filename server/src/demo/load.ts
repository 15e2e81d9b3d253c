import { hash } from '@node-rs/argon2';
import {
  dayFrom,
  dayOf,
  factsFrom,
  generateWeather,
  homeOf,
  isoOf,
  knownWeather,
  lookupFrom,
  noEvidence,
  partsOf,
  roughNormals,
  type EpochDay,
  type Home,
  type KnownWeather,
  type Lookup,
  type LotFacts,
  type PlugScore,
  type WeatherSeries,
} from '@kauri/core';
import type { NewStage, Role } from '@kauri/core/contract';
import { eq } from 'drizzle-orm';
import pg from 'pg';
import { v7 as newId } from 'uuid';
import { membership, person, place } from '../db/schema/index';
import { inNursery, type Tx } from '../db/tenant';
import { stockNursery } from '../features/people/createNursery';
import { countEmergence, liftLot, measureLot, pullRoots, writeOff } from '../features/lots/records';
import { readValue } from '../nursery/values';
import { lotRow } from '../features/lots/lotRows';
import { inspectRoots } from '../features/roots/inspect';
import { prickOut } from '../features/lots/prickOut';
import { shiftLot } from '../features/lots/shift';
import { sowLot } from '../features/lots/sow';
import { storeDays } from '../features/weather/importWeather';
import { yardHandlers } from '../features/yard/routes';
import type { NurseryCall, Server, Work } from '../http/context';
import type { DemoLot } from './lot';
import { DEMO_PASSWORD, demoNurseries, type DemoNursery } from './nurseries';

type HeatWave = NonNullable<DemoNursery['heatWave']>;
import { batchKey, makeSeedRoom, type SeedIds } from './seed';
import { growOn, makeStations } from './growing';
import { planAhead } from './plan';
import { cullsOf, liftAndSend, twoGrades } from './lifts';
import { takeIn } from './arrivals';
import { plantOut } from './plantings';
import { makeOrders } from './orders';
import { makeYard } from './yard';
import { demoPlants } from './roots';
import { grow, sampleAround, scoresFor, type Truth } from './truth';

const YEARS_OF_WEATHER = 10;
const DEMO_LOCK = 7_041_955;

/**
 * Loads the demo nurseries that are not there yet, dated back from today; a database somebody set up for themselves is
 * left alone. A nursery and its people come in one transaction: it is there whole or not at all, and one that was cut off is
 * loaded at the next start.
 */
export async function loadDemo(server: Server, ownerUrl: string): Promise<void> {
  const owner = new pg.Client({ connectionString: ownerUrl });
  await owner.connect();
  try {
    await owner.query('select pg_advisory_lock($1)', [DEMO_LOCK]);
    const { rows } = await owner.query<{ own: boolean }>(
      'select is_set_up() and not exists (select 1 from demo_person) as own',
    );
    if (rows[0].own) return;
    // The list of sign-ins is written first: it says that this database is the demo's, however far loading came.
    const people = demoNurseries.flatMap((demo) => demo.people.map((p) => ({ ...p, nursery: demo.name })));
    for (const [place, p] of people.entries())
      await owner.query(
        `insert into demo_person (email, name, role, nursery, password, place) values ($1, $2, $3, $4, $5, $6)
         on conflict (email) do nothing`,
        [p.email, p.name, p.role, p.nursery, DEMO_PASSWORD, place],
      );
    for (const demo of demoNurseries) {
      const known = await owner.query('select 1 from person where email = $1', [demo.people[0].email]);
      if (known.rowCount === 0) await loadNursery(server, demo);
    }
  } finally {
    await owner.end();
  }
}

async function loadNursery(server: Server, demo: DemoNursery): Promise<void> {
  const people = demo.people.map((p) => ({ ...p, id: newId() }));
  const passwordHash = await hash(DEMO_PASSWORD);
  await fillNursery(server, demo, { nurseryId: newId(), people, practice: false }, (tx) =>
    tx.insert(person).values(people.map(({ id, name, email }) => ({ id, name, email, passwordHash }))),
  );
}

/** The demo that a nursery to practise in is made like. */
export const practiceDemo = (south: boolean): DemoNursery =>
  demoNurseries.find(({ latitudeDeg }) => latitudeDeg < 0 === south)!;

/** A demo nursery once more, for one person to practise in: whatever was done there, they did. @returns its id */
export async function loadPractice(
  server: Server,
  { personId, south, language }: { personId: string; south: boolean; language: string },
): Promise<string> {
  const nurseryId = newId();
  const people = [{ id: personId, role: 'grower' as const }];
  await fillNursery(server, { ...practiceDemo(south), language }, { nurseryId, people, practice: true });
  return nurseryId;
}

interface Filled {
  nurseryId: string;
  /** Who records what is done, first; an owner writes what only they may. */
  people: readonly { id: string; role: Role }[];
  practice: boolean;
}

/** Fills a nursery of one's own with what a demo holds, in one transaction. */
async function fillNursery(
  server: Server,
  demo: DemoNursery,
  { nurseryId, people, practice }: Filled,
  begin: (tx: Tx) => PromiseLike<unknown> = () => Promise.resolve(),
): Promise<void> {
  const boss = people.find((p) => p.role === 'owner') ?? people[0];
  const today = server.today(demo.timeZone);
  await inNursery(server.pool, { nurseryId, personId: boss.id }, async (tx) => {
    const work: Work = { tx, nurseryId, personId: boss.id, today };
    await begin(tx);
    const { name, placeName, latitudeDeg, longitudeDeg, elevationM, timeZone } = demo;
    await stockNursery(tx, {
      id: nurseryId,
      name,
      placeName,
      latitudeDeg,
      longitudeDeg,
      elevationM,
      timeZone,
      units: 'metric',
      language: demo.language,
      practice,
    });
    await tx.insert(membership).values(people.map((p) => ({ nurseryId, personId: p.id, role: p.role })));
    const weather = knownWeather(await makeWeather(work, demo), demo, dayOf(today));
    await makeYard(work, demo, server.irrigationUrl);
    const placeIds = new Map(
      (await tx.select().from(place).where(eq(place.nurseryId, nurseryId))).map((p) => [p.name, p.id]),
    );
    if (demo.climate) await makeStations(work, demo.climate, placeIds, server.stationUrl);
    const lookup = await lookupOf(server, tx, nurseryId);
    const grower = { ...work, personId: people[0].id };
    const arms = armsOf(demo, dayOf(today));
    const seedIds = await makeSeedRoom(grower, demo.seed, arms, lookup, demo.latitudeDeg);
    const upOn = new Map<string, EpochDay>();
    for (const lot of demo.lots) {
      const up = await makeLot(grower, demo, lot, weather, lookup, seedIds);
      if (up !== null) upOn.set(lot.code, up);
    }
    const year = springOf(demo, dayOf(today), 0);
    const events = (demo.events ?? []).map((e) => ({ ...e, day: dayFrom(year, ...e.on) }));
    await growOn(grower, demo.care ?? [], events, upOn, placeIds);
    const speciesIds = new Map([...lookup.species.values()].map((s) => [s.code, s.id]));
    await makeOrders(grower, demo.orders ?? [], speciesIds, dayOf(today));
    await takeIn(grower, demo.arrivals ?? [], lookup);
    await plantOut(grower, demo.plantings ?? []);
    await liftAndSend(grower, demo.latitudeDeg);
    await planAhead(grower, lookup, weather);
  });
}

async function makeWeather(work: Work, demo: DemoNursery): Promise<WeatherSeries> {
  const end = dayOf(work.today);
  const days = Math.round(YEARS_OF_WEATHER * 365.25);
  const series = generateWeather(
    roughNormals(demo.latitudeDeg, demo.elevationM),
    end - days + 1,
    days,
    demo.weatherSeed,
  );
  if (demo.heatWave) heatUp(series, demo.heatWave, end);
  await storeDays(
    work,
    Array.from(series.tMinC, (tMinC, i) => ({
      date: isoOf(series.start + i),
      tMinC,
      tMaxC: series.tMaxC[i],
      rainMm: series.rainMm[i],
    })),
  );
  return series;
}

/** Puts a heat wave into the summer last gone by, as far as it has come. */
function heatUp({ start, tMinC, tMaxC }: WeatherSeries, { on, maxC }: HeatWave, today: EpochDay): void {
  const { year } = partsOf(today);
  const first = dayFrom(dayFrom(year, ...on) <= today ? year : year - 1, ...on);
  for (const [i, high] of maxC.entries()) {
    const at = first + i - start;
    if (first + i > today) return;
    tMaxC[at] = Math.max(tMaxC[at], high);
    tMinC[at] = Math.max(tMinC[at], high - 16);
  }
}

async function lookupOf(server: Server, tx: Tx, nurseryId: string): Promise<Lookup> {
  const catalogue = await yardHandlers.catalogue({
    server,
    tx,
    nurseryId,
    role: 'owner',
  } as NurseryCall<'catalogue'>);
  const plan = await readValue({ tx, nurseryId }, 'site');
  return lookupFrom(catalogue, undefined, undefined, {
    elements: plan.value.elements,
    latitudeDeg: catalogue.nursery.latitudeDeg,
    longitudeDeg: catalogue.nursery.longitudeDeg,
  });
}

/** First of the northern March, or southern September, that opened the season today lies in. */
function springOf(demo: DemoNursery, today: EpochDay, season: number): number {
  const { year } = partsOf(today);
  const month = demo.latitudeDeg >= 0 ? 3 : 9;
  return (dayFrom(year, month, 1) <= today ? year : year - 1) + season;
}

function sowingDay(demo: DemoNursery, lot: DemoLot, today: EpochDay): EpochDay {
  const [month, day] = lot.sown;
  const year = springOf(demo, today, lot.season);
  if (demo.latitudeDeg >= 0) return dayFrom(year, month, day);
  return month + 6 > 12 ? dayFrom(year + 1, month - 6, day) : dayFrom(year, month + 6, day);
}

/** The day a demo lot was sown. One whose sowing is still to come this season is shown as last season's. */
export function sownOnOf(demo: DemoNursery, lot: DemoLot, today: EpochDay): EpochDay {
  const sownOn = sowingDay(demo, lot, today);
  return sownOn > today - 3 ? sowingDay(demo, { ...lot, season: lot.season - 1 }, today) : sownOn;
}

/** The batches that lots of the demo were sown from, with the day their treatment began. */
export function armsOf(demo: DemoNursery, today: EpochDay) {
  return demo.lots.flatMap((lot) => {
    if (!lot.from?.arm) return [];
    const { name, school, phases, days } = lot.from.arm;
    const startedOn = sownOnOf(demo, lot, today) - days;
    return [{ bag: lot.from.bag, name, school, phases, grams: armGrams(lot, demo), startedOn }];
  });
}

/** Mass of the seed that an arm's lot takes. */
function armGrams(lot: DemoLot, demo: DemoNursery): number {
  return (lot.seeds / demo.seed.bags.find((bag) => bag.code === lot.from!.bag)!.perKg) * 1000;
}

async function makeLot(
  work: Work,
  demo: DemoNursery,
  lot: DemoLot,
  weather: KnownWeather,
  lookup: Lookup,
  seed: SeedIds,
): Promise<EpochDay | null> {
  const today = dayOf(work.today);
  const sownOn = sownOnOf(demo, lot, today);
  const id = newId();
  const named = <T>(map: ReadonlyMap<string, T>, test: (item: T) => boolean) => [...map.values()].find(test)!;
  const placeId = named(lookup.places, (p) => p.place.name === lot.place).id;
  const home = lot.in;
  const stage: NewStage =
    'container' in home
      ? {
          kind: 'container',
          id: newId(),
          placeId,
          containerTypeId: named(lookup.containers, (c) => c.values.name === home.container).id,
          trays: home.trays,
        }
      : { kind: 'bed', id: newId(), placeId, densityPerM2: home.density, areaM2: home.area };
  await sowLot(work, {
    id,
    code: lot.code,
    speciesId: named(lookup.species, (s) => s.code === lot.species).id,
    sownOn: isoOf(sownOn),
    seedState: lot.fresh ? 'fresh' : 'ready',
    targetHeightCm: lot.target,
    note: lot.note ?? '',
    seeds: lot.seeds,
    origin: lot.stuck ? 'cuttings' : 'seed',
    seedLotId: lot.from ? seed.bags.get(lot.from.bag)! : null,
    treatmentId: lot.from?.arm ? seed.batches.get(batchKey(lot.from.bag, lot.from.arm.name))! : null,
    stockBedId: lot.stuck ? seed.stockBeds.get(lot.stuck)! : null,
    cutting: lot.stuck ? 'hard' : null,
    patch: patchOf(lot),
    stage,
  });
  const row = (await lotRow(work.tx, work.nurseryId, id))!;
  const sown = factsFrom(row, noEvidence(id), lookup);
  const shift = lot.moved && {
    kind: 'container' as const,
    id: newId(),
    placeId,
    containerTypeId: named(lookup.containers, (c) => c.values.name === lot.moved!.container).id,
    trays: lot.moved.trays,
  };
  const first = grow(sown, weather, demo.latitudeDeg, lot.vigour ?? 1);
  const movedOn = shift && first.upOn !== null ? first.upOn + lot.moved!.after : Infinity;
  const moves = shift !== undefined && movedOn <= today;
  const facts = moves
    ? inNewHome(sown, movedOn, homeOf(lot.code, { ...shift, densityPerM2: null }, lookup))
    : sown;
  const truth = moves ? grow(facts, weather, demo.latitudeDeg, lot.vigour ?? 1) : first;
  const container =
    'container' in home ? named(lookup.containers, (c) => c.values.name === home.container) : null;
  // An open flat is one cell to many seedlings.
  const open = container === null || container.values.cellsPerTray === 1;
  const cells = open ? Infinity : (home as { trays: number }).trays * container.values.cellsPerTray;
  await recordLot({ work, lot, facts, truth, id, today, cells });
  if (lot.pricked && truth.upOn !== null && truth.upOn + 40 <= today)
    await prickDemo(work, lot, id, truth.upOn + 40, lookup);
  if (moves)
    await shiftLot(work, id, {
      id: newId(),
      on: isoOf(movedOn),
      note: 'Teased, two circling roots cut.',
      stage: shift,
      lost: 0,
      cause: null,
      roots: lot.moved!.roots,
    });
  return truth.upOn;
}

/** A lot’s facts once it was moved on. */
function inNewHome(facts: LotFacts, from: EpochDay, home: Home): LotFacts {
  return {
    ...facts,
    home,
    homes: [
      { from: facts.sownOn, home: facts.home },
      { from, home },
    ],
  };
}

interface Course {
  work: Work;
  lot: DemoLot;
  facts: LotFacts;
  truth: Truth;
  id: string;
  today: EpochDay;
  /** Most plants there is room for. */
  cells: number;
}

function patchOf(lot: DemoLot) {
  if (!lot.from?.patch) return null;
  const [fromMm, toMm, lastRow] = lot.from.patch;
  return { fromMm, toMm, firstRow: 1, lastRow };
}

/** Pricks a demo flat out by size a month after it came up. */
async function prickDemo(work: Work, lot: DemoLot, id: string, day: EpochDay, lookup: Lookup): Promise<void> {
  const named = <T>(map: ReadonlyMap<string, T>, test: (item: T) => boolean) => [...map.values()].find(test)!;
  await prickOut(work, id, {
    id: newId(),
    on: isoOf(day),
    note: '',
    batches: lot.pricked!.map((batch) => ({
      id: newId(),
      code: batch.code,
      count: batch.count,
      size: batch.size,
      stage: {
        kind: 'container',
        id: newId(),
        placeId: named(lookup.places, (p) => p.place.name === batch.place).id,
        containerTypeId: named(lookup.containers, (c) => c.values.name === batch.container).id,
        trays: batch.trays,
      },
    })),
  });
}

async function recordLot({ work, lot, facts, truth, id, today, cells }: Course): Promise<void> {
  if (truth.upOn === null) return;
  const entry = (day: EpochDay, note = '') => ({ id: newId(), on: isoOf(day), note });
  const count = (day: EpochDay, counted: number) =>
    countEmergence(work, id, {
      ...entry(day),
      counted,
      cause: null,
      multi: lot.from?.multi === undefined ? null : Math.round(counted * lot.from.multi),
      damaged: null,
      patches: [],
    });
  if (lot.fails) {
    for (const after of [0, 25, 60]) if (truth.upOn + after <= today) await count(truth.upOn + after, 0);
    return;
  }
  const full = Math.round(lot.seeds * (lot.share ?? truth.finalShare));
  const final = Math.min(full, Math.round(cells * 0.97));
  for (const [after, share] of [
    [1, 0.3],
    [12, 0.8],
    [28, 1],
  ] as const) {
    if (truth.upOn + after <= today) await count(truth.upOn + after, Math.round(final * share));
  }
  // A flat is pricked out before there is more to write down of it.
  if (lot.pricked) return;
  const lossDay = truth.upOn + 60;
  if (lossDay <= today) {
    const died = Math.max(1, Math.round(final * 0.04));
    await writeOff(work, id, {
      ...entry(lossDay, 'Dry spell.'),
      from: 'standing',
      cause: 'drought',
      parcelId: null,
      count: died,
    });
    const never = lot.seeds - final;
    if (never > 0)
      await writeOff(work, id, {
        ...entry(lossDay),
        from: 'sown',
        cause: 'not-emerged',
        count: never,
        parcelId: null,
      });
  }
  for (const after of [55, 90, 125]) {
    const day = truth.upOn + after;
    if (day > today) break;
    await measureLot(work, id, {
      ...entry(day),
      heightsCm: sampleAround(truth, truth.heightAt(day), facts.species.plantCv * 0.9, 12),
      diametersMm: after > 60 ? sampleAround(truth, truth.diameterAt(day), 0.14, 12) : [],
    });
  }
  if (facts.home.kind === 'container') {
    for (const after of [75, 115, 150]) {
      const day = truth.upOn + after;
      if (day > today) break;
      await pullRoots(work, id, {
        ...entry(day),
        scores: scoresFor(truth, truth.fillAt(day), 3),
        spoiled: after === 150 ? 1 : 0,
      });
    }
  }
  if (lot.roots && truth.upOn + lot.roots.after <= today) {
    const day = truth.upOn + lot.roots.after;
    const scores = facts.home.kind === 'container' ? scoresFor(truth, truth.fillAt(day), 3) : null;
    const plants = demoPlants(
      lot.code,
      lot.roots,
      scores as PlugScore[] | null,
      truth.heightAt(day),
      truth.diameterAt(day),
    );
    for (const plant of plants)
      await inspectRoots(work, id, { ...entry(day), plant, spoiled: plants.indexOf(plant) === 0 });
  }
  if (lot.lifted) {
    // Some seven months after coming up: the middle of its first winter.
    const winter = truth.upOn + 225;
    if (winter <= today) {
      const row = (await lotRow(work.tx, work.nurseryId, id))!;
      const culled = Math.round(row.held.standing * 0.06 * lot.lifted);
      const lifted = Math.round((row.held.standing - culled) * lot.lifted);
      const parcels = twoGrades(lifted, truth.heightAt(winter), 'Heel-in bay 1');
      await liftLot(work, id, {
        ...entry(winter, 'Bundled in 25s, heeled in.'),
        lifted,
        culled,
        culls: cullsOf(culled),
        parcels,
      });
    }
  }
}
