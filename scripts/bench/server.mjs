import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { createInterface } from 'node:readline';
import { v7 as newId } from 'uuid';
import { ensureDatabase } from '../lib/postgres.mjs';
import { BENCH_DAY, openNursery } from './nursery.mjs';
import { loadSource } from './load.mjs';
import { ms, quantile, times } from './measure.mjs';

const LOTS = 2000;
const OBSERVATIONS = 200_000;
const CONNECTIONS = 20;
const REQUESTS = 600;
const PAGE = 100;
const TODAY = BENCH_DAY;

/** Times a number of asks, some at a time; each ask starts when one before it has ended. */
async function load(ask, connections = CONNECTIONS, requests = REQUESTS) {
  const took = [];
  let left = requests;
  const worker = async (n) => {
    while (left-- > 0) {
      const started = performance.now();
      await ask(n);
      took.push(performance.now() - started);
    }
  };
  await Promise.all(Array.from({ length: connections }, (_, n) => worker(n)));
  return { p50: quantile(took, 0.5), p95: quantile(took, 0.95) };
}

function get(agent, url, cookie) {
  return new Promise((resolve, reject) => {
    const req = request(url, { agent, headers: { cookie } }, (res) => {
      let size = 0;
      res.on('data', (chunk) => (size += chunk.length));
      res.on('end', () =>
        res.statusCode === 200 ? resolve(size) : reject(new Error(`${url} answered ${res.statusCode}`)),
      );
    });
    req.on('error', reject);
    req.end();
  });
}

/** The server in a process of its own, as it runs in earnest. */
export async function startProcess(databaseUrl, port = 0) {
  const child = spawn('node', ['server/dist/main.js'], {
    cwd: new URL('../../', import.meta.url).pathname,
    stdio: ['ignore', 'pipe', 'inherit'],
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      PORT: String(port),
      KAURI_TODAY: TODAY,
      // A hundred people share this address.
      KAURI_REQUESTS: '0',
      KAURI_LOG: 'silent',
    },
  });
  const [line] = await once(createInterface(child.stdout), 'line');
  return {
    url: line.replace('ready ', ''),
    pid: child.pid,
    /** Memory of the process that is in RAM, MB. */
    memoryMb: () =>
      Math.round(Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))[1]) / 1024),
    stop: async () => {
      child.kill('SIGTERM');
      await once(child, 'exit');
    },
  };
}

/** Asks for Today until nothing newer is coming: the longest answer, and how long until it was all worked out, ms. */
async function settled(url, cookie) {
  const began = performance.now();
  let slowest = 0;
  for (;;) {
    const started = performance.now();
    const answer = await fetch(url, { headers: { cookie } });
    const { working } = await answer.json();
    slowest = Math.max(slowest, performance.now() - started);
    if (!working) return { slowest, took: performance.now() - began };
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

/** Today of all lots: the first of a day forecasts them all, in a thread; later ones what changed since. */
async function benchToday(server, nurseryId, cookie) {
  const url = `${server.url}/api/nurseries/${nurseryId}/today`;
  const first = await settled(url, cookie);
  const again = [];
  for (let i = 0; i < 9; i++) again.push((await settled(url, cookie)).took);
  await Promise.all(Array.from({ length: 20 }, (_, i) => measure(server, nurseryId, cookie, i + 1)));
  const after = await settled(url, cookie);
  return [
    ['Today of 2 000 lots, worked out first of the day', ms(first.took), '', '', '≤ 5 s'],
    ['longest a request waited meanwhile', ms(first.slowest), '', '', '≤ 1 s'],
    ['Today asked for, nothing changed, p50', ms(quantile(again, 0.5)), '', '', ''],
    ['Today worked out again, 20 lots changed', ms(after.took), '', '', '≤ 500 ms'],
  ];
}

/** The id of a lot of the bench’s nursery. */
export const lotId = (n) => `019aa5b0-0002-7000-8000-${n.toString(16).padStart(12, '0')}`;

/** Writes a sample on a lot, as somebody in the yard does. */
export async function measure(server, nurseryId, cookie, n) {
  const answer = await fetch(`${server.url}/api/nurseries/${nurseryId}/lots/${lotId(n)}/sizes`, {
    method: 'POST',
    headers: { cookie, origin: server.url, 'content-type': 'application/json' },
    body: JSON.stringify({
      id: newId(),
      on: TODAY,
      note: '',
      heightsCm: [20, 21, 24, 19],
      diametersMm: [],
    }),
  });
  if (!answer.ok) throw new Error(`${answer.status} ${await answer.text()}`);
  await answer.arrayBuffer();
}

const PEOPLE = 100;

/** One call of somebody at work: Today, pages of lots, a lot, and a write in ten. */
function somebody(server, nurseryId, cookie) {
  const agent = new Agent({ keepAlive: true, maxSockets: PEOPLE });
  const base = `${server.url}/api/nurseries/${nurseryId}`;
  let faults = 0;
  let asked = 0;
  const ask = async () => {
    const n = asked++;
    const lot = 1 + ((n * 7919) % LOTS);
    try {
      if (n % 10 === 0) await measure(server, nurseryId, cookie, lot);
      else if (n % 10 < 5) await get(agent, `${base}/today?each=40`, cookie);
      else if (n % 10 < 8)
        await get(agent, `${base}/lots?limit=50&after=L-${String(lot).padStart(5, '0')}`, cookie);
      else await get(agent, `${base}/lots/${lotId(lot)}`, cookie);
    } catch (error) {
      faults++;
      if (faults === 1) console.error(error);
    }
  };
  return { ask, faults: () => faults, leave: () => agent.destroy() };
}

/** A hundred people at once. */
async function benchCrowd(server, nurseryId, cookie) {
  const { ask, faults, leave } = somebody(server, nurseryId, cookie);
  const { p50, p95 } = await load(ask, PEOPLE, 3000);
  leave();
  return [
    [`${PEOPLE} people mixing Today, lists, a lot and writes, 2 000 lots, p50`, ms(p50), '', '', ''],
    [`the same, p95`, ms(p95), '', '', '≤ 1 s'],
    ['the same, answers that were errors', String(faults()), '', '', '0'],
  ];
}

/** The same hundred for some minutes: what the server holds of memory at the end of each, MB, and answers that were errors. */
export async function soak(server, nurseryId, cookie, minutes) {
  const { ask, faults, leave } = somebody(server, nurseryId, cookie);
  const held = [];
  let asked = 0;
  for (let minute = 0; minute < minutes; minute++) {
    const until = performance.now() + 60_000;
    const person = async () => {
      while (performance.now() < until) {
        await ask();
        asked++;
      }
    };
    await Promise.all(Array.from({ length: PEOPLE }, person));
    held.push(server.memoryMb());
  }
  leave();
  return { held, asked, faults: faults() };
}

const TABLE_BYTES = 10_000_000;

/** A table of 10 MB of measured plants taken in while others ask for pages of lots: their p95 beside its usual. */
async function benchTable(server, nurseryId, cookie, ask) {
  const lines = ['lot,date,height'];
  for (let bytes = 0, n = 0; bytes < TABLE_BYTES; n++) {
    const line = `L-${String(1 + (n % LOTS)).padStart(5, '0')},2026-0${6 + (n % 4)}-1${n % 10},${20 + (n % 17)}`;
    lines.push(line);
    bytes += line.length + 1;
  }
  const query = new URLSearchParams({
    ...{ lot: 0, date: 1, height: 2, dateOrder: 'iso', heightUnit: 'cm', diameterUnit: 'mm' },
    ...{ check: 'false', id: newId() },
  });
  const usual = await load(ask);
  let stored = null;
  const began = performance.now();
  const table = fetch(`${server.url}/api/nurseries/${nurseryId}/measurements/import?${query}`, {
    method: 'POST',
    headers: { cookie, origin: server.url, 'content-type': 'text/csv' },
    body: lines.join('\n'),
  })
    .then((answer) => answer.text())
    .then((text) => (stored = { took: performance.now() - began, last: text.trim().split('\n').at(-1) }));
  const took = [];
  while (stored === null) took.push((await load(ask, CONNECTIONS, 100)).p95);
  await table;
  if (!/"stored":true/.test(stored.last)) throw new Error(stored.last);
  const meanwhile = quantile(took, 0.5);
  return [
    [
      `a page of lots while a table of 10 MB (${lines.length - 1} plants) is taken in, p95`,
      ms(meanwhile),
      `${ms(usual.p95)} usual`,
      times(meanwhile / usual.p95),
      '≤ 2 ×',
    ],
    ['the table itself, to stored', ms(stored.took), '', '', ''],
  ];
}

export async function benchServer(cluster) {
  const { default: pg } = await import('pg');
  await ensureDatabase(cluster, 'bench');
  const server = await startProcess(cluster.url('bench'));
  const owner = new pg.Pool({ connectionString: cluster.url('bench'), max: CONNECTIONS });
  const agent = new Agent({ keepAlive: true, maxSockets: CONNECTIONS });
  try {
    const { nurseryId, cookie } = await openNursery(server, owner, { lots: LOTS, records: OBSERVATIONS });
    // The very query the list is read by, taken from the server, bare.
    const { LOT_PAGE } = await loadSource('server/src/features/lots/lotRows.ts');
    const pages = Array.from({ length: LOTS / PAGE }, (_, i) => `L-${String(i * PAGE).padStart(5, '0')}`);
    const page = (n) => pages[n % pages.length];
    const bare = (n) => owner.query({ name: 'bare', text: LOT_PAGE, values: [nurseryId, page(n), PAGE + 1] });
    const list = `${server.url}/api/nurseries/${nurseryId}/lots?limit=${PAGE}&after=`;
    const http = (n) => get(agent, `${list}${page(n)}`, cookie);
    // Turn about, once to warm both; of the rest each shows its least disturbed run.
    const runs = { bare: [], http: [] };
    for (let i = 0; i < 4; i++) {
      runs.bare.push(await load(bare));
      runs.http.push(await load(http));
    }
    const best = (kind, p) => Math.min(...runs[kind].slice(1).map((run) => run[p]));
    const what = `a page of ${PAGE} of 2 000 lots, 200 000 observations, ${CONNECTIONS} connections`;
    const today = await benchToday(server, nurseryId, cookie);
    const crowd = await benchCrowd(server, nurseryId, cookie);
    const table = await benchTable(server, nurseryId, cookie, http);
    const pageRows = ['p50', 'p95'].map((p) => {
      const [base, took] = [best('bare', p), best('http', p)];
      return [
        `${what}, ${p}`,
        ms(took),
        `${ms(base)} bare SQL`,
        times(took / base),
        p === 'p95' ? '< 2 ×' : '',
      ];
    });
    return [...pageRows, ...today, ...crowd, ...table];
  } finally {
    agent.destroy();
    await owner.end();
    await server.stop();
  }
}
