import { spawn } from 'node:child_process';
import { once } from 'node:events';
import {
  appendFileSync,
  chownSync,
  createWriteStream,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { ensurePostgres, freePort, serverUser } from './postgres.mjs';
import { findProgram, installDebian } from './packages.mjs';
import { Plain, run } from './steps.mjs';

const root = new URL('../../', import.meta.url).pathname;
const DATABASE = 'kauri';
const OWNER = 'kauri_owner';
/** What all three database servers are told past pg_auto_failover's own settings: small, and on this machine alone. */
const small = (sockets) => `
listen_addresses = '127.0.0.1'
unix_socket_directories = '${sockets}'
shared_buffers = '64MB'
work_mem = '8MB'
maintenance_work_mem = '64MB'
wal_keep_size = '256MB'
logging_collector = off
`;
/** How soon a machine that does not answer is given up: after two tries, half a second apart, and five seconds without a word. */
const SOON = `
pgautofailover.health_check_period = 1000
pgautofailover.health_check_timeout = 1000
pgautofailover.health_check_retry_delay = 500
pgautofailover.health_check_max_retries = 2
pgautofailover.node_considered_unhealthy_timeout = 5000
pgautofailover.primary_demote_timeout = 5000
pgautofailover.startup_grace_period = 2000
`;
/** How often it is looked which of the two is the primary, ms. */
const LOOK_MS = 300;
/** How long a process that ended is left before it is started again, ms. */
const REST_MS = 1000;

/** Programs of Debian's packages, installed where they are not there. */
async function programs() {
  const bin = await ensurePostgres();
  const folders = ['/usr/bin', '/usr/sbin'];
  const find = () => ({
    autoctl: findProgram('pg_autoctl', folders),
    pgbouncer: findProgram('pgbouncer', folders),
    haproxy: findProgram('haproxy', folders),
  });
  const version = bin.split('/').at(-2);
  const has = Object.values(find()).every(Boolean) && existsSync(join(bin, '../lib/pgautofailover.so'));
  if (!has)
    await installDebian(
      ['pg-auto-failover-cli', `postgresql-${version}-auto-failover`, 'pgbouncer', 'haproxy'],
      'The cluster',
    );
  const found = find();
  if (!Object.values(found).every(Boolean))
    throw new Plain('pg_autoctl, pgbouncer or haproxy is not where it was looked for.');
  return { bin, ...found };
}

/** A process and all it started, however deep. */
function treeOf(pid) {
  const parents = new Map();
  for (const name of readdirSync('/proc')) {
    if (!/^\d+$/.test(name)) continue;
    try {
      const stat = readFileSync(`/proc/${name}/stat`, 'utf8');
      parents.set(Number(name), Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[1]));
    } catch {
      // It ended meanwhile.
    }
  }
  const tree = [pid];
  for (const one of tree) for (const [child, parent] of parents) if (parent === one) tree.push(child);
  return tree;
}

function signal(pids, name) {
  for (const pid of pids)
    try {
      process.kill(pid, name);
    } catch {
      // It ended meanwhile.
    }
}

/** Keeps a program running: started again whenever it ends, unless it is held down. */
function keep(name, start, said) {
  let child = null;
  let stopped = false;
  let held = Promise.resolve();
  const going = (async () => {
    while (!stopped) {
      await held;
      if (stopped) return;
      child = start();
      await once(child, 'exit');
      if (stopped) return;
      said(`${name} ended; it is started again.`);
      await pause(REST_MS);
    }
  })();
  return {
    name,
    pid: () => child?.pid,
    /** Kills it and all it started, and leaves it so for a while: a machine without power. */
    kill(downMs = 0) {
      if (downMs) held = pause(downMs);
      signal(treeOf(child.pid), 'SIGKILL');
    },
    /** It answers nobody for a while, and goes on as if nothing had been: a machine cut off. */
    async freeze(forMs) {
      const tree = treeOf(child.pid);
      signal(tree, 'SIGSTOP');
      await pause(forMs);
      signal(tree, 'SIGCONT');
    },
    async stop(how = 'SIGTERM') {
      stopped = true;
      held = Promise.resolve();
      if (child && child.exitCode === null && child.signalCode === null) {
        const tree = treeOf(child.pid);
        child.kill(how);
        const late = setTimeout(() => signal(tree, 'SIGKILL'), 20_000);
        await once(child, 'exit');
        clearTimeout(late);
      }
      await going;
    },
  };
}

/**
 * Two Kauri servers behind one port, and their database on two machines' worth of PostgreSQL of which one follows the
 * other to the last write: all on this machine's loopback, for trying what happens when a part of it dies.
 * @param folder where its data lies; what is there is taken up again
 * @param port to answer at
 * @param said told what happens
 */
export async function openCluster({ folder, port, demo = false, today, said }) {
  const { bin, autoctl, pgbouncer, haproxy } = await programs();
  const user = serverUser();
  mkdirSync(folder, { recursive: true });
  if (user.uid) chownSync(folder, user.uid, user.gid);
  const portsFile = join(folder, 'ports.json');
  const isNew = !existsSync(portsFile);
  if (isNew) {
    const [monitor, one, two, pooler, a, b] = await Promise.all(Array.from({ length: 6 }, freePort));
    writeFileSync(portsFile, JSON.stringify({ monitor, nodes: [one, two], pooler, servers: [a, b] }));
  }
  const ports = JSON.parse(readFileSync(portsFile, 'utf8'));
  // PostgreSQL is brought up without a network while it follows another anew.
  const sockets = join(folder, 'run');
  mkdirSync(sockets, { recursive: true, mode: 0o700 });
  if (user.uid) chownSync(sockets, user.uid, user.gid);
  const env = {
    ...process.env,
    PATH: `${bin}:${process.env.PATH}`,
    HOME: folder,
    XDG_CONFIG_HOME: join(folder, 'config'),
    XDG_DATA_HOME: join(folder, 'data'),
    XDG_RUNTIME_DIR: sockets,
    PGHOST: '127.0.0.1',
  };
  const as = { ...user, cwd: folder, env };
  const monitorUrl = `postgres://autoctl_node@127.0.0.1:${ports.monitor}/pg_auto_failover?sslmode=disable`;
  const data = (name) => join(folder, name);
  const kept = [];
  const start = (name, command, args, options) => {
    const log = createWriteStream(join(folder, `${name.replace(/\W/g, '-')}.log`), { flags: 'a' });
    const one = keep(
      name,
      () => {
        const child = spawn(command, args, { ...options, stdio: ['ignore', 'pipe', 'pipe'] });
        child.stdout.pipe(log, { end: false });
        child.stderr.pipe(log, { end: false });
        return child;
      },
      said,
    );
    kept.push(one);
    return one;
  };
  const make = async (name, kind, at, more) => {
    await run(
      autoctl,
      ['create', kind, '--pgdata', data(name), '--pgport', String(at), '--hostname', '127.0.0.1']
        .concat(['--auth', 'trust', '--no-ssl'])
        .concat(more),
      as,
    );
    const set = ['config', 'set', '--pgdata', data(name), 'postgresql.host', sockets];
    await run(autoctl, set, as);
  };
  const { default: pg } = await import('pg');
  const query = async (url, text) => {
    const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: 2000 });
    client.on('error', () => undefined);
    await client.connect();
    try {
      return (await client.query(text)).rows;
    } finally {
      await client.end().catch(() => undefined);
    }
  };
  const until = async (what, ready, withinMs = 60_000) => {
    const end = Date.now() + withinMs;
    for (;;) {
      const answer = await ready().catch(() => null);
      if (answer) return answer;
      if (Date.now() > end) throw new Plain(`${what} did not come up; its log is in ${folder}.`);
      await pause(LOOK_MS);
    }
  };
  const states = () =>
    query(
      monitorUrl,
      'select nodeport as port, reportedstate as state from pgautofailover.node order by nodeid',
    );
  const primaryNow = async () =>
    (await states()).find(({ state }) => ['primary', 'wait_primary', 'single'].includes(state))?.port ?? null;

  let routed = null;
  let following = Promise.resolve();
  let stopped = false;
  const writePooler = (at) => {
    const to = `host=127.0.0.1 port=${at} dbname=${DATABASE}`;
    writeFileSync(
      data('pgbouncer.ini'),
      `[databases]
${DATABASE} = ${to} pool_mode=transaction
${DATABASE}_direct = ${to} pool_mode=session
[pgbouncer]
listen_addr = 127.0.0.1
listen_port = ${ports.pooler}
unix_socket_dir =
auth_type = trust
auth_file = ${data('userlist.txt')}
admin_users = ${OWNER}
default_pool_size = 40
max_client_conn = 500
query_wait_timeout = 15
server_connect_timeout = 3
server_login_retry = 1
ignore_startup_parameters = extra_float_digits
`,
    );
  };
  const poolerUrl = (database) => `postgres://${OWNER}@127.0.0.1:${ports.pooler}/${database}`;
  /** Leads everybody to the new primary; whoever still speaks with the old one is cut off, and asks again. */
  async function route(at) {
    writePooler(at);
    if (routed !== null) {
      const client = new pg.Client({ connectionString: poolerUrl('pgbouncer') });
      client.on('error', () => undefined);
      await client.connect();
      await client.query('RELOAD');
      for (const database of [DATABASE, `${DATABASE}_direct`]) {
        await client.query(`KILL ${database}`).catch(() => undefined);
        await client.query(`RESUME ${database}`).catch(() => undefined);
      }
      await client.end();
      said(`The database is at port ${at} now.`);
    }
    routed = at;
  }

  async function stop() {
    stopped = true;
    await following;
    // The front first, the databases and their monitor last.
    for (const one of kept.reverse()) await one.stop(one.name === 'haproxy' ? 'SIGKILL' : 'SIGTERM');
  }

  try {
    if (isNew) {
      await make('monitor', 'monitor', ports.monitor, []);
      appendFileSync(join(data('monitor'), 'postgresql.conf'), small(sockets) + SOON);
    }
    start('monitor', autoctl, ['run', '--pgdata', data('monitor')], as);
    await until('The monitor', () => query(monitorUrl, 'select 1'));
    const nodes = [];
    for (const [i, at] of ports.nodes.entries()) {
      const name = `node${i + 1}`;
      if (isNew) {
        await make(name, 'postgres', at, [
          '--name',
          `node_${i + 1}`,
          '--listen',
          '127.0.0.1',
          '--monitor',
          monitorUrl,
        ]);
        // The second is a copy of the first, with its settings.
        if (i === 0) appendFileSync(join(data(name), 'postgresql.conf'), small(sockets));
      }
      nodes.push(start(name, autoctl, ['run', '--pgdata', data(name)], as));
      if (i === 0) await until('The first database', primaryNow);
    }
    await until('The second database', async () => {
      const all = await states();
      return all.length === 2 && all.every(({ state }) => state === 'primary' || state === 'secondary');
    });
    const at = await primaryNow();
    const direct = `postgres://postgres@127.0.0.1:${at}/postgres`;
    if (isNew) {
      await query(direct, `create role ${OWNER} login superuser`).catch(() => undefined);
      await query(direct, `create database ${DATABASE} owner ${OWNER}`);
    }
    writeFileSync(data('userlist.txt'), `"${OWNER}" ""\n"kauri_app" ""\n`);
    await route(at);
    const pooler = start('pgbouncer', pgbouncer, [data('pgbouncer.ini')], as);
    await until('The pooler', () => query(poolerUrl(`${DATABASE}_direct`), 'select 1'));
    following = (async () => {
      while (!stopped) {
        const now = await primaryNow().catch(() => null);
        if (now !== null && now !== routed) await route(now).catch(() => undefined);
        await pause(LOOK_MS);
      }
    })();
    const servers = [];
    for (const [i, at] of ports.servers.entries()) {
      servers.push(
        start(`server ${i + 1}`, process.execPath, ['server/dist/main.js'], {
          cwd: root,
          env: {
            ...process.env,
            DATABASE_URL: poolerUrl(`${DATABASE}_direct`),
            KAURI_POOLER: `postgres://127.0.0.1:${ports.pooler}/${DATABASE}`,
            PORT: String(at),
            KAURI_DEMO: demo ? '1' : '0',
            KAURI_TODAY: today ?? '',
            KAURI_REQUESTS: process.env.KAURI_REQUESTS ?? '0',
          },
        }),
      );
      await until(
        `Server ${i + 1}`,
        async () => (await fetch(`http://127.0.0.1:${at}/api/health`)).ok,
        180_000,
      );
    }
    writeFileSync(
      data('haproxy.cfg'),
      `defaults
  mode http
  retries 3
  option redispatch
  timeout connect 2s
  timeout client 120s
  timeout server 120s
frontend kauri
  bind 127.0.0.1:${port}
  default_backend servers
backend servers
  balance leastconn
  option httpchk GET /api/health
${ports.servers.map((at, i) => `  server s${i + 1} 127.0.0.1:${at} check inter 500ms fall 2 rise 1 on-marked-down shutdown-sessions`).join('\n')}
`,
    );
    start('haproxy', haproxy, ['-db', '-f', data('haproxy.cfg')], { cwd: folder });
    const url = `http://127.0.0.1:${port}`;
    await until('The front', async () => (await fetch(`${url}/api/health`)).ok);
    const role = async (wanted) => {
      const now = await primaryNow();
      return nodes[ports.nodes.findIndex((at) => (at === now) === (wanted === 'primary'))];
    };
    return {
      url,
      servers,
      serverUrls: ports.servers.map((at) => `http://127.0.0.1:${at}`),
      pooler,
      primary: () => role('primary'),
      standby: () => role('standby'),
      states,
      /** Whether one follows the other again, so that either may die. */
      isWhole: async () => {
        const all = await states().catch(() => []);
        return all.filter(({ state }) => state === 'primary' || state === 'secondary').length === 2;
      },
      /** The owner's way to whichever database is the primary. */
      databaseUrl: async () =>
        `postgres://${OWNER}@127.0.0.1:${await until('A primary', primaryNow)}/${DATABASE}`,
      stop,
    };
  } catch (error) {
    await stop();
    // What was half made is not taken up again.
    if (isNew) rmSync(folder, { recursive: true, force: true });
    throw error;
  }
}
