import { readFile } from 'node:fs/promises';
import type { BodyInputOf } from '@kauri/core/contract';
import pg from 'pg';
import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import {
  addPerson,
  bedPlace,
  benchPlace,
  openTestServer,
  setUpLots,
  TODAY,
  type Caller,
  type TestServer,
} from './harness';

let server: TestServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
let crew: Caller;
let visitor: Caller;
beforeAll(async () => {
  server = await openTestServer();
  yard = await setUpLots(server);
  crew = await addPerson(server, yard.nurseryId, 'crew@testing.example', 'crew');
  visitor = await addPerson(server, yard.nurseryId, 'visitor@testing.example', 'visitor');
});
afterAll(() => server.close());

type Arrange = BodyInputOf<'arrangeYard'>;
const arrangement = (change: Partial<Arrange>): Arrange => ({
  id: newId(),
  site: null,
  moved: [],
  added: [],
  removed: [],
  ...change,
});
const arrange = (change: Partial<Arrange>, who = yard.owner) =>
  who.ok('arrangeYard', { params: yard.nursery, body: arrangement(change) });
const refused = async (change: Partial<Arrange>, who = yard.owner) => {
  const response = await who.send('arrangeYard', { params: yard.nursery, body: arrangement(change) });
  return { status: response.status, problem: (await response.json()) as { detail: string; type: string } };
};
const catalogue = () => yard.owner.ok('catalogue', { params: yard.nursery });
const placeNamed = async (name: string) => (await catalogue()).places.find((p) => p.place.name === name)!;
const site = () => yard.owner.ok('site', { params: yard.nursery });
const barn = {
  id: newId(),
  kind: 'building' as const,
  name: 'Barn',
  heightM: 8,
  points: [
    [20, 20],
    [25, 20],
    [25, 26],
    [20, 26],
  ] as [number, number][],
};

describe('the plan', () => {
  it('is changed whole: site, moved, added and taken away, and each is in the journal', async () => {
    const bed = await placeNamed('Bed');
    const [id, other] = [newId(), newId()];
    const first = await arrange({
      site: { version: 0, plan: { schema: 1, elements: [barn] } },
      moved: [{ id: bed.id, version: bed.version, eastM: 3.25, northM: 4, angleDeg: 30 }],
      added: [
        { id, place: bedPlace('Extra') },
        { id: other, place: { ...benchPlace('Ground'), kind: 'ground' } },
      ],
    });
    expect(first.site.version).toBe(1);
    expect(await placeNamed('Bed')).toMatchObject({
      version: bed.version + 1,
      place: { eastM: 3.25, angleDeg: 30 },
    });
    // Its condition checks go with it.
    await yard.owner.ok('checkPlace', {
      params: { ...yard.nursery, place: id },
      body: { id: newId(), day: TODAY, condition: 'sound', repaired: false, note: '' },
    });
    const gone = await arrange({ removed: [{ id, version: 1 }] });
    expect((await yard.owner.ok('checks', { params: yard.nursery })).checks).toEqual([]);
    expect(gone.removed).toEqual([id]);
    expect(await placeNamed('Extra')).toBeUndefined();
    // An undo adds it again under its own id.
    await arrange({ added: [{ id, place: bedPlace('Extra') }] });
    const { rows } = await server.owner.query('select act from journal where subject_id = $1 order by id', [
      id,
    ]);
    expect(rows.map((r) => r.act)).toEqual(['add place', 'check place', 'take place away', 'add place']);
  });

  it('is left as it was when any part of an edit is refused', async () => {
    const before = JSON.stringify([await catalogue(), await site()]);
    const bed = await placeNamed('Bed');
    const moved = [{ id: bed.id, version: bed.version, eastM: 9, northM: 9, angleDeg: 0 }];
    const { version } = await site();
    const wrong: [Partial<Arrange>, number, RegExp][] = [
      [{ moved: [{ ...moved[0], version: 99 }] }, 409, /Someone changed Bed meanwhile/],
      [
        { moved, site: { version: version + 5, plan: { schema: 1, elements: [] } } },
        409,
        /Someone changed this/,
      ],
      [{ moved, removed: [{ id: (await placeNamed('Bench')).id, version: 1 }] }, 409, /Bench has held lots/],
      [{ moved, added: [{ id: newId(), place: bedPlace('Bed') }] }, 409, /name|already/i],
      [{ moved, removed: [{ id: newId(), version: 1 }] }, 404, /no longer there/],
      [
        {
          moved,
          site: {
            version,
            plan: {
              schema: 1,
              elements: [
                { ...barn, points: [barn.points[0], barn.points[2], barn.points[1], barn.points[3]] },
              ],
            },
          },
        },
        422,
        /The outline of Barn crosses itself\./,
      ],
      [
        {
          moved,
          added: [
            {
              id: newId(),
              place: { ...bedPlace('Odd'), design: { ...bedPlace('Odd').design, fillBelowRimMm: 499 } },
            },
          ],
        },
        422,
        /holds no medium/,
      ],
    ];
    for (const [change, status, sentence] of wrong) {
      const answer = await refused(change);
      expect(answer, JSON.stringify(answer)).toMatchObject({
        status,
        problem: { detail: expect.stringMatching(sentence) },
      });
    }
    expect(JSON.stringify([await catalogue(), await site()])).toBe(before);
  });

  it('takes a retried edit once', async () => {
    const body = arrangement({ added: [{ id: newId(), place: bedPlace('Once') }] });
    const first = await yard.owner.ok('arrangeYard', { params: yard.nursery, body });
    expect(await yard.owner.ok('arrangeYard', { params: yard.nursery, body })).toEqual(first);
  });

  it('lets one of two at once have it', async () => {
    const bed = await placeNamed('Bed');
    const to = (eastM: number) =>
      refused({ moved: [{ id: bed.id, version: bed.version, eastM, northM: 0, angleDeg: 0 }] });
    const statuses = (await Promise.all([1, 2, 3, 4, 5].map(to))).map((r) => r.status).sort();
    expect(statuses).toEqual([200, 409, 409, 409, 409]);
  });

  it('is for growers to change; crew and visitors look', async () => {
    for (const who of [crew, visitor]) {
      expect((await refused({}, who)).status).toBe(403);
      expect((await who.send('site', { params: yard.nursery })).status).toBe(200);
    }
  });
});

describe('a place with lots in it', () => {
  it('is not made too small for them, and may be made smaller while they fit', async () => {
    const { owner, nursery } = yard;
    const bed = await placeNamed('Bed');
    const edit = (place: typeof bed.place, lengthMm: number) =>
      owner.send('editPlace', {
        params: { ...nursery, place: bed.id },
        body: { version: bed.version, place: { ...place, design: { ...place.design, lengthMm } } as never },
      });
    const small = await edit(bed.place, 400);
    expect(small.status).toBe(422);
    expect(((await small.json()) as { detail: string }).detail).toMatch(/Lots standing in Bed take .* m²/);
    const bench = await placeNamed('Bench');
    const narrow = await owner.send('editPlace', {
      params: { ...nursery, place: bench.id },
      body: {
        version: bench.version,
        place: { ...bench.place, design: { ...bench.place.design, lengthMm: 400, widthMm: 350 } } as never,
      },
    });
    expect(narrow.status).toBe(422);
    expect(((await narrow.json()) as { detail: string }).detail).toMatch(/trays of one lot stand on Bench/);
    expect((await edit(bed.place, 2300)).status).toBe(200);
  });
});

describe('what is sown where', () => {
  it('trays stand on ground too, and never in a bay or a bed', async () => {
    const [ground, bay] = [newId(), newId()];
    const like = benchPlace('x');
    await arrange({
      added: [
        { id: ground, place: { ...like, name: 'Standing out', kind: 'ground' } },
        { id: bay, place: { ...like, name: 'Bay', kind: 'bay' } },
      ],
    });
    const sow = (placeId: string) =>
      yard.owner.send('sowLot', {
        params: yard.nursery,
        body: {
          id: newId(),
          code: `G-${placeId.slice(-5)}`,
          speciesId: yard.speciesId('ALN'),
          sownOn: '2026-04-08',
          seedState: 'ready',
          targetHeightCm: 30,
          seeds: 50,
          stage: {
            kind: 'container',
            id: newId(),
            placeId,
            containerTypeId: yard.catalogue.containers[0].id,
            trays: 1,
          },
        },
      });
    expect((await sow(ground)).status).toBe(200);
    for (const placeId of [bay, (await placeNamed('Bed')).id]) expect((await sow(placeId)).status).toBe(422);
  });
});

describe('designs', () => {
  it('are kept version by version, each as it was', async () => {
    const { owner, nursery } = yard;
    const id = newId();
    const { design } = bedPlace('x');
    const first = await owner.ok('addDesign', { params: nursery, body: { id, name: 'Large', design } });
    expect(first.version).toBe(1);
    const params = { ...nursery, design: id };
    const longer = { ...design, lengthMm: 3000 };
    await owner.ok('editDesign', { params, body: { version: 1, name: 'Large', design: longer } });
    const stale = await owner.send('editDesign', { params, body: { version: 1, name: 'Mine', design } });
    expect(stale.status).toBe(409);
    const { versions } = await owner.ok('designVersions', { params });
    expect(versions.map((v) => [v.version, v.design.lengthMm])).toEqual([
      [1, 2400],
      [2, 3000],
    ]);
    // A bed built from the first keeps it.
    const bedId = newId();
    await owner.ok('addPlace', {
      params: nursery,
      body: { id: bedId, place: { ...bedPlace('Built'), builtFrom: { designId: id, version: 1 } } },
    });
    expect((await placeNamed('Built')).place).toMatchObject({ builtFrom: { designId: id, version: 1 } });
    await expect(server.owner.query('update bed_design_version set name = $1', ['other'])).rejects.toThrow(
      /added to, never changed/,
    );
    const nothing = await owner.send('addDesign', {
      params: nursery,
      body: {
        id: newId(),
        name: 'Thin',
        design: { ...design, lengthMm: 200, widthMm: 200, fillBelowRimMm: 499 },
      },
    });
    expect(nothing.status).toBe(422);
  });
});

describe('checks, containers, media and prices', () => {
  it('a check is recorded by crew, on a day that has been', async () => {
    const bed = await placeNamed('Bed');
    const params = { ...yard.nursery, place: bed.id };
    const body = { id: newId(), day: TODAY, condition: 'watch' as const, repaired: false, note: 'bows' };
    expect(await crew.ok('checkPlace', { params, body })).toMatchObject({
      placeId: bed.id,
      by: 'crew@testing.example',
    });
    expect((await visitor.ok('checks', { params: yard.nursery })).checks[0].note).toBe('bows');
    const later = await crew.send('checkPlace', {
      params,
      body: { ...body, id: newId(), day: '2027-01-01' },
    });
    expect(later.status).toBe(422);
    expect((await visitor.send('checkPlace', { params, body: { ...body, id: newId() } })).status).toBe(403);
  });

  it('kinds are added and changed with their version, impossible ones refused', async () => {
    const { owner, nursery } = yard;
    const { containers, media } = await catalogue();
    const tube = containers[0];
    const id = newId();
    await owner.ok('addContainer', {
      params: nursery,
      body: { id, values: { ...tube.values, name: 'Ours' } },
    });
    const params = { ...nursery, container: id };
    await owner.ok('editContainer', {
      params,
      body: { version: 1, values: { ...tube.values, name: 'Ours', uses: 3 } },
    });
    expect(
      (await owner.send('editContainer', { params, body: { version: 1, values: tube.values } })).status,
    ).toBe(409);
    const bad = await owner.send('addContainer', {
      params: nursery,
      body: { id: newId(), values: { ...tube.values, depthMm: 0 } },
    });
    expect(((await bad.json()) as { detail: string }).detail).toMatch(/^Depth: a number/);
    const heavy = await owner.send('editMedium', {
      params: { ...nursery, medium: media[0].id },
      body: { version: media[0].version, values: { ...media[0].values, dryKgPerM3: 900, wetKgPerM3: 700 } },
    });
    expect(((await heavy.json()) as { detail: string }).detail).toMatch(/more dry than wet/);
  });

  it('a heap never holds less than nothing, however many take at once', async () => {
    const { media } = await catalogue();
    const params = { ...yard.nursery, medium: media[1].id };
    const move = (litres: number) =>
      crew.send('moveStock', {
        params,
        body: { id: newId(), day: TODAY, litres, why: litres > 0 ? 'bought' : 'filled', note: '' },
      });
    expect((await move(100)).status).toBe(200);
    const statuses = (await Promise.all(Array.from({ length: 6 }, () => move(-30))))
      .map((r) => r.status)
      .sort();
    expect(statuses).toEqual([200, 200, 200, 422, 422, 422]);
    const { rows } = await crew.ok('stock', { params: yard.nursery });
    expect(rows.filter((r) => r.mediumId === media[1].id).reduce((t, r) => t + r.litres, 0)).toBe(10);
  });

  it('prices are one value with a version', async () => {
    const { owner, nursery } = yard;
    const { prices } = await catalogue();
    expect(prices.version).toBe(0);
    const list = { ...prices.list, currency: '€' };
    const keep = (version: number) => owner.send('setPrices', { params: nursery, body: { version, list } });
    const statuses = (await Promise.all([keep(0), keep(0), keep(0)])).map((r) => r.status).sort();
    expect(statuses).toEqual([200, 409, 409]);
    expect((await catalogue()).prices).toMatchObject({ version: 1, list: { currency: '€' } });
    const empty = await owner.send('setPrices', {
      params: nursery,
      body: { version: 1, list: { ...list, boardLengthsMm: [] } },
    });
    expect(((await empty.json()) as { detail: string }).detail).toMatch(/which lengths/);
  });
});

describe('water', () => {
  let bedId: string;
  beforeEach(async () => {
    bedId = (await placeNamed('Bed')).id;
  });
  const drip = (placeId: string) => ({
    placeId,
    lineSpacingMm: 300,
    emitterSpacingMm: 300,
    emitterFlowLph: 1.6,
    nominalPressureM: 10,
    exponent: 0.5,
    insideDiameterMm: 10,
    manufacturingCv: 0.04,
    canopyCover: 0.8,
    rainShare: 0.9,
  });
  const programme = (placeId: string, everyDays = 2) => ({
    from: '2026-11-10',
    zones: [
      {
        id: newId(),
        name: 'Zone 1',
        minutes: 30,
        everyDays,
        places: [{ placeId, flowLph: 40, areaM2: 2.5, heldMm: 80, cover: 0.8, rainShare: 0 }],
      },
    ],
  });

  it('plans name only the nursery’s own places', async () => {
    const { owner, nursery } = yard;
    const { version, plan } = await owner.ok('water', { params: nursery });
    const strange = await owner.send('setWater', {
      params: nursery,
      body: { version, plan: { ...plan, drips: [drip(newId())] } },
    });
    expect(strange.status).toBe(422);
    await owner.ok('setWater', {
      params: nursery,
      body: { version, plan: { ...plan, drips: [drip(bedId)] } },
    });
    const zero = await owner.send('setWater', {
      params: nursery,
      body: { version: version + 1, plan: { ...plan, pressureM: 0 } },
    });
    expect(((await zero.json()) as { detail: string }).detail).toBe(
      'Pressure at the manifold: a number from 0.1 to 80 m.',
    );
  });

  it('are read back from the controller, which forgets a programme and is told it again', async () => {
    const { owner, nursery } = yard;
    const early = await owner.send('readController', { params: nursery });
    expect(early.status).toBe(422);
    await owner.ok('sendProgramme', { params: nursery, body: programme(bedId) });
    const { readings } = await crew.ok('readController', { params: nursery });
    expect(readings).toHaveLength(15);
    expect(readings.every((r) => r.placeId === bedId)).toBe(true);
    expect(readings.filter((r) => r.askedLitres > 0).length).toBe(8);
    for (const r of readings) {
      expect(Math.abs(r.litres! - r.askedLitres)).toBeLessThanOrEqual(0.05 * r.askedLitres);
      if (r.askedLitres > 0) expect(r.after!).toBeGreaterThanOrEqual(r.before! - 0.02);
    }
    // Read again, it is the same days, not twice as many.
    expect((await crew.ok('readController', { params: nursery })).readings).toHaveLength(15);
  });

  it('water a place by one zone', async () => {
    const { owner, nursery } = yard;
    const { from, zones } = programme(bedId);
    const twice = [...zones, { ...zones[0], id: newId() }];
    const { detail } = await owner.refused('sendProgramme', {
      params: nursery,
      body: { from, zones: twice },
    });
    expect(detail).toBe('A place is watered by one zone.');
  });

  it.each([
    ['stuck-closed', (r: { litres: number | null }) => r.litres === 0],
    ['stuck-open', (r: { litres: number | null }) => r.litres! > 100],
    ['dead-probe', (r: { before: number | null }) => r.before === null],
    ['no-supply', (r: { litres: number | null }) => r.litres === 0],
  ] as const)('show %s when the stand-in is made to fail so', async (fault, shows) => {
    const { owner, nursery } = yard;
    await owner.ok('sendProgramme', { params: nursery, body: programme(bedId, 1) });
    await owner.ok('failStandIn', {
      params: nursery,
      body: { placeId: fault === 'no-supply' ? null : bedId, fault },
    });
    const { readings } = await owner.ok('readController', { params: nursery });
    expect(readings.every((r) => shows(r))).toBe(true);
    await owner.ok('failStandIn', { params: nursery, body: { placeId: null, fault: 'none' } });
  });
});

describe('a yard from before places had angles', () => {
  it('keeps where its places lie: turned ones at a right angle', async () => {
    const admin = new pg.Client({ connectionString: server.databaseUrl });
    await admin.connect();
    const name = `kauri_old_${process.pid}`;
    await admin.query(`create database ${name}`);
    const url = new URL(server.databaseUrl);
    url.pathname = `/${name}`;
    const old = new pg.Client({ connectionString: url.toString() });
    await old.connect();
    try {
      const run = async (file: string) => {
        const text = await readFile(new URL(`../src/db/migrations/${file}.sql`, import.meta.url), 'utf8');
        for (const statement of text.split('--> statement-breakpoint')) await old.query(statement);
      };
      await run('0000_rooms');
      await run('0001_guards');
      const nurseryId = newId();
      await old.query(
        `insert into nursery (id, name, place_name, latitude_deg, longitude_deg, elevation_m, time_zone, units) values ($1, 'Old', '', 54, 0, 10, 'UTC', 'metric')`,
        [nurseryId],
      );
      for (const [placeName, turned] of [
        ['Along', false],
        ['Across', true],
      ])
        await old.query(
          `insert into place (nursery_id, id, kind, name, east_m, north_m, turned, design) values ($1, $2, 'bench', $3, 1, 2, $4, '{}')`,
          [nurseryId, newId(), placeName, turned],
        );
      await run('0002_yard');
      const { rows } = await old.query('select name, angle_deg, east_m from place order by name');
      expect(rows).toEqual([
        { name: 'Across', angle_deg: 90, east_m: 1 },
        { name: 'Along', angle_deg: 0, east_m: 1 },
      ]);
    } finally {
      await old.end();
      await admin.query(`drop database ${name} with (force)`);
      await admin.end();
    }
  });
});
