import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { setTimeout as pause } from 'node:timers/promises';
import { v7 as newId } from 'uuid';
import { ensureBuilt } from './lib/build.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { ensureDatabase, ensurePostgres, freePort, openThrowaway } from './lib/postgres.mjs';
import { fail, Plain, step } from './lib/steps.mjs';

/*
 * npm run hard                what takes too long for every day: fuzz, many acts, kills
 * npm run hard -- fuzz        200 calls of every route of the contract
 * npm run hard -- acts        500 acts kept on a device and sent
 * npm run hard -- crash       servers and database killed under load, 30 times each
 * npm run hard -- crash --kills 5
 * Its last figures are in docs/security.md.
 */
const root = new URL('../', import.meta.url).pathname;

/** Runs a part of the test suites with more of it. */
async function suite(args, env) {
  const child = spawn('node', ['scripts/test.mjs', ...args], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, ...env },
  });
  const [code] = await once(child, 'close');
  if (code !== 0) throw new Plain(`${args.join(' ')} failed.`);
}

const WRITERS = 8;
/** Longest a writer asks again for one write before it is a hang, ms. */
const PATIENCE_MS = 60_000;

/** A server in a process of its own. */
async function startServer(databaseUrl, port) {
  const child = spawn('node', ['server/dist/main.js'], {
    cwd: root,
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      PORT: String(port),
      KAURI_LOG: 'silent',
      KAURI_REQUESTS: '0',
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  for await (const chunk of child.stdout) if (String(chunk).startsWith('ready')) break;
  return child;
}

/** Kills server and database by turns while people write; every write that was acknowledged must be there, once. */
async function crash(kills) {
  const bin = await step('PostgreSQL', ensurePostgres);
  // Nothing is left to the disk's good will here: the throwaway one would not wait for it.
  const cluster = await step('Database', () => openThrowaway(bin, { sure: true }));
  const endKeeping = cluster.keepUp(() => undefined);
  let server = null;
  try {
    await ensureDatabase(cluster, 'crash');
    const port = await freePort();
    const url = `http://127.0.0.1:${port}`;
    server = await startServer(cluster.url('crash'), port);
    const people = await open(url);
    const load = writeAll(url, people);
    for (let n = 1; n <= kills; n++) {
      await pause(700);
      process.kill(
        Number(readFileSync(join(cluster.data, 'postmaster.pid'), 'utf8').split('\n')[0]),
        'SIGKILL',
      );
      await pause(1500);
      server.kill('SIGKILL');
      await once(server, 'exit');
      server = await restart(cluster.url('crash'), port);
      process.stdout.write(`\r· Kills: ${n} of server, ${n} of database, ${load.taken.size} writes taken `);
    }
    const taken = await load.stop();
    await check(cluster.url('crash'), taken);
    console.log(
      `\n  ${taken.size} writes were acknowledged: 0 lost, 0 doubled, 0 half kept; longest pause ${(load.longestMs() / 1000).toFixed(1)} s.`,
    );
  } finally {
    await endKeeping();
    if (server && server.exitCode === null && server.signalCode === null) {
      server.kill('SIGKILL');
      await once(server, 'exit');
    }
    await cluster.stop();
  }
}

/** A database that is being brought up again may refuse a server once or twice. */
async function restart(databaseUrl, port) {
  for (let tries = 1; ; tries++) {
    const server = await startServer(databaseUrl, port);
    if (server.exitCode === null && server.pid && (await health(port))) return server;
    if (tries === 20) throw new Plain('The server did not come back.');
    await pause(500);
  }
}
const health = (port) =>
  fetch(`http://127.0.0.1:${port}/api/health`).then(
    (answer) => answer.ok,
    () => false,
  );

async function open(url) {
  const nursery = newId();
  const person = { id: newId(), name: 'Ada', email: 'ada@testing.example', password: 'a long password' };
  const set = await post(url, '/setup', null, {
    nursery: {
      id: nursery,
      name: `Crash ${randomUUID().slice(0, 8)}`,
      placeName: 'Nowhere',
      latitudeDeg: 50,
      longitudeDeg: 0,
      elevationM: 10,
      timeZone: 'UTC',
      units: 'metric',
    },
    person,
  });
  const cookie = set.headers.getSetCookie()[0].split(';')[0];
  return { nursery, cookie };
}

const post = (url, path, cookie, body) =>
  fetch(`${url}/api${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: url, ...(cookie ? { cookie } : {}) },
    body: JSON.stringify(body),
    signal: AbortSignal.timeout(10_000),
  });

/** People who add benches, each write with its own id, and ask again until it is acknowledged. */
function writeAll(url, { nursery, cookie }) {
  const taken = new Map();
  let stopped = false;
  let longest = 0;
  const write = async (who) => {
    for (let n = 0; !stopped; n++) {
      const id = newId();
      const name = `Bench ${who}-${n}`;
      const place = {
        kind: 'bench',
        name,
        eastM: who,
        northM: n % 100,
        angleDeg: 0,
        mediumId: null,
        design: { schema: 1, lengthMm: 3000, widthMm: 1500 },
      };
      const began = Date.now();
      for (;;) {
        const answer = await post(url, `/nurseries/${nursery}/places`, cookie, { id, place }).catch(
          () => null,
        );
        if (answer?.ok && (await answer.json().catch(() => null))) {
          taken.set(id, name);
          break;
        }
        if (answer && answer.status < 500) throw new Plain(`${answer.status} ${await answer.text()}`);
        if (Date.now() - began > PATIENCE_MS) throw new Plain('A write was not taken within a minute.');
        await pause(100);
      }
      longest = Math.max(longest, Date.now() - began);
    }
  };
  const all = Promise.all(Array.from({ length: WRITERS }, (_, who) => write(who)));
  all.catch(() => undefined);
  return {
    taken,
    longestMs: () => longest,
    stop: async () => {
      stopped = true;
      await all;
      return taken;
    },
  };
}

async function check(databaseUrl, taken) {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    const { rows } = await client.query(
      `select p.id, p.name, (select count(*)::int from journal j where j.subject_id = p.id) as notes,
         (select count(*)::int from receipt r where r.id = p.id and r.answer is not null) as receipts
       from place p where p.kind = 'bench'`,
    );
    const kept = new Map(rows.map((row) => [row.id, row]));
    for (const [id, name] of taken) if (kept.get(id)?.name !== name) throw new Plain(`${name} was lost.`);
    if (new Set(rows.map((row) => row.name)).size !== rows.length) throw new Plain('A write was kept twice.');
    const half = rows.filter((row) => row.notes !== 1 || row.receipts !== 1);
    if (half.length) throw new Plain(`${half.length} writes were kept in part.`);
  } finally {
    await client.end();
  }
}

async function main() {
  const { values, positionals } = parseArgs({
    options: { kills: { type: 'string', default: '30' } },
    allowPositionals: true,
  });
  const wanted = (part) => positionals.length === 0 || positionals.includes(part);
  await step('Packages', ensurePackages);
  await step('Server', ensureBuilt);
  if (wanted('fuzz')) await suite(['server', '-g', 'whatever is sent'], { KAURI_FUZZ: '200' });
  if (wanted('acts')) await suite(['e2e', '-g', 'many acts kept'], { KAURI_ACTS: '500' });
  if (wanted('crash')) await crash(Number(values.kills));
}

main().catch((error) => {
  fail(error);
  process.exitCode = 1;
});
