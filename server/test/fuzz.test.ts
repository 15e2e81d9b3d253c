import { gzipSync } from 'node:zlib';
import { routes, type Route, type RouteName } from '@kauri/core/contract';
import fc from 'fast-check';
import { z } from 'zod';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestServer, type Caller, type TestServer } from './harness';
import { rightFor, wrongFor, type Known, type Schema } from './fromSchema';

/** Calls of each route; the long run asks for more. */
const RUNS = Number(process.env.KAURI_FUZZ ?? 4);
/** Longest an answer may take, ms: a hang, not a matter of speed. */
const HANG_MS = 20_000;
/** These end the session or the password the test calls with, or stream until they are left. */
const leftOut = new Set<RouteName>(['signOut', 'signOutEverywhere', 'changePassword', 'instrument']);

let server: TestServer;
let owner: Caller;
let nursery: string;
let victim: string;
let known: Known;
/** Routes that took something of what they were sent. */
const taken = new Set<RouteName>();
beforeAll(async () => {
  server = await openTestServer({ demo: true });
  owner = await server.signIn('orla@withybeck.example');
  nursery = (await owner.ok('me'))!.memberships[0].nurseryId;
  const { rows } = await server.owner.query<{ id: string }>('select id from nursery where id <> $1', [
    nursery,
  ]);
  victim = rows[0].id;
  const byTable = await idsOf(nursery);
  known = {
    ids: [...byTable.values()].flat(),
    idsOf: (name) => {
      const table =
        called[name] ?? name.replace(/Ids?$/, '').replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);
      return byTable.get(table) ?? [];
    },
    dates: ['2026-11-24', '2026-11-25', '2026-11-20', '2025-10-01'],
  };
});
afterAll(() => server.close());

async function tables(): Promise<string[]> {
  const { rows } = await server.owner.query<{ table_name: string }>(
    "select table_name from information_schema.columns where table_schema = 'public' and column_name = 'nursery_id' order by 1",
  );
  return rows.map((row) => row.table_name);
}
/** What ids are called where that is not their table's name. */
const called: Record<string, string> = {
  container: 'container_type',
  containerTypeId: 'container_type',
  design: 'bed_design',
  designId: 'bed_design',
  order: 'tree_order',
  orderId: 'tree_order',
  proposal: 'season_proposal',
  part: 'planted_part',
  step: 'hold_step',
  mark: 'act_mark',
  marks: 'act_mark',
  entry: 'observation',
  entries: 'observation',
  lots: 'lot',
  parcels: 'parcel',
  record: 'seed_record',
  look: 'store_look',
  assignedTo: 'person',
  seen: 'stage',
};
/** Some ids of every table of a nursery that has them. */
async function idsOf(nurseryId: string): Promise<Map<string, string[]>> {
  const found = new Map([['nursery', [nurseryId]]]);
  const people = await server.owner.query<{ person_id: string }>(
    'select person_id from membership where nursery_id = $1',
    [nurseryId],
  );
  found.set(
    'person',
    people.rows.map((row) => row.person_id),
  );
  const { rows } = await server.owner.query<{ table_name: string }>(
    "select table_name from information_schema.columns where table_schema = 'public' and column_name = 'id' and data_type = 'uuid'",
  );
  const own = new Set(await tables());
  for (const { table_name } of rows.filter((row) => own.has(row.table_name))) {
    const some = await server.owner.query<{ id: string }>(
      `select id from ${table_name} where nursery_id = $1 order by md5(id::text) limit 12`,
      [nurseryId],
    );
    found.set(
      table_name,
      some.rows.map((row) => row.id),
    );
  }
  return found;
}
async function digest(nurseryId: string): Promise<Record<string, unknown>> {
  const sums: Record<string, unknown> = {};
  for (const table of await tables()) {
    // What is worked out by itself each day is no record.
    if (table === 'lot_asks' || table === 'nursery_today') continue;
    const { rows } = await server.owner.query(
      `select count(*)::int as n, md5(string_agg(t::text, '|' order by t::text)) as digest from ${table} t where nursery_id = $1`,
      [nurseryId],
    );
    sums[table] = rows[0];
  }
  return sums;
}

const schemaOf = (schema: z.ZodType): Schema =>
  z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }) as Schema;
const all = (Object.entries(routes) as [RouteName, Route][]).filter(([name]) => !leftOut.has(name));

/** Calls a route with whatever was made for it. @returns what went wrong, or null */
async function faultOf(
  name: RouteName,
  { params, query, body }: { params: object; query: object; body: unknown },
): Promise<string | null> {
  const route: Route = routes[name];
  const path = route.path.replace(/:(\w+)/g, (_, key: string) =>
    encodeURIComponent(wellFormed(inWords((params as Record<string, unknown>)[key]))),
  );
  const search = new URLSearchParams(
    Object.entries(query).flatMap(([key, value]) =>
      value === undefined || value === null ? [] : [[key, inWords(value)] as [string, string]],
    ),
  ).toString();
  const raw = route.bodyType ? inWords(body) : JSON.stringify(body);
  const response = await fetch(`${server.url}/api${path}${search && `?${search}`}`, {
    method: route.method,
    headers: {
      origin: server.url,
      cookie: owner.cookie,
      'content-type': route.bodyType ?? 'application/json',
    },
    ...(route.method === 'GET' ? {} : { body: raw }),
    signal: AbortSignal.timeout(HANG_MS),
  });
  const answer = await response.text();
  if (response.ok) taken.add(name);
  if (response.status >= 500 || /"status":5\d\d/.test(answer))
    return `${response.status} ${answer.slice(0, 300)}`;
  if (response.status >= 400 && !(response.headers.get('content-type') ?? '').includes('problem+json'))
    return `${response.status} without a problem: ${answer.slice(0, 300)}`;
  return null;
}
/** As an address or a file holds it. */
const inWords = (value: unknown) => (typeof value === 'string' ? value : (JSON.stringify(value) ?? ''));
/** An address cannot hold half a character: the browser would not send it. */
const wellFormed = (text: string) => text.replace(/\p{Surrogate}/gu, '�');

describe('whatever is sent', () => {
  it(
    'no route fails: right bodies at their limits, bodies with one place wrong, odd paths and questions',
    async () => {
      const before = await digest(victim);
      const faults: string[] = [];
      for (const [index, [name, route]] of all.entries()) {
        const params = fc.oneof(
          { weight: 5, arbitrary: rightFor(schemaOf(route.params), known) },
          { weight: 1, arbitrary: wrongFor(schemaOf(route.params), known) },
        );
        const query = fc.oneof(
          { weight: 3, arbitrary: rightFor(schemaOf(route.query), known) },
          { weight: 1, arbitrary: wrongFor(schemaOf(route.query), known) },
        );
        const body = fc.oneof(
          { weight: 2, arbitrary: rightFor(schemaOf(route.body), known) },
          { weight: 1, arbitrary: wrongFor(schemaOf(route.body), known) },
        );
        const call = fc.record({ params, query, body });
        for (const one of fc.sample(call, {
          numRuns: RUNS,
          seed: Number(process.env.KAURI_SEED ?? 15) + 1000 * index,
        })) {
          // Most are of the nursery the caller owns; some try another's.
          const at = (one.params =
            typeof one.params === 'object' && one.params !== null ? one.params : {}) as Record<
            string,
            unknown
          >;
          one.query = typeof one.query === 'object' && one.query !== null ? one.query : {};
          if ('nursery' in at && at.nursery !== victim) at.nursery = nursery;
          const fault = await faultOf(name, one as never);
          if (fault) faults.push(`${name}: ${fault}\n  ${JSON.stringify(one).slice(0, 600)}`);
        }
      }
      expect(faults.slice(0, 12).join('\n')).toBe('');
      expect(await digest(victim)).toEqual(before);
    },
    RUNS * 20_000,
  );
  it('what is no text, no JSON or no compression gets a sentence', async () => {
    const send = (path: string, init: RequestInit) =>
      fetch(`${server.url}${path}`, {
        ...init,
        headers: { origin: server.url, cookie: owner.cookie, ...init.headers },
      });
    const json = { 'content-type': 'application/json' };
    const place = `/api/nurseries/${nursery}/places`;
    const bodies: RequestInit[] = [
      { body: 'not json', headers: json },
      { body: new Uint8Array([0xff, 0xfe, 0]), headers: json },
      { body: 'garbage', headers: { ...json, 'content-encoding': 'gzip' } },
      { body: 'garbage', headers: { ...json, 'content-encoding': 'br' } },
      {
        body: new Uint8Array(gzipSync(`{"x":"${'y'.repeat(3_000_000)}"}`)),
        headers: { ...json, 'content-encoding': 'gzip' },
      },
      { body: '{}', headers: { 'content-type': 'application/json; charset=utf-77' } },
      { body: `${'['.repeat(5000)}${']'.repeat(5000)}`, headers: json },
      { body: '{"__proto__":{"id":1}}', headers: json },
    ];
    for (const init of bodies) {
      const response = await send(place, { method: 'POST', ...init });
      expect([response.status >= 400 && response.status < 500, response.status]).toEqual([
        true,
        response.status,
      ]);
      expect(((await response.json()) as { detail: string }).detail).toMatch(/\.$/);
    }
    for (const path of [
      '/api/nurseries/%ZZ/lots',
      '/%E0%A4%A',
      '/assets/none.js',
      '/none.png',
      '/api/calendar/%00.ics',
    ]) {
      const response = await send(path, {});
      expect([path, response.status >= 400 && response.status < 500]).toEqual([path, true]);
    }
  });
});
