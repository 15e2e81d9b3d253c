import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { ensureDatabase, ensurePostgres, freePort, openThrowaway } from '../lib/postgres.mjs';
import { Plain, step } from '../lib/steps.mjs';
import { check, open, writeAll } from './load.mjs';

const root = new URL('../../', import.meta.url).pathname;

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
export async function crash(kills) {
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
