import pg from 'pg';
import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { prepareDatabase } from '../src/db/prepare';
import { openTestServer, type Caller, type TestServer } from './harness';

const tenantTables = [
  'species',
  'medium',
  'container_type',
  'place',
  'lot',
  'stage',
  'movement',
  'balance',
  'observation',
  'weather_day',
  'journal',
  'receipt',
  'membership',
  'nursery_value',
  'bed_design',
  'bed_design_version',
  'place_check',
  'medium_stock',
  'water_reading',
  'seed_lot',
  'seed_move',
  'treatment',
  'stock_bed',
  'layer',
  'seed_record',
  'photo',
  'act_mark',
  'calendar_token',
  'lot_asks',
  'nursery_today',
  'station',
  'station_reading',
  'tree_order',
];
let server: TestServer;
let app: pg.Pool;
let ids: { withybeck: string; piedraClara: string };

beforeAll(async () => {
  server = await openTestServer({ demo: true });
  app = new pg.Pool({
    connectionString: await prepareDatabase(
      server.databaseUrl,
      new URL('../src/db/migrations', import.meta.url).pathname,
    ),
    max: 2,
  });
  app.on('connect', (client) => client.on('error', () => undefined));
  const { rows } = await server.owner.query<{ id: string; name: string }>('select id, name from nursery');
  ids = {
    withybeck: rows.find((row) => row.name.startsWith('Withybeck'))!.id,
    piedraClara: rows.find((row) => row.name.startsWith('Vivero'))!.id,
  };
});
afterAll(async () => {
  await app.end();
  await server.close();
});

/** Runs one statement as the server does, in a nursery or in none; always rolled back. */
async function within(
  nurseryId: string | null,
  sql: string,
  values: unknown[] = [],
): Promise<pg.QueryResult> {
  const client = await app.connect();
  try {
    await client.query('begin');
    if (nurseryId) await client.query("select set_config('kauri.nursery', $1, true)", [nurseryId]);
    return await client.query(sql, values);
  } finally {
    await client.query('rollback');
    client.release();
  }
}

describe('rows of two nurseries, in SQL', () => {
  it('are guarded by a role that cannot step over the guard', async () => {
    const { rows } = await app.query(
      'select current_user as name, rolsuper, rolbypassrls, rolcreaterole from pg_roles where rolname = current_user',
    );
    expect(rows[0]).toEqual({
      name: 'kauri_app',
      rolsuper: false,
      rolbypassrls: false,
      rolcreaterole: false,
    });
    const { rows: guarded } = await server.owner.query(
      "select relname from pg_class where relkind = 'r' and relrowsecurity and relforcerowsecurity order by relname",
    );
    expect(guarded.map((row) => row.relname)).toEqual(expect.arrayContaining([...tenantTables, 'nursery']));
    const { rows: withNursery } = await server.owner.query(
      "select table_name from information_schema.columns where table_schema = 'public' and column_name = 'nursery_id'",
    );
    // Every table that holds a nursery's rows is among the guarded ones.
    for (const { table_name } of withNursery) expect(guarded.map((row) => row.relname)).toContain(table_name);
  });
  it.each(tenantTables)(
    '%s shows nothing to a query that forgets its nursery, and only its own to one that does not',
    async (table) => {
      expect((await within(null, `select * from ${table}`)).rowCount).toBe(0);
      const mine = await within(ids.withybeck, `select distinct nursery_id from ${table}`);
      for (const row of mine.rows) expect(row.nursery_id).toBe(ids.withybeck);
      const theirs = await within(ids.piedraClara, `select * from ${table} where nursery_id = $1`, [
        ids.withybeck,
      ]);
      expect(theirs.rowCount).toBe(0);
    },
  );
  it('cannot be written into another nursery, nor changed or removed from it', async () => {
    await expect(
      within(ids.piedraClara, 'insert into medium (nursery_id, id, "values") values ($1, $2, \'{}\')', [
        ids.withybeck,
        newId(),
      ]),
    ).rejects.toThrow(/row-level security/);
    expect(
      (await within(ids.piedraClara, "update lot set note = 'theirs' where nursery_id = $1", [ids.withybeck]))
        .rowCount,
    ).toBe(0);
    expect(
      (await within(ids.piedraClara, 'delete from weather_day where nursery_id = $1', [ids.withybeck]))
        .rowCount,
    ).toBe(0);
  });
  it('cannot refer to each other', async () => {
    const { rows } = await server.owner.query('select id from species where nursery_id = $1 limit 1', [
      ids.withybeck,
    ]);
    await expect(
      within(
        ids.piedraClara,
        "insert into lot (nursery_id, id, code, species_id, sown_on, seed_state) values ($1, $2, 'X', $3, '2026-01-01', 'ready')",
        [ids.piedraClara, newId(), rows[0].id],
      ),
    ).rejects.toThrow(/lot_species/);
  });
  it.each(['movement', 'journal'])('%s is added to, never changed', async (table) => {
    await expect(within(ids.withybeck, `update ${table} set nursery_id = nursery_id`)).rejects.toThrow(
      /permission denied/,
    );
    await expect(within(ids.withybeck, `delete from ${table}`)).rejects.toThrow(/permission denied/);
    await expect(server.owner.query(`update ${table} set nursery_id = nursery_id`)).rejects.toThrow(
      /never changed/,
    );
  });
  it('balances are kept by the ledger alone', async () => {
    await expect(within(ids.withybeck, 'update balance set held = held + 1')).rejects.toThrow(
      /permission denied/,
    );
  });
});

describe('servers that start together on databases of one cluster', () => {
  it('all come up, though they share a role', async () => {
    const started = await Promise.all(Array.from({ length: 5 }, () => openTestServer()));
    const answers = await Promise.all(started.map((s) => s.visitor().ok('health')));
    expect(answers).toEqual(started.map(() => ({ server: 'up', database: 'up' })));
    await Promise.all(started.map((s) => s.close()));
  });
});

describe('rows of two nurseries, over HTTP', () => {
  let isla: Caller;
  let nahuel: Caller;
  beforeAll(async () => {
    isla = await server.signIn('isla@withybeck.example');
    nahuel = await server.signIn('nahuel@piedraclara.example');
  });
  it('are seen by their own people only', async () => {
    expect((await nahuel.ok('me'))!.memberships.map((m) => m.nurseryName)).toEqual(['Vivero Piedra Clara']);
    for (const name of [
      'catalogue',
      'lots',
      'evidence',
      'weather',
      'site',
      'checks',
      'stock',
      'water',
      'watering',
      'exportWeather',
      'exportMeasurements',
    ] as const) {
      expect((await nahuel.refused(name, { params: { nursery: ids.withybeck } })).status).toBe(404);
      expect((await isla.refused(name, { params: { nursery: ids.piedraClara } })).status).toBe(404);
    }
  });
  it('of the yard are not changed through one’s own nursery', async () => {
    const theirs = await isla.ok('catalogue', { params: { nursery: ids.withybeck } });
    const own = { nursery: ids.piedraClara };
    const place = theirs.places[0];
    const spot = { eastM: 1, northM: 1, angleDeg: 0 };
    const arrange = (change: object) =>
      nahuel.refused('arrangeYard', {
        params: own,
        body: { id: newId(), site: null, moved: [], added: [], removed: [], ...change },
      });
    expect((await arrange({ moved: [{ id: place.id, version: place.version, ...spot }] })).status).toBe(404);
    expect((await arrange({ removed: [{ id: place.id, version: place.version }] })).status).toBe(404);
    const check = { id: newId(), day: '2026-11-01', condition: 'sound' as const, repaired: false, note: '' };
    expect(
      (await nahuel.refused('checkPlace', { params: { ...own, place: place.id }, body: check })).status,
    ).toBe(404);
    const stock = { id: newId(), day: '2026-11-01', litres: 5, why: 'bought' as const, note: '' };
    expect(
      (await nahuel.refused('moveStock', { params: { ...own, medium: theirs.media[0].id }, body: stock }))
        .status,
    ).toBe(404);
    const { designs } = theirs;
    expect(
      (await nahuel.refused('designVersions', { params: { ...own, design: designs[0].id } })).status,
    ).toBe(404);
    const { version, plan } = await nahuel.ok('water', { params: own });
    const zones = [{ id: newId(), name: 'Z', placeIds: [place.id] }];
    expect(
      (await nahuel.refused('setWater', { params: own, body: { version, plan: { ...plan, zones } } })).status,
    ).toBe(422);
    expect(
      (await nahuel.refused('failStandIn', { params: own, body: { placeId: place.id, fault: 'stuck-open' } }))
        .status,
    ).toBe(422);
    const after = await isla.ok('catalogue', { params: { nursery: ids.withybeck } });
    expect(after.places.find((p) => p.id === place.id)).toEqual(place);
  });
  it('are not reached through one’s own nursery', async () => {
    const { lots } = await isla.ok('lots', { params: { nursery: ids.withybeck } });
    const lot = lots.find((row) => row.held.standing > 0)!;
    const at = { nursery: ids.piedraClara, lot: lot.id };
    expect((await nahuel.refused('lot', { params: at })).status).toBe(404);
    expect(
      (
        await nahuel.refused('liftLot', {
          params: at,
          body: { id: newId(), on: '2026-11-20', lifted: 1, culled: 0 },
        })
      ).status,
    ).toBe(404);
    expect(
      (
        await nahuel.refused('liftLot', {
          params: { ...at, nursery: ids.withybeck },
          body: { id: newId(), on: '2026-11-20', lifted: 1, culled: 0 },
        })
      ).status,
    ).toBe(404);
    const theirs = await nahuel.ok('lots', { params: { nursery: ids.piedraClara } });
    expect(theirs.lots).toHaveLength(3);
    const own = await nahuel.ok('catalogue', { params: { nursery: ids.piedraClara } });
    const problem = await nahuel.refused('sowLot', {
      params: { nursery: ids.piedraClara },
      body: {
        id: newId(),
        code: 'MIXED',
        speciesId: lot.speciesId,
        sownOn: '2026-09-01',
        seedState: 'ready',
        targetHeightCm: null,
        seeds: 10,
        stage: { kind: 'bed', id: newId(), placeId: own.places[0].id, densityPerM2: 100, areaM2: 0.1 },
      },
    });
    expect(problem).toMatchObject({ status: 422, type: '/problems/missing' });
  });
  it('know their own hemisphere and day', async () => {
    const { nursery } = await nahuel.ok('catalogue', { params: { nursery: ids.piedraClara } });
    expect(nursery).toMatchObject({
      latitudeDeg: -41.2,
      timeZone: 'America/Argentina/Salta',
      today: '2026-11-24',
    });
  });
});
