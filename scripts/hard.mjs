import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { parseArgs } from 'node:util';
import { ensureBuilt } from './lib/build.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { crash } from './hard/crash.mjs';
import { fillDisk } from './hard/disk.mjs';
import { killCluster } from './hard/cluster.mjs';
import { soak } from './hard/soak.mjs';
import { fail, Plain, step } from './lib/steps.mjs';

/*
 * npm run hard                what takes too long for every day: fuzz, many acts, kills
 * npm run hard -- fuzz        200 calls of every route of the contract
 * npm run hard -- acts        500 acts kept on a device and sent
 * npm run hard -- crash       servers and database killed under load, 30 times each
 * npm run hard -- crash --kills 5
 * npm run hard -- disk        the disk filled while people write, 10 times; --kills 3
 * npm run hard -- cluster     every part of a cluster killed by turns, and cut off, as many times
 * npm run hard -- soak        50 people for 30 minutes; --minutes 5
 * Its last figures are in docs/security.md.
 */
const root = new URL('../', import.meta.url).pathname;

/** Runs a part of the test suites with more of it. */
async function suite(args, env) {
  const child = spawn('node', ['scripts/test.mjs', ...args], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, ...env },
  });
  const [code] = await once(child, 'close');
  if (code !== 0) throw new Plain(`${args.join(' ')} failed.`);
}

async function main() {
  const { values, positionals } = parseArgs({
    options: {
      kills: { type: 'string', default: '30' },
      minutes: { type: 'string', default: '30' },
    },
    allowPositionals: true,
  });
  const wanted = (part) => positionals.length === 0 || positionals.includes(part);
  await step('Packages', ensurePackages);
  await step('Server', ensureBuilt);
  if (wanted('fuzz')) await suite(['server', '-g', 'whatever is sent'], { KAURI_FUZZ: '200' });
  if (wanted('acts')) await suite(['e2e', '-g', 'many acts kept'], { KAURI_ACTS: '500' });
  if (wanted('crash')) await crash(Number(values.kills));
  if (wanted('disk')) await fillDisk(Math.min(10, Number(values.kills)));
  if (wanted('cluster')) await killCluster(Number(values.kills));
  if (wanted('soak')) await soak(Number(values.minutes));
}

main().catch((error) => {
  fail(error);
  process.exitCode = 1;
});
