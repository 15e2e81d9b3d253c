import { once } from 'node:events';
import { closeSync, mkdtempSync, openSync, rmSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { ensureDatabase, ensurePostgres, freePort, openCluster } from '../lib/postgres.mjs';
import { Plain, run, step } from '../lib/steps.mjs';
import { check, open, writeAll } from './load.mjs';
import { startServer } from './server.mjs';

/** A disk with room for an empty database and a little more, MB. */
const DISK_MB = 220;
/** How long it stays full after the first write was refused for it, ms. */
const FULL_MS = 4_000;
/** Longest until a full disk is noticed, ms. */
const NOTICED_MS = 60_000;
const DISK_FULL = 507;

/** Takes all that is free on a disk. */
function fill(file) {
  const ballast = openSync(file, 'w');
  try {
    for (const size of [1 << 20, 1 << 12]) {
      const zeros = Buffer.alloc(size);
      for (;;) writeSyncOrStop(ballast, zeros);
    }
  } catch (error) {
    if (error.code !== 'ENOSPC') throw error;
  } finally {
    closeSync(ballast);
  }
}
function writeSyncOrStop(ballast, bytes) {
  if (writeSync(ballast, bytes) < bytes.length) throw Object.assign(new Error('full'), { code: 'ENOSPC' });
}

/**
 * Fills the disk that the database lies on while people write, and makes room again, by turns: what was acknowledged is
 * there, once and whole; what was refused was told why; everybody goes on once there is room.
 */
export async function fillDisk(times) {
  if (process.getuid?.() !== 0) {
    console.log('· Disk filled … left out: a small disk is made only for root');
    return;
  }
  const bin = await step('PostgreSQL', ensurePostgres);
  const folder = mkdtempSync(join(tmpdir(), 'kauri-disk-'));
  await run('mount', ['-t', 'tmpfs', '-o', `size=${DISK_MB}m,mode=755`, 'tmpfs', folder]);
  let cluster = null;
  let endKeeping = async () => undefined;
  let server = null;
  try {
    cluster = await step('Database on a small disk', () => openCluster(bin, join(folder, 'db')));
    endKeeping = cluster.keepUp(() => undefined);
    await ensureDatabase(cluster, 'disk');
    const port = await freePort();
    const url = `http://127.0.0.1:${port}`;
    server = await startServer(cluster.url('disk'), port);
    const load = writeAll(url, await open(url));
    await load.everyoneWrote();
    const ballast = join(folder, 'ballast');
    const refusals = () => [...load.refused.values()].reduce((sum, n) => sum + n, 0);
    for (let n = 1; n <= times; n++) {
      const before = refusals();
      const began = Date.now();
      // What the database lets go of is taken too.
      while (refusals() === before) {
        fill(ballast);
        if (Date.now() - began > NOTICED_MS)
          throw new Plain('The disk was full for a minute, and nobody was told.');
        await pause(200);
      }
      await pause(FULL_MS);
      rmSync(ballast);
      await load.everyoneWrote();
      const told = [...load.refused]
        .map(([status, times]) => `${status || 'no answer'}: ${times}`)
        .join(', ');
      process.stdout.write(`\r· Disk filled ${n} times, ${load.taken.size} writes taken (refused ${told}) `);
    }
    const taken = await load.stop();
    await check(cluster.url('disk'), taken);
    if (server.exitCode !== null) throw new Plain('The server ended on a full disk.');
    if (!load.refused.has(DISK_FULL)) throw new Plain('Nobody was told that the disk is full.');
    console.log(
      `\n  ${taken.size} writes were acknowledged: 0 lost, 0 doubled, 0 half kept; ${load.refused.get(DISK_FULL)} were told that the disk is full.`,
    );
  } finally {
    await endKeeping();
    if (server && server.exitCode === null && server.signalCode === null) {
      server.kill('SIGKILL');
      await once(server, 'exit');
    }
    await cluster?.stop();
    await run('umount', [folder]);
    rmSync(folder, { recursive: true, force: true });
  }
}
