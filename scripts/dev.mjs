import { spawn } from 'node:child_process';
import { buildServer } from './lib/build.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { clusterFolder, ensureDatabase, ensurePostgres, homeFolder, openCluster } from './lib/postgres.mjs';
import { fail, step } from './lib/steps.mjs';
import { watch } from 'node:fs';
import { join } from 'node:path';

/*
 * npm run dev: the interface rebuilt as it is changed, the core's part of it too; the server started again as it is
 * changed. Prints the one address to open, and the demo's sign-ins.
 */
const API = 4320;
const WEB = 5173;
const root = new URL('../', import.meta.url).pathname.replace(/\/$/, '');

/** Waits for the server, then says where to go and who may. */
async function welcome() {
  for (;;) {
    const door = await fetch(`http://127.0.0.1:${API}/api/door`).then(
      (answer) => answer.json(),
      () => null,
    );
    if (!door) {
      await new Promise((resolve) => setTimeout(resolve, 200));
      continue;
    }
    console.log(`\nKauri is at http://127.0.0.1:${WEB}\n`);
    for (const p of door.demoPeople)
      console.log(`  ${p.email.padEnd(30)} ${p.password}   ${p.role}, ${p.nursery}`);
    return console.log('\nCtrl-C stops it.');
  }
}

async function main() {
  await step('Packages', ensurePackages);
  const bin = await step('PostgreSQL', ensurePostgres);
  const cluster = await step('Database server on 127.0.0.1', () =>
    openCluster(bin, clusterFolder(homeFolder(root))),
  );
  await ensureDatabase(cluster, 'kauri_dev');
  const env = { ...process.env, DATABASE_URL: cluster.url('kauri_dev'), PORT: String(API), KAURI_DEMO: '1' };
  let server = null;
  const serve = () => (server = spawn('node', ['server/dist/main.js'], { cwd: root, stdio: 'inherit', env }));
  await step('Server', buildServer);
  serve();
  const web = spawn(
    'node_modules/.bin/vite',
    ['web', '--port', String(WEB), '--strictPort', '--clearScreen', 'false', '--logLevel', 'warn'],
    { cwd: root, stdio: 'inherit', env: { ...process.env, KAURI_API: `http://127.0.0.1:${API}` } },
  );
  for (const signal of ['SIGINT', 'SIGTERM']) {
    process.on(signal, () => {
      web.kill(signal);
      server.removeAllListeners('exit');
      server.once('exit', () => void cluster.stop().then(() => process.exit(0)));
      server.kill('SIGTERM');
    });
  }
  await welcome();
  let waiting = null;
  for (const folder of ['core/src', 'server/src']) {
    watch(join(root, folder), { recursive: true }, () => {
      clearTimeout(waiting);
      waiting = setTimeout(async () => {
        try {
          await buildServer();
        } catch {
          return; // esbuild has said what is wrong; the old server goes on.
        }
        const old = server;
        old.once('exit', serve);
        old.kill('SIGTERM');
      }, 150);
    });
  }
}

main().catch((error) => {
  fail(error);
  process.exit(1);
});
