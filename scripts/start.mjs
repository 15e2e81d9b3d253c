import { closeSync, existsSync, openSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { ensureBuilt } from './lib/build.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { clusterFolder, ensureDatabase, ensurePostgres, homeFolder, openCluster } from './lib/postgres.mjs';
import { fail, Plain, step } from './lib/steps.mjs';

/*
 * npm start                 everything a fresh machine needs, then Kauri with the demo nurseries
 * npm start -- --empty      an empty Kauri, in a database of its own
 * npm start -- --fresh      begin anew; what was there is kept under another name
 * npm start -- --port 8080  another port than 4310
 */
const DEFAULT_PORT = 4310;
const root = new URL('../', import.meta.url).pathname.replace(/\/$/, '');
const home = homeFolder(root);
const runFile = join(home, 'run.json');

function options() {
  try {
    const { values } = parseArgs({
      options: {
        empty: { type: 'boolean', default: false },
        fresh: { type: 'boolean', default: false },
        port: { type: 'string' },
      },
    });
    const port = values.port === undefined ? null : Number(values.port);
    if (port !== null && !(Number.isInteger(port) && port > 0 && port < 65536))
      throw new Error(`“${values.port}” is not a port.`);
    return { ...values, port };
  } catch (error) {
    throw new Plain(`${error.message}\nUse: npm start -- [--empty] [--fresh] [--port N]`);
  }
}

/** Claims this checkout, or says where Kauri already runs. A claim left by a killed start is taken over. */
async function claim() {
  for (;;) {
    try {
      const file = openSync(runFile, 'wx');
      writeFileSync(file, JSON.stringify({ pid: process.pid }));
      closeSync(file);
      return null;
    } catch (error) {
      if (error.code !== 'EEXIST') throw error;
    }
    let other;
    try {
      other = JSON.parse(readFileSync(runFile, 'utf8'));
    } catch {
      other = {};
    }
    if (other.pid && alive(other.pid)) {
      if (!other.url) throw new Plain('Kauri is already starting from this folder. Wait for it, or stop it.');
      const answers = await fetch(`${other.url}/api/health`).then(
        (r) => r.ok,
        () => false,
      );
      if (answers) return other.url;
      throw new Plain(
        `Process ${other.pid} holds this folder but does not answer at ${other.url}. Stop it, then start again.`,
      );
    }
    console.log('· An earlier start was cut off; taking over.');
    rmSync(runFile, { force: true });
  }
}

/** Whether a process runs and is a Kauri start, not a stranger that was given its number since. */
function alive(pid) {
  try {
    process.kill(pid, 0);
  } catch (error) {
    if (error.code !== 'EPERM') return false;
  }
  const commandLine = `/proc/${pid}/cmdline`;
  return !existsSync(commandLine) || readFileSync(commandLine, 'utf8').includes('start.mjs');
}

async function database({ empty, fresh }, cleanUp) {
  if (process.env.DATABASE_URL) {
    if (fresh)
      throw new Plain('--fresh works on Kauri’s own database only, not on the one DATABASE_URL names.');
    console.log('· Using the database that DATABASE_URL names.');
    return { databaseUrl: process.env.DATABASE_URL };
  }
  const bin = await step('PostgreSQL', ensurePostgres);
  const cluster = await step('Database server on 127.0.0.1', () => openCluster(bin, clusterFolder(home)));
  cleanUp.push(cluster.stop);
  cleanUp.push(cluster.keepUp((words) => console.log(`· ${words}`)));
  const name = empty ? 'kauri_empty' : 'kauri';
  const kept = await ensureDatabase(cluster, name, { fresh });
  if (kept) console.log(`· What was there is kept as database ${kept}.`);
  // Nightly copies are made by the same PostgreSQL's programs.
  return { databaseUrl: cluster.url(name), postgresBin: bin };
}

/** The environment's settings, as the server takes them. */
function readSettings(settingsOf) {
  try {
    const read = settingsOf(process.env);
    return {
      today: read.KAURI_TODAY,
      logLevel: read.KAURI_LOG ?? 'warn',
      address: read.KAURI_ADDRESS,
      requestsPerMinute: read.KAURI_REQUESTS,
      metricsPort: read.KAURI_METRICS,
      backups: read.KAURI_BACKUPS,
    };
  } catch (error) {
    throw new Plain(error.message);
  }
}

/** @throws Error with code EADDRINUSE when somebody listens there */
async function mustBeFree(port) {
  const probe = createServer();
  await new Promise((resolve, reject) => probe.once('error', reject).listen(port, '127.0.0.1', resolve));
  await new Promise((resolve) => probe.close(resolve));
}

async function listen(start, settings, port) {
  for (let tried = port ?? DEFAULT_PORT; ; tried++) {
    try {
      // Asked first: whoever has to choose another port hears it before anything is made.
      await mustBeFree(tried);
      return await start({ ...settings, port: tried });
    } catch (error) {
      if (error.code !== 'EADDRINUSE') throw error;
      if (port !== null) throw new Plain(`Port ${port} is taken by another program. Choose one with --port.`);
      if (tried > DEFAULT_PORT + 20)
        throw new Plain(`Ports ${DEFAULT_PORT} to ${tried} are all taken. Choose one with --port.`);
      console.log(`· Port ${tried} is taken; trying ${tried + 1}.`);
    }
  }
}

async function main() {
  const chosen = options();
  const running = await claim();
  if (running) return void console.log(`Kauri is already running at ${running}`);
  const cleanUp = [() => rmSync(runFile, { force: true })];
  let stopping = null;
  const stop = () =>
    (stopping ??= (async () => {
      for (const undo of cleanUp.reverse()) await Promise.resolve(undo()).catch(() => undefined);
    })());
  const onSignal = () => {
    console.log('\n· Stopping.');
    void stop().then(() => process.exit(0));
  };
  process.on('SIGINT', onSignal);
  process.on('SIGTERM', onSignal);
  try {
    await step('Packages', ensurePackages);
    const where = await database(chosen, cleanUp);
    await step('Interface and server', ensureBuilt);
    const { settingsOf, startServer } = await import('../server/dist/start.js');
    const settings = readSettings(settingsOf);
    const demo = !chosen.empty && !process.env.DATABASE_URL;
    const server = await step(demo ? 'Tables and demo nurseries' : 'Tables', () =>
      listen(startServer, { ...where, demo, ...settings }, chosen.port),
    );
    cleanUp.push(server.stop);
    writeFileSync(runFile, JSON.stringify({ pid: process.pid, url: server.url }));
    console.log(`\nKauri is at ${server.url}`);
    if (server.demoPeople.length) {
      console.log('\nDemo sign-ins:');
      for (const p of server.demoPeople)
        console.log(`  ${p.email.padEnd(30)} ${p.password}   ${p.role}, ${p.nursery}`);
    } else if (server.needsSetup) console.log('Open it to set up your nursery.');
    console.log('\nCtrl-C stops it.');
  } catch (error) {
    await stop();
    throw error;
  }
}

main().catch((error) => {
  fail(error);
  process.exit(1);
});
