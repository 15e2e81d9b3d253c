import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { openCluster } from '../lib/cluster.mjs';
import { freePort } from '../lib/postgres.mjs';
import { Plain, step } from '../lib/steps.mjs';
import { check, open, writeAll } from './load.mjs';

/** How long a machine without power, and one that is cut off, stays so, ms. */
const DOWN_MS = 15_000;
const CUT_MS = 15_000;
/** How long two databases may take until one follows the other again, ms. */
const WHOLE_WITHIN_MS = 180_000;

/**
 * Kills every part of a cluster by turns while people write, and cuts either database off; every write that was
 * acknowledged must be there, once.
 */
export async function killCluster(kills) {
  const folder = mkdtempSync(join(tmpdir(), 'kauri-cluster-'));
  chmodSync(folder, 0o755);
  const cluster = await step('Two databases, a pooler, two servers and a front', async () =>
    openCluster({ folder, port: await freePort(), said: () => undefined }),
  );
  const whole = async () => {
    const end = Date.now() + WHOLE_WITHIN_MS;
    while (!(await cluster.isWhole())) {
      if (Date.now() > end) throw new Plain('The two databases did not find together again.');
      await pause(500);
    }
  };
  try {
    const people = await open(cluster.url);
    const load = writeAll(cluster.url, people);
    const acts = {
      'a server': () => cluster.servers[acted % 2].kill(),
      'the pooler': () => cluster.pooler.kill(),
      'the primary': async () => (await cluster.primary()).kill(DOWN_MS),
      'a cut primary': async () => (await cluster.primary()).freeze(CUT_MS),
      'a cut standby': async () => (await cluster.standby()).freeze(CUT_MS),
    };
    const worst = Object.fromEntries(Object.keys(acts).map((name) => [name, 0]));
    let acted = 0;
    for (let n = 1; n <= kills; n++)
      for (const [name, act] of Object.entries(acts)) {
        await whole();
        await pause(1000);
        load.beginMeasuring();
        await act();
        acted++;
        // Until everybody has written again, and no write waits from before.
        await load.everyoneWrote();
        worst[name] = Math.max(worst[name], load.longestMs());
        process.stdout.write(`\r· ${n} of ${kills}: ${name}, ${load.taken.size} writes taken          `);
      }
    const taken = await load.stop();
    await whole();
    await check(await cluster.databaseUrl(), taken);
    console.log(
      `\n  ${taken.size} writes were acknowledged: 0 lost, 0 doubled, 0 half kept. Longest a write took:`,
    );
    for (const [name, ms] of Object.entries(worst)) console.log(`  ${name}: ${(ms / 1000).toFixed(1)} s`);
  } finally {
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
