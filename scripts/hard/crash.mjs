import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { ensureDatabase, ensurePostgres, freePort, openThrowaway } from '../lib/postgres.mjs';
import { step } from '../lib/steps.mjs';
import { check, open, writeAll } from './load.mjs';
import { restartServer, startServer } from './server.mjs';

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
      server = await restartServer(cluster.url('crash'), port);
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
