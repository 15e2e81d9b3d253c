import { Agent, get as httpGet } from 'node:http';
import { setTimeout as pause } from 'node:timers/promises';
import { openNursery } from '../bench/nursery.mjs';
import { quantile } from '../bench/measure.mjs';
import { lotId, measure, startProcess } from '../bench/server.mjs';
import { ensureDatabase, ensurePostgres, openThrowaway } from '../lib/postgres.mjs';
import { Plain, step } from '../lib/steps.mjs';

const PEOPLE = 50;
const LOTS = 300;
/** How long somebody looks at what they asked for, ms at most. */
const LOOK_MS = 4000;
/** By how much what a server holds at the end may be above what it held after the first minutes. */
const GROWTH = 1.15;
const WARM_UP_MINUTES = 3;

/**
 * Fifty people at work for as long as it is asked, each with a page that hears of the others’ writes: memory, connections
 * and open streams must stay as they are, and nothing may be answered with an error.
 */
export async function soak(minutes) {
  const bin = await step('PostgreSQL', ensurePostgres);
  const cluster = await step('Database', () => openThrowaway(bin));
  const { default: pg } = await import('pg');
  let server = null;
  let owner = null;
  try {
    await ensureDatabase(cluster, 'soak');
    owner = new pg.Pool({ connectionString: cluster.url('soak'), max: 2 });
    server = await startProcess(cluster.url('soak'));
    const { nurseryId, cookie } = await step(`${LOTS} lots`, () =>
      openNursery(server, owner, { lots: LOTS, records: LOTS * 100 }),
    );
    const base = `${server.url}/api/nurseries/${nurseryId}`;
    const agent = new Agent({ keepAlive: true, maxSockets: PEOPLE });
    const faults = [];
    const took = [];
    let heard = 0;
    let asked = 0;
    let stopped = false;
    const ask = (path) =>
      new Promise((resolve, reject) => {
        const began = performance.now();
        httpGet(`${base}${path}`, { agent, headers: { cookie } }, (res) => {
          res.resume();
          res.on('end', () => {
            took.push(performance.now() - began);
            if (res.statusCode === 200) resolve();
            else reject(new Error(`${path} answered ${res.statusCode}`));
          });
        }).on('error', reject);
      });
    const streams = Array.from({ length: PEOPLE }, () =>
      httpGet(`${base}/changes`, { agent: false, headers: { cookie } }, (res) =>
        res.on('data', (part) => (heard += String(part).startsWith('data:') ? 1 : 0)),
      ).on('error', (error) => stopped || faults.push(error.message)),
    );
    const person = async (who) => {
      for (let n = 0; !stopped; n++) {
        const lot = 1 + ((who * 31 + n * 7) % LOTS);
        try {
          if (n % 10 === 0) await measure(server, nurseryId, cookie, lot);
          else if (n % 10 < 4) await ask('/today?each=40');
          else if (n % 10 < 6) await ask('/day');
          else if (n % 10 < 8) await ask(`/lot-stamps?ids=${lotId(lot)}`);
          else await ask(`/lots/${lotId(lot)}`);
        } catch (error) {
          faults.push(error.message);
        }
        asked++;
        await pause(Math.random() * LOOK_MS);
      }
    };
    const people = Promise.all(Array.from({ length: PEOPLE }, (_, who) => person(who)));
    const connections = async () =>
      (
        await owner.query(
          'select count(*)::int as n from pg_stat_activity where datname = current_database()',
        )
      ).rows[0].n;
    const held = [];
    for (let minute = 1; minute <= minutes; minute++) {
      await pause(60_000);
      held.push({ memory: server.memoryMb(), connections: await connections() });
      process.stdout.write(
        `\r· Minute ${minute} of ${minutes}: ${held.at(-1).memory} MB, ${held.at(-1).connections} connections, ${asked} calls `,
      );
    }
    stopped = true;
    await people;
    streams.forEach((stream) => stream.destroy());
    agent.destroy();
    const after = held.slice(Math.min(WARM_UP_MINUTES, held.length - 1));
    const half = after.slice(0, Math.ceil(after.length / 2));
    const most = (list, what) => Math.max(...list.map((one) => one[what]));
    console.log(
      `\n  ${asked} calls, ${faults.length} errors, p95 ${quantile(took, 0.95).toFixed(0)} ms, ${heard} writes heard; ` +
        `memory at most ${most(half, 'memory')} MB in the first half, ${most(after, 'memory')} MB in all; ` +
        `connections ${most(half, 'connections')} and ${most(after, 'connections')}.`,
    );
    if (faults.length) throw new Plain(`The first error: ${faults[0]}`);
    if (most(after, 'memory') > GROWTH * most(half, 'memory')) throw new Plain('Memory grew.');
    if (most(after, 'connections') > most(half, 'connections') + 2) throw new Plain('Connections grew.');
  } finally {
    await server?.stop();
    await owner?.end();
    await cluster.stop();
  }
}
