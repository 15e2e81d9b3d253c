import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPerson, openTestServer, setUp, type Caller, type TestServer } from './harness';

let server: TestServer;
let owner: Caller;
let nurseryId: string;
beforeAll(async () => {
  server = await openTestServer();
  ({ owner, nurseryId } = await setUp(server));
});
afterAll(() => server.close());

const state = async (by: Caller) => (await by.ok('practice')).state;
const make = (by: Caller) =>
  by.ok('makePractice', {
    body: { id: '019aa5b0-7c00-7000-8000-00000000000a', south: true, language: 'en-GB' },
  });
const practices = async (by: Caller) => (await by.ok('me'))!.memberships.filter(({ practice }) => practice);
const rowsOf = async (id: string) => {
  const { rows } = await server.owner.query<{ name: string }>(
    `select table_name as name from information_schema.columns where table_schema = 'public' and column_name = 'nursery_id'`,
  );
  let total = 0;
  for (const { name } of rows)
    total += (
      await server.owner.query(`select count(*)::int as n from "${name}" where nursery_id = $1`, [id])
    ).rows[0].n;
  return total;
};

describe('a nursery to practise in', () => {
  it('is made for one person alone, once however often it is asked for, and done away with whole when it is begun afresh', async () => {
    const crew = await addPerson(server, nurseryId, 'crew@testing.example', 'crew');
    expect(await state(crew)).toBe('none');
    expect((await Promise.all([make(crew), make(crew)])).map((answer) => answer.state)).toEqual([
      'making',
      'making',
    ]);
    await expect.poll(() => state(crew), { timeout: 60_000, interval: 250 }).toBe('ready');
    const [first] = await practices(crew);
    // All its work may be done, but nobody is let into the house by way of it.
    expect(first).toMatchObject({ nurseryName: 'Vivero Piedra Clara', role: 'grower' });
    expect((await crew.ok('me'))!.memberships[0].practice).toBe(false);
    const params = { nursery: first.nurseryId };
    expect((await crew.ok('lots', { params, query: {} })).lots.length).toBe(3);
    expect((await crew.send('crew', { params })).status).toBe(403);
    expect((await owner.send('lots', { params, query: {} })).status).toBe(404);
    expect(await practices(owner)).toEqual([]);

    const before = await rowsOf(nurseryId);
    await make(crew);
    await expect.poll(() => state(crew), { timeout: 60_000, interval: 250 }).toBe('ready');
    const second = await practices(crew);
    expect(second).toHaveLength(1);
    expect(second[0].nurseryId).not.toBe(first.nurseryId);
    expect(await rowsOf(first.nurseryId)).toBe(0);
    expect(await rowsOf(nurseryId)).toBe(before);
    // What is written is kept of every other nursery, and of this one too while it is there.
    await expect(
      server.owner.query('delete from movement where nursery_id = $1', [second[0].nurseryId]),
    ).rejects.toThrow(/never changed/);
  });

  it('makes nobody an owner here', async () => {
    const visitor = await addPerson(server, nurseryId, 'visitor@testing.example', 'visitor');
    const more = {
      id: '019aa5b0-7c00-7000-8000-00000000000b',
      name: 'Second Yard',
      placeName: 'Nowhere',
      latitudeDeg: 50,
      longitudeDeg: 0,
      elevationM: 10,
      timeZone: 'UTC',
      units: 'metric' as const,
    };
    expect((await visitor.send('addNursery', { body: more })).status).toBe(403);
  });
});
