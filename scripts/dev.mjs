import { spawn } from 'node:child_process';
import { buildServer } from './lib/build.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { clusterFolder, ensureDatabase, ensurePostgres, homeFolder, openCluster } from './lib/postgres.mjs';
import { fail, step } from './lib/steps.mjs';
import { watch } from 'node:fs';
import { join } from 'node:path';

/* npm run dev: the interface rebuilt as it is changed, the server started again as it is changed. */
const API = 4320;
const root = new URL('../', import.meta.url).pathname.replace(/\/$/, '');

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
  const web = spawn('npx', ['vite', 'web'], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, KAURI_API: `http://127.0.0.1:${API}` },
  });
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
  for (const signal of ['SIGINT', 'SIGTERM']) {
    process.on(signal, () => {
      web.kill(signal);
      server.removeAllListeners('exit');
      server.once('exit', () => void cluster.stop().then(() => process.exit(0)));
      server.kill('SIGTERM');
    });
  }
}

main().catch((error) => {
  fail(error);
  process.exit(1);
});
