import { inflateRawSync } from 'node:zlib';
import sharp from 'sharp';
import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestServer, type Caller, type TestServer } from './harness';

let from: TestServer;
let to: TestServer;
let taken: Buffer;
let nurseryId: string;
let settler: Caller;

beforeAll(async () => {
  [from, to] = await Promise.all([openTestServer({ demo: true }), openTestServer()]);
  const owner = await from.signIn('orla@withybeck.example');
  nurseryId = (await owner.ok('me'))!.memberships[0].nurseryId;
  const jpeg = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#486' } })
    .jpeg()
    .toBuffer();
  const kept = await owner.send(
    'keepPhoto',
    { params: { nursery: nurseryId, photo: newId() } },
    { body: new Uint8Array(jpeg), headers: { 'content-type': 'image/jpeg' } },
  );
  expect(kept.status).toBe(200);
  const response = await owner.send('takeOut', { params: { nursery: nurseryId } });
  expect(response.headers.get('content-type')).toBe('application/zip');
  taken = Buffer.from(await response.arrayBuffer());
  settler = to.visitor();
  await settler.ok('setup', {
    body: {
      nursery: null,
      person: { id: newId(), name: 'Settler', email: 'settler@testing.example', password: 'a long password' },
    },
  });
});
afterAll(() => Promise.all([from.close(), to.close()]));

const bring = (caller: Caller, zip: Buffer) =>
  caller.send('bringIn', {}, { body: new Uint8Array(zip), headers: { 'content-type': 'application/zip' } });
const everything = async (server: TestServer) => {
  const { rows } = await server.owner.query<{ table_name: string }>(
    "select table_name from information_schema.columns where table_schema = 'public' and column_name = 'nursery_id' order by 1",
  );
  const left = ['lot_asks', 'nursery_today', 'receipt', 'invite', 'membership', 'calendar_token', 'journal'];
  const sums: Record<string, unknown> = {};
  for (const { table_name } of rows.filter((row) => !left.includes(row.table_name))) {
    const { rows: found } = await server.owner.query(
      `select count(*)::int as n, md5(string_agg((to_jsonb(t) - 'at')::text, '|' order by (to_jsonb(t) - 'at')::text)) as digest from ${table_name} t where nursery_id = $1`,
      [nurseryId],
    );
    sums[table_name] = found[0];
  }
  return sums;
};
/** The files of an archive, as any unzipper finds them: by the directory at its end. `where` takes a place in the middle of each. */
function filesOf(zip: Buffer, where = new Map<string, number>()): Map<string, Buffer> {
  const end = zip.lastIndexOf(Buffer.from([0x50, 0x4b, 5, 6]));
  const files = new Map<string, Buffer>();
  let at = zip.readUInt32LE(end + 16);
  for (let n = zip.readUInt16LE(end + 10); n > 0; n--) {
    const [method, size, nameLength, extra, comment] = [
      zip.readUInt16LE(at + 10),
      zip.readUInt32LE(at + 20),
      zip.readUInt16LE(at + 28),
      zip.readUInt16LE(at + 30),
      zip.readUInt16LE(at + 32),
    ];
    const local = zip.readUInt32LE(at + 42);
    const name = zip.subarray(at + 46, at + 46 + nameLength).toString();
    const begins = local + 30 + zip.readUInt16LE(local + 26) + zip.readUInt16LE(local + 28);
    const data = zip.subarray(begins, begins + size);
    where.set(name, begins + Math.floor(size / 2));
    files.set(name, method === 8 ? inflateRawSync(data) : data);
    at += 46 + nameLength + extra + comment;
  }
  return files;
}

describe('a nursery’s archive', () => {
  it('is open files: tables, the plan, photos, and no password or address', () => {
    const files = filesOf(taken);
    expect(files.get('tables/lot.csv')!.toString().split('\n').length).toBeGreaterThan(100);
    expect(JSON.parse(files.get('plan.geojson')!.toString())).toMatchObject({ type: 'FeatureCollection' });
    const manifest = JSON.parse(files.get('manifest.json')!.toString());
    expect(manifest.files.map((f: { name: string }) => f.name).sort()).toEqual(
      [...files.keys()].filter((name) => name !== 'manifest.json').sort(),
    );
    for (const [name, content] of files)
      if (!name.endsWith('.jpg')) expect(content.toString()).not.toMatch(/argon2|@withybeck\.example/);
  });
  it('is brought into another Kauri to the last tree and record, and lives on there', async () => {
    const refused = await bring(settler, taken.subarray(0, taken.length - 4000));
    expect(refused.status).toBe(422);
    const where = new Map<string, number>();
    const files = filesOf(taken, where);
    const photo = [...files.keys()].find((name) => name.startsWith('photos/'))!;
    for (const name of ['tables/movement.csv', 'sums/balance.csv', 'manifest.json', photo]) {
      const damaged = Buffer.from(taken);
      damaged[where.get(name)!] ^= 0xff;
      expect([name, (await bring(settler, damaged)).status]).toEqual([name, 422]);
    }
    expect((await settler.ok('me'))!.memberships).toEqual([]);

    const response = await bring(settler, taken);
    expect(await response.clone().text()).not.toContain('problems');
    const brought = (await response.json()) as { trees: number; records: number };
    const { rows } = await from.owner.query('select sum(held)::int as n from balance where nursery_id = $1', [
      nurseryId,
    ]);
    expect(brought.trees).toBe(rows[0].n);
    expect(await everything(to)).toEqual(await everything(from));

    // Today there is what it is here, and the ledger goes on under its checks.
    const before = await (await from.signIn('orla@withybeck.example')).today({ nursery: nurseryId });
    const after = await settler.today({ nursery: nurseryId });
    expect(after.acts).toEqual(before.acts);
    const stand = await to.owner.query(
      "select lot_id, held::int as held from balance where nursery_id = $1 and account = 'standing' and held > 3 limit 1",
      [nurseryId],
    );
    const { lot_id, held } = stand.rows[0];
    const remove = (count: number) =>
      settler.send('writeOff', {
        params: { nursery: nurseryId, lot: lot_id },
        body: { id: newId(), on: '2026-11-24', from: 'standing', count, cause: 'died', note: '' },
      });
    expect((await remove(held + 1)).status).toBe(409);
  });
  it('is not brought in twice, nor by somebody who owns nothing there', async () => {
    const again = await bring(settler, taken);
    expect(await again.json()).toMatchObject({ status: 409, type: '/problems/here-already' });
    const { rows } = await to.owner.query('select password_hash from person where email is not null');
    await to.owner.query(
      "insert into person (id, name, email, password_hash) values ($1, 'Other', 'other@testing.example', $2)",
      [newId(), rows[0].password_hash],
    );
    const other = await to.signIn('other@testing.example', 'a long password');
    expect((await bring(other, taken)).status).toBe(403);
    const visitor = await from.signIn('wren@withybeck.example');
    expect((await visitor.send('takeOut', { params: { nursery: nurseryId } })).status).toBe(403);
  });
});
