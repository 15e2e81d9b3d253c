import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { ensureChromium, ensurePackages } from './lib/packages.mjs';
import { ensurePostgres, openThrowaway } from './lib/postgres.mjs';
import { fail, run, step } from './lib/steps.mjs';

/*
 * npm test              formatting, lint, types, unit, database and browser tests, in a throwaway database
 * npm test -- core      only suites whose name begins so: format, lint, types, core, web, server, start, e2e
 * npm test -- e2e -g RE only browser tests whose title matches
 */
const root = new URL('../', import.meta.url).pathname.replace(/\/$/, '');
const [...wanted] = process.argv.slice(2);
const grepAt = wanted.indexOf('-g');
const grep = grepAt < 0 ? [] : wanted.splice(grepAt, 2);
const isWanted = (name) => wanted.length === 0 || wanted.some((w) => name.startsWith(w));

let passed = 0;
let failed = 0;

/** A check that passes or fails as a whole. */
async function check(name, command, args) {
  if (!isWanted(name)) return;
  try {
    await step(name, () => run(command, args, { cwd: root }));
    passed++;
  } catch (error) {
    failed++;
    console.error(error.message);
  }
}

/** A suite with a count of its own, read from the file its runner writes. */
async function suite(name, command, args, env, counts) {
  if (!isWanted(name)) return;
  const folder = mkdtempSync(join(tmpdir(), 'kauri-report-'));
  const report = join(folder, 'report.json');
  console.log(`\n${name}`);
  try {
    await run(command, args(report), {
      cwd: root,
      show: true,
      ok: [0, 1],
      env: { ...process.env, ...env(report) },
    });
    const { good, bad } = counts(JSON.parse(readFileSync(report, 'utf8')));
    passed += good;
    // A suite that ran nothing has not passed.
    failed += good + bad === 0 ? 1 : bad;
  } catch (error) {
    failed++;
    console.error(error.message);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

const vitest = (project) => (report) => [
  'vitest',
  'run',
  '--project',
  project,
  '--reporter=default',
  '--reporter=json',
  `--outputFile.json=${report}`,
];
const vitestCounts = (r) => ({
  good: r.numPassedTests,
  // A file that could not be loaded fails without a failed test.
  bad:
    r.numFailedTests +
    r.testResults.filter((f) => f.status === 'failed' && f.assertionResults.length === 0).length,
});
const playwrightCounts = ({ stats, errors }) => ({
  good: stats.expected,
  bad: stats.unexpected + stats.flaky + errors.length,
});

async function main() {
  await step('Packages', ensurePackages);
  await check('format', 'npx', ['prettier', '--check', '.']);
  await check('lint', 'npx', ['eslint', '.']);
  await check('types', 'npm', ['run', '--silent', 'types']);
  for (const project of ['core', 'web'])
    await suite(project, 'npx', vitest(project), () => ({}), vitestCounts);
  if (['server', 'e2e', 'start'].some(isWanted)) {
    const bin = await step('PostgreSQL', ensurePostgres);
    const cluster = await step('Throwaway database on 127.0.0.1', () => openThrowaway(bin));
    let stopping = null;
    const stop = () => (stopping ??= cluster.stop());
    for (const signal of ['SIGINT', 'SIGTERM']) {
      process.on(signal, () => void stop().then(() => process.exit(130)));
    }
    try {
      const database = { KAURI_TEST_DATABASE: cluster.url('postgres') };
      await suite('server', 'npx', vitest('server'), () => database, vitestCounts);
      if (isWanted('e2e') || isWanted('start')) await step('Interface and server', ensureBuilt);
      await suite('start', 'npx', vitest('start'), () => ({}), vitestCounts);
      if (isWanted('e2e')) {
        const chromium = await step('Chromium', ensureChromium);
        const env = (report) => ({
          ...database,
          KAURI_CHROMIUM: chromium,
          PLAYWRIGHT_JSON_OUTPUT_NAME: report,
        });
        await suite('e2e', 'npx', () => ['playwright', 'test', '-c', 'e2e', ...grep], env, playwrightCounts);
      }
    } finally {
      await stop();
    }
  }
  if (failed > 0) process.exitCode = 1;
}

main()
  .catch((error) => {
    failed++;
    fail(error);
  })
  .finally(() => console.log(`\n${passed} passed, ${failed} failed`));
