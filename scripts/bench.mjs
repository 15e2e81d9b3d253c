import { once } from 'node:events';
import { spawn } from 'node:child_process';
import { cpus } from 'node:os';
import { benchCore } from './bench/core.mjs';
import { benchServer } from './bench/server.mjs';
import { benchInterface } from './bench/interface.mjs';
import { ensureBuilt } from './lib/build.mjs';
import { ensureChromium, ensurePackages } from './lib/packages.mjs';
import { clusterFolder, ensurePostgres, freePort, homeFolder, openThrowaway } from './lib/postgres.mjs';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { fail, step } from './lib/steps.mjs';

/*
 * npm run bench: how long the things that must be quick take on this machine, beside what the machine
 * itself needs for bare work of the same amount.
 */
const root = new URL('../', import.meta.url).pathname.replace(/\/$/, '');

async function main() {
  await step('Packages', ensurePackages);
  const bin = await step('PostgreSQL', ensurePostgres);
  const chromium = await step('Chromium', ensureChromium);
  await step('Interface and server', ensureBuilt);
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
