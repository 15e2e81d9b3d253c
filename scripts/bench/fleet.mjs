import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { ensureDatabase } from '../lib/postgres.mjs';
import { openNursery } from './nursery.mjs';
import { lotId, measure, startProcess } from './server.mjs';

/* What many nurseries at once need of machines: costs measured here, a day drawn from what is assumed about them. */

/** Sizes of nursery at which the costs are measured, lots. What lies between and above is taken in proportion. */
const MEASURED_LOTS = [60, 600];
const CALLS = 150;

/** What is assumed, since nobody has ten thousand nurseries to count. */
const ASSUMED = {
  /** Lots of a nursery: half have fewer than so many; the spread is that of a logarithm. */
  medianLots: 60,
  lotsSpread: 1.1,
  mostLots: 3000,
  /** People: one, and one more for so many lots. */
  lotsForAPerson: 80,
  /** Share of them at work at the busiest hour of a day of the busiest season. */
  atWork: 0.6,
  /** What each asks of the server in an hour: whole openings of the application, looks at a lot or list, writes. */
  hourly: { openings: 1, looks: 60, writes: 15 },
  /** Hours east of Greenwich, with the share of nurseries there. */
  zones: [
    [-8, 0.1],
    [-6, 0.12],
    [-5, 0.13],
    [-3, 0.06],
    [0, 0.12],
    [1, 0.25],
    [2, 0.06],
    [5.5, 0.04],
    [8, 0.03],
    [10, 0.05],
    [12, 0.04],
  ],
  /** How much of the busiest hour each local hour has. */
  hours: [
    0, 0, 0, 0, 0.02, 0.1, 0.35, 0.8, 1, 1, 0.9, 0.8, 0.6, 0.8, 0.9, 0.8, 0.6, 0.4, 0.25, 0.2, 0.15, 0.1,
    0.05, 0.02,
  ],
  /** Share of a machine's cores that is used at the busiest hour; the rest is for what nobody foresaw. */
  used: 0.5,
  /** Records that a lot is given in a year. */
  recordsOfALot: 40,
};

const TICKS = 100;
/** CPU seconds that a process, or all PostgreSQL has started, has used. */
const cpuOf = (pid) => {
  const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
  const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
  return { parent: Number(fields[1]), seconds: (Number(fields[11]) + Number(fields[12])) / TICKS };
};
/** CPU seconds of each process of PostgreSQL that lives. */
function postgresSeconds(data) {
  const postmaster = Number(readFileSync(join(data, 'postmaster.pid'), 'utf8').split('\n')[0]);
  const used = new Map([[postmaster, cpuOf(postmaster).seconds]]);
  for (const name of readdirSync('/proc')) {
    if (!/^\d+$/.test(name)) continue;
    try {
      const { parent, seconds } = cpuOf(name);
      if (parent === postmaster) used.set(Number(name), seconds);
    } catch {
      // It ended meanwhile.
    }
  }
  return used;
}
/** What was used between two looks; what ended meanwhile is not known of, and left out. */
const gained = (before, after) =>
  [...after].reduce((sum, [pid, seconds]) => sum + seconds - (before.get(pid) ?? 0), 0);

/** What one nursery of so many lots costs: CPU seconds of server and database for each kind of call, bytes on disk. */
async function measured(cluster, lots) {
  const { default: pg } = await import('pg');
  const name = `fleet_${lots}`;
  await ensureDatabase(cluster, name);
  const owner = new pg.Pool({ connectionString: cluster.url(name), max: 2 });
  const server = await startProcess(cluster.url(name));
  try {
    const { nurseryId, cookie } = await openNursery(server, owner, { lots, records: lots * 100 });
    const base = `${server.url}/api/nurseries/${nurseryId}`;
    const get = async (path) => {
      const answer = await fetch(base + path, { headers: { cookie } });
      if (!answer.ok) throw new Error(`${path}: ${answer.status}`);
      await answer.arrayBuffer();
    };
    const settle = async () => {
      for (;;) {
        const { working } = await (await fetch(`${base}/today`, { headers: { cookie } })).json();
        if (!working) return;
        await pause(100);
      }
    };
    const cost = async (times, act) => {
      const before = [cpuOf(server.pid).seconds, postgresSeconds(cluster.data)];
      for (let i = 0; i < times; i++) await act(i);
      const after = [cpuOf(server.pid).seconds, postgresSeconds(cluster.data)];
      return { server: (after[0] - before[0]) / times, database: gained(before[1], after[1]) / times };
    };
    const dawn = await cost(1, settle);
    const anyLot = (i) => lotId(1 + ((i * 31) % lots));
    const ids = (from, n) => Array.from({ length: n }, (_, i) => lotId(1 + ((from + i) % lots))).join();
    // Compiled before it is measured.
    for (let i = 0; i < 20; i++) await get(`/lots/${anyLot(i)}`);
    const opening = await cost(20, async () => {
      for (const path of [
        '/catalogue',
        '/weather',
        '/climate',
        '/learnt',
        '/site',
        '/lot-stamps',
        '/today?each=40',
      ])
        await get(path);
      for (let from = 0; from < lots; from += 40)
        await get(`/lot-records?ids=${ids(from, Math.min(40, lots - from))}`);
    });
    const look = await cost(CALLS, (i) => get(i % 2 ? `/lots/${anyLot(i)}` : '/day'));
    // A write, what another two screens fetch of it, and its share of working Today out anew.
    const write = await cost(CALLS, async (i) => {
      await measure(server, nurseryId, cookie, 1 + ((i * 31) % lots));
      for (let screen = 0; screen < 2; screen++) {
        await get(`/lot-stamps?ids=${anyLot(i)}`);
        await get(`/lot-records?ids=${anyLot(i)}`);
      }
    });
    const today = await cost(1, settle);
    const { rows } = await owner.query('select pg_database_size(current_database())::bigint as bytes');
    return { lots, dawn, opening, look, write, today, bytes: Number(rows[0].bytes), records: lots * 100 };
  } finally {
    await server.stop();
    await owner.end();
  }
}

/** Pseudo-random numbers of a seed, so that the same day is drawn again. */
function dice(seed) {
  let state = seed;
  const uniform = () => {
    state = (state * 1_664_525 + 1_013_904_223) % 4_294_967_296;
    return state / 4_294_967_296;
  };
  return {
    uniform,
    normal: () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform()),
  };
}

/** A figure of a nursery of any size, in proportion between the two that were measured. */
const at = (lots, [small, large], figure) => {
  const slope = (figure(large) - figure(small)) / (large.lots - small.lots);
  return Math.max(0, figure(small) + slope * (lots - small.lots));
};

/** A day of so many nurseries: cores in use hour by hour, calls a second, bytes a year. */
function day(count, costs) {
  const { uniform, normal } = dice(7);
  const cores = { server: new Array(24).fill(0), database: new Array(24).fill(0) };
  const calls = new Array(24).fill(0);
  let people = 0;
  let lotsAll = 0;
  const { hourly, zones, hours } = ASSUMED;
  const [small, large] = costs;
  const bytesOfARecord = (large.bytes - small.bytes) / (large.records - small.records);
  for (let n = 0; n < count; n++) {
    const lots = Math.min(
      ASSUMED.mostLots,
      Math.max(3, Math.round(ASSUMED.medianLots * Math.exp(ASSUMED.lotsSpread * normal()))),
    );
    const crew = 1 + Math.floor(lots / ASSUMED.lotsForAPerson);
    people += crew;
    lotsAll += lots;
    let draw = uniform();
    const zone = zones.find(([, share]) => (draw -= share) <= 0)?.[0] ?? 1;
    for (let utc = 0; utc < 24; utc++) {
      const local = (((utc + Math.round(zone)) % 24) + 24) % 24;
      const busy = crew * ASSUMED.atWork * hours[local];
      for (const side of ['server', 'database']) {
        const of = (kind) => at(lots, costs, (one) => one[kind][side]);
        cores[side][utc] +=
          (busy *
            (hourly.openings * of('opening') + hourly.looks * of('look') + hourly.writes * of('write')) +
            (local === 3 ? of('dawn') : 0)) /
          3600;
      }
      calls[utc] += (busy * (hourly.openings * (8 + lots / 40) + hourly.looks + hourly.writes * 5)) / 3600;
    }
  }
  const most = (list) => Math.max(...list);
  return {
    people,
    lots: lotsAll,
    calls: most(calls),
    server: most(cores.server),
    database: most(cores.database),
    open: people * ASSUMED.atWork,
    gigabytesAYear: (lotsAll * ASSUMED.recordsOfALot * bytesOfARecord) / 1e9,
  };
}

/** What so many nurseries need, in rows of a table. */
export async function benchFleet(cluster, count) {
  const costs = [];
  for (const lots of MEASURED_LOTS) costs.push(await measured(cluster, lots));
  const of = day(count, costs);
  const msOf = ({ server, database }) => `${(server * 1000).toFixed(1)} + ${(database * 1000).toFixed(1)} ms`;
  const number = (value) => Math.round(value).toLocaleString('en-GB').replaceAll(',', ' ');
  const rooms = (cores) => Math.ceil(cores / ASSUMED.used);
  return [
    ...costs.flatMap((one) =>
      ['opening', 'look', 'write', 'dawn'].map((kind) => [
        `${one.lots} lots: ${{ opening: 'opening Kauri', look: 'a look', write: 'a write, heard by two', dawn: 'Today of a new day' }[kind]}, CPU of server + database`,
        msOf(one[kind]),
      ]),
    ),
    [`${number(count)} nurseries: people, lots`, `${number(of.people)}, ${number(of.lots)}`],
    ['at the busiest hour: calls a second', number(of.calls)],
    ['pages open, each with a stream', number(of.open)],
    ['cores in use: servers, database', `${of.server.toFixed(1)}, ${of.database.toFixed(1)}`],
    ['cores wanted, half of them idle then: servers, database', `${rooms(of.server)}, ${rooms(of.database)}`],
    ['records of a year on disk, without photos', `${number(of.gigabytesAYear)} GB`],
  ];
}
