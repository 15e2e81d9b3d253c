import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { cpus } from 'node:os';
import { benchCore } from './bench/core.mjs';
import { benchFleet } from './bench/fleet.mjs';
import { benchLarge } from './bench/large.mjs';
import { benchPerson, openNursery } from './bench/nursery.mjs';
import { benchServer, soak, startProcess } from './bench/server.mjs';
import { benchInterface } from './bench/interface.mjs';
import { ensureBuilt } from './lib/build.mjs';
import { ensureChromium, ensurePackages } from './lib/packages.mjs';
import {
  clusterFolder,
  ensureDatabase,
  ensurePostgres,
  freePort,
  homeFolder,
  openCluster,
  openThrowaway,
} from './lib/postgres.mjs';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { fail, step } from './lib/steps.mjs';

/*
 * npm run bench: how long the things that must be quick take on this machine, beside what the machine
 * itself needs for bare work of the same amount.
 * npm run bench -- --nursery 2000: only what a nursery of so many lots, a hundred records each, costs server and browser.
 * It is built once and kept. With --open it is left running, to be worked with by hand; with --soak 10 a hundred people
 * work on it for ten minutes, and it is said what the server held of memory after each.
 * npm run bench -- --fleet 10000: what so many nurseries would need of machines, from costs measured here and a day that is drawn.
 */
const root = new URL('../', import.meta.url).pathname.replace(/\/$/, '');

const { values: options } = parseArgs({
  options: {
    nursery: { type: 'string' },
    open: { type: 'boolean' },
    port: { type: 'string' },
    soak: { type: 'string' },
    fleet: { type: 'string' },
  },
});

async function main() {
  await step('Packages', ensurePackages);
  const bin = await step('PostgreSQL', ensurePostgres);
  const chromium = await step('Chromium', ensureChromium);
  await step('Interface and server', ensureBuilt);
  if (options.nursery !== undefined) return large(bin, chromium, Number(options.nursery));
  if (options.fleet !== undefined) return fleet(bin, Number(options.fleet));
  const rows = [];
  rows.push(...(await step('Core', benchCore)));
  const cluster = await step('Throwaway database', () => openThrowaway(bin));
  try {
    rows.push(...(await step('Server', () => benchServer(cluster))));
    rows.push(...(await step('Interface', () => benchInterface(cluster, chromium))));
  } finally {
    await cluster.stop();
  }
  rows.push(...(await step('Warm start', warmStart)));
  console.log(`\n${cpus()[0].model}, ${cpus().length} cores, Node ${process.versions.node}\n`);
  table(['what', 'measured', 'baseline of this machine', 'ratio', 'aim'], rows);
}

/** A nursery of so many lots, in a cluster that is kept beside the demo’s. */
async function large(bin, chromium, lots) {
  if (!Number.isInteger(lots) || lots < 1) throw new Error('--nursery wants a number of lots, as 2000.');
  const { default: pg } = await import('pg');
  const folder = join(clusterFolder(homeFolder(root)), 'bench');
  const cluster = await step('Kept database', () => openCluster(bin, folder));
  // What a soak writes is not left in the nursery that is kept.
  const name = `${options.soak ? 'soak' : 'nursery'}_${lots}`;
  const url = cluster.url(name);
  await ensureDatabase(cluster, name);
  const owner = new pg.Pool({ connectionString: url, max: 2 });
  const server = await startProcess(url, Number(options.port ?? 0));
  try {
    const { nurseryId, cookie } = await step(`Nursery of ${lots} lots`, () =>
      openNursery(server, owner, { lots, records: lots * 100 }),
    );
    if (options.soak) {
      const { held, asked, faults } = await soak(server, nurseryId, cookie, Number(options.soak));
      console.log(`${asked} calls, ${faults} errors; memory after each minute, MB: ${held.join(' ')}`);
      return;
    }
    if (options.open) {
      console.log(`\n${server.url}  ${benchPerson.email}  ${benchPerson.password}\nCtrl-C stops it.`);
      await once(process, 'SIGINT');
      return;
    }
    const rows = await step('Browser', () => benchLarge(server.url, chromium));
    table(['what', 'measured', '', '', 'aim'], rows);
  } finally {
    await owner.end();
    await server.stop();
    await cluster.stop();
  }
}

/** What so many nurseries at once would need of machines. */
async function fleet(bin, nurseries) {
  if (!Number.isInteger(nurseries) || nurseries < 1)
    throw new Error('--fleet wants a number of nurseries, as 10000.');
  const cluster = await step('Throwaway database', () => openThrowaway(bin));
  try {
    const rows = await step('Costs', () => benchFleet(cluster, nurseries));
    table(['what', 'measured or simulated'], rows);
  } finally {
    await cluster.stop();
  }
}

/** From the command to the first answer, everything built and the demo loaded. */
async function warmStart() {
  if (!existsSync(join(clusterFolder(homeFolder(root)), 'pg', 'PG_VERSION'))) await oneStart();
  const seconds = await oneStart();
  return [['warm npm start to the first answer', `${seconds.toFixed(1)} s`, '', '', '< 6 s']];
}

async function oneStart() {
  const port = await freePort();
  const started = performance.now();
  const child = spawn('npm', ['start', '--silent', '--', '--port', String(port)], {
    cwd: root,
    stdio: 'ignore',
    detached: true,
  });
  try {
    for (;;) {
      const answers = await fetch(`http://127.0.0.1:${port}/api/health`).then(
        (r) => r.ok,
        () => false,
      );
      if (answers) return (performance.now() - started) / 1000;
      if (child.exitCode !== null)
        throw new Error('npm start ended before it answered; is Kauri already running from this folder?');
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  } finally {
    if (child.exitCode === null) {
      process.kill(-child.pid, 'SIGINT');
      await once(child, 'exit');
    }
  }
}

function table(head, rows) {
  const width = head.map((name, i) => Math.max(name.length, ...rows.map((row) => row[i].length)));
  const line = (cells) =>
    cells
      .map((cell, i) => cell.padEnd(width[i]))
      .join('  ')
      .trimEnd();
  console.log(line(head));
  console.log(width.map((w) => '─'.repeat(w)).join('  '));
  for (const row of rows) console.log(line(row));
}

main().catch((error) => {
  fail(error);
  process.exit(1);
});
