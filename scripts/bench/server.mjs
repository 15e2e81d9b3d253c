import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { once } from 'node:events';
import { Agent, request } from 'node:http';
import { createInterface } from 'node:readline';
import { ensureDatabase } from '../lib/postgres.mjs';
import { loadSource } from './load.mjs';
import { ms, quantile, times } from './measure.mjs';

const LOTS = 2000;
const OBSERVATIONS = 200_000;
const CONNECTIONS = 20;
const REQUESTS = 600;
const PAGE = 100;
const TODAY = '2026-11-24';

/** A UUIDv7, made in SQL from a counter so that rows can be made there by the thousand. */
const id = (kind, n) => `('019aa5b0-${kind}-7000-8000-' || lpad(to_hex(${n}), 12, '0'))::uuid`;

/** Fills a nursery that `setup` made with lots and observations, straight in the database. */
async function fill(client, nurseryId) {
  const { rows } = await client.query('select id from species where nursery_id = $1 limit 1', [nurseryId]);
  const place = '019aa5b0-0001-7000-8000-000000000001';
  await client.query(
    'insert into place (nursery_id, id, kind, name, east_m, north_m, angle_deg, design) values ($1, $2, $3, $4, 0, 0, 0, $5)',
    [
      nurseryId,
      place,
      'bed',
      'Bed',
      JSON.stringify({
        schema: 1,
        measured: 'outside',
        lengthMm: 3000,
        widthMm: 1200,
        tiers: ['2x8'],
        layers: [],
        fillBelowRimMm: 20,
        ground: 'paving',
        airGapMm: 60,
        lidAboveRimMm: null,
      }),
    ],
  );
  await client.query(
    `insert into lot (nursery_id, id, code, species_id, sown_on, seed_state)
     select $1, ${id('0002', 'n')}, 'L-' || lpad(n::text, 5, '0'), $2, '2026-04-01', 'ready' from generate_series(1, ${LOTS}) n`,
    [nurseryId, rows[0].id],
  );
  await client.query(
    `insert into stage (nursery_id, id, lot_id, place_id, density_per_m2, area_m2, started_on)
     select $1, ${id('0003', 'n')}, ${id('0002', 'n')}, $2, 200, 1, '2026-04-01' from generate_series(1, ${LOTS}) n`,
    [nurseryId, place],
  );
  await client.query(
    `insert into movement (nursery_id, id, lot_id, entry_id, on_date, from_account, to_account, count)
     select $1, ${id('0004', 'n * 4 + k')}, ${id('0002', 'n')}, ${id('0002', 'n')}, '2026-04-01',
       (array['supply','seed','sown'])[k], (array['seed','sown','standing'])[k], (array[1000,1000,700])[k]
     from generate_series(1, ${LOTS}) n, generate_series(1, 3) k order by n, k`,
    [nurseryId],
  );
  await client.query(
    `insert into observation (nursery_id, id, lot_id, kind, on_date, "values", height_n, height_mean, height_sd)
     select $1, ${id('0005', 'n')}, ${id('0002', `1 + n % ${LOTS}`)}, 'size', '2026-05-01'::date + n % 200,
       jsonb_build_object('kind', 'size', 'heightsCm', jsonb_build_array(10, 12, 14), 'diametersMm', '[]'::jsonb), 3, 12, 2
     from generate_series(1, ${OBSERVATIONS}) n`,
    [nurseryId],
  );
  await client.query('analyze');
}

/** Times a number of asks, some at a time; each ask starts when one before it has ended. */
async function load(ask) {
  const took = [];
  let left = REQUESTS;
  const worker = async (n) => {
    while (left-- > 0) {
      const started = performance.now();
      await ask(n);
      took.push(performance.now() - started);
    }
  };
  await Promise.all(Array.from({ length: CONNECTIONS }, (_, n) => worker(n)));
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
async function startProcess(databaseUrl) {
  const child = spawn('node', ['server/dist/main.js'], {
    cwd: new URL('../../', import.meta.url).pathname,
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { ...process.env, DATABASE_URL: databaseUrl, PORT: '0', KAURI_TODAY: TODAY, KAURI_LOG: 'silent' },
  });
  const [line] = await once(createInterface(child.stdout), 'line');
  return {
    url: line.replace('ready ', ''),
    stop: async () => {
      child.kill('SIGTERM');
      await once(child, 'exit');
    },
  };
}

/** Today of all lots on the server: the first of a day forecasts them all, later ones what changed since. */
async function benchToday(agent, owner, url, nurseryId, cookie) {
  const ask = async () => {
    const started = performance.now();
    await get(agent, `${url}/api/nurseries/${nurseryId}/today`, cookie);
    return performance.now() - started;
  };
  const first = await ask();
  const later = [];
  for (let i = 0; i < 7; i++) later.push(await ask());
  // A morning's work: twenty lots recorded on.
  await owner.query('update lot set version = version + 1 where nursery_id = $1 and code <= $2', [
    nurseryId,
    'L-00020',
  ]);
  const after = await ask();
  return [
    ['Today for 2 000 lots, first of the day', ms(first), '', '', ''],
    ['Today for 2 000 lots, nothing changed', ms(quantile(later, 0.5)), '', '', '≤ 500 ms'],
    ['Today for 2 000 lots, 20 of them changed', ms(after), '', '', '≤ 500 ms'],
  ];
}

export async function benchServer(cluster) {
  const { default: pg } = await import('pg');
  await ensureDatabase(cluster, 'bench');
  const server = await startProcess(cluster.url('bench'));
  const owner = new pg.Pool({ connectionString: cluster.url('bench'), max: CONNECTIONS });
  const agent = new Agent({ keepAlive: true, maxSockets: CONNECTIONS });
  try {
    const nurseryId = `019aa5b0-0000-7000-8000-${randomBytes(6).toString('hex')}`;
    const answer = await fetch(`${server.url}/api/setup`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: server.url },
      body: JSON.stringify({
        nursery: {
          id: nurseryId,
          name: 'Bench',
          placeName: 'Bench',
          latitudeDeg: 54.6,
          longitudeDeg: 0,
          elevationM: 100,
          timeZone: 'Europe/London',
          units: 'metric',
        },
        person: {
          id: '019aa5b0-0009-7000-8000-000000000001',
          name: 'Bench',
          email: 'bench@bench.example',
          password: 'a bench of tests',
        },
      }),
    });
    if (!answer.ok) throw new Error(await answer.text());
    const cookie = answer.headers.getSetCookie()[0].split(';')[0];
    await fill(owner, nurseryId);
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
    const today = await benchToday(agent, owner, server.url, nurseryId, cookie);
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
    return [...pageRows, ...today];
  } finally {
    agent.destroy();
    await owner.end();
    await server.stop();
  }
}
