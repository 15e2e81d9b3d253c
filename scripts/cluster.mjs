import { once } from 'node:events';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { parseArgs } from 'node:util';
import { ensureBuilt } from './lib/build.mjs';
import { openCluster } from './lib/cluster.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { clusterFolder, homeFolder } from './lib/postgres.mjs';
import { fail, Plain, step } from './lib/steps.mjs';

/*
 * npm run cluster              Kauri with the demo on two servers and two databases, of which any may die
 * npm run cluster -- --empty   an empty Kauri
 * npm run cluster -- --port N  another port than 4320
 * What may be typed while it runs is listed when it is up. On loopback, for trying it: whoever is on this machine may
 * read its database. docs/cluster.md says how it is done for good.
 */
const DOWN_MS = 15_000;
const root = new URL('../', import.meta.url).pathname.replace(/\/$/, '');

async function main() {
  const { values } = parseArgs({
    options: { empty: { type: 'boolean', default: false }, port: { type: 'string', default: '4320' } },
  });
  const port = Number(values.port);
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new Plain(`“${values.port}” is not a port.`);
  await step('Packages', ensurePackages);
  await step('Interface and server', ensureBuilt);
  const said = (words) => console.log(`· ${words}`);
  const folder = join(clusterFolder(homeFolder(root)), values.empty ? 'cluster-empty' : 'cluster');
  const cluster = await step('Two databases, a pooler, two servers and a front', () =>
    openCluster({ folder, port, demo: !values.empty, today: process.env.KAURI_TODAY, said }),
  );
  console.log(`\nKauri is at ${cluster.url}\n`);
  const acts = {
    'kill server 1': () => cluster.servers[0].kill(),
    'kill server 2': () => cluster.servers[1].kill(),
    'kill pooler': () => cluster.pooler.kill(),
    'kill primary': async () => (await cluster.primary()).kill(DOWN_MS),
    'cut primary': async () => (await cluster.primary()).freeze(DOWN_MS),
    'cut standby': async () => (await cluster.standby()).freeze(DOWN_MS),
    state: async () => console.table(await cluster.states()),
  };
  console.log(`Type one of: ${Object.keys(acts).join(', ')}. Ctrl-C stops it.`);
  const lines = createInterface({ input: process.stdin });
  lines.on('line', (line) => {
    const act = acts[line.trim()];
    if (act) Promise.resolve(act()).catch((error) => said(error.message));
    else if (line.trim()) console.log(`There is no “${line.trim()}”.`);
  });
  await Promise.race([once(process, 'SIGINT'), once(process, 'SIGTERM')]);
  console.log('\n· Stopping.');
  lines.close();
  await cluster.stop();
  process.exit(0);
}

main().catch((error) => {
  fail(error);
  process.exit(1);
});
