import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { stripVTControlCharacters } from 'node:util';
import { ensureBuilt } from './lib/build.mjs';
import { ensureChromium, ensurePackages } from './lib/packages.mjs';
import { ensurePostgres, openThrowaway } from './lib/postgres.mjs';
import { fail, run, step } from './lib/steps.mjs';
import { makeTemplates } from './lib/templates.mjs';

/*
 * npm test                 formatting, lint, types, circles, unused code, and every suite, in a throwaway database
 * npm test -- core         only what begins so: format, lint, types, circles, unused, core, web, server, start, e2e
 * npm test -- e2e -g RE    only browser tests whose title matches; likewise core, web and server
 */
const root = new URL('../', import.meta.url).pathname.replace(/\/$/, '');
const [...wanted] = process.argv.slice(2);
const grepAt = wanted.indexOf('-g');
const grep = grepAt < 0 ? null : wanted.splice(grepAt, 2)[1];
const isWanted = (name) => wanted.length === 0 || wanted.some((w) => name.startsWith(w));

const sum = (values) => values.reduce((total, value) => total + value, 0);

let passed = 0;
let failed = 0;
/** What failed and why in short, said once more at the end, where nobody has to look for it. */
const why = [];
const LINES_OF_A_FAILURE = 14;
const sayWhy = (part, name, message) =>
  why.push(
    [
      `✗ ${part}: ${name}`,
      ...stripVTControlCharacters(message).split('\n').slice(0, LINES_OF_A_FAILURE),
    ].join('\n    '),
  );

/** What stood on the page when a browser test failed: where it ran nobody can look any more. */
const LINES_OF_A_PAGE = 60;
function sayPage(file) {
  const page = readFileSync(file, 'utf8').split('# Page snapshot')[1]?.split('# Test source')[0];
  if (page) why.push(['  The page:', ...page.trim().split('\n').slice(0, LINES_OF_A_PAGE)].join('\n    '));
}

/** Runs one part of the tests and says how it went and how long it took; what it printed is shown where it failed. */
async function part(name, work) {
  if (!isWanted(name)) return;
  const started = Date.now();
  let good = 0;
  let bad = 1;
  let output = '';
  try {
    ({ good, bad, output } = await work());
  } catch (error) {
    output = error.stack && !error.message.includes('\n') ? error.stack : error.message;
    sayWhy(name, 'as a whole', output);
  }
  passed += good;
  failed += bad;
  if (bad > 0) console.log(`\n${output}\n`);
  console.log(`· ${name}: ${good} passed, ${bad} failed, ${((Date.now() - started) / 1000).toFixed(1)} s`);
}

/** A check that passes or fails as a whole. */
const check = (name, command, args) =>
  part(name, async () => {
    await run(command, args, { cwd: root });
    return { good: 1, bad: 0, output: '' };
  });

/** A suite with a count of its own, read from the file its runner writes. */
const suite = (name, args, env, counts) =>
  part(name, async () => {
    const folder = mkdtempSync(join(tmpdir(), 'kauri-report-'));
    const report = join(folder, 'report.json');
    try {
      const { output } = await run('npx', args(report), {
        cwd: root,
        ok: [0, 1],
        // Room for what is young: rows and answers by the thousand are swept less often, a tenth of a server's work.
        env: { ...process.env, NO_COLOR: '1', NODE_OPTIONS: '--max-semi-space-size=128', ...env(report) },
      });
      const { good, bad } = counts(JSON.parse(readFileSync(report, 'utf8')));
      // A suite that ran nothing has not passed.
      return { good, bad: good + bad === 0 ? 1 : bad, output };
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  });

const vitest = (project, ...more) => [
  (report) => [
    'vitest',
    'run',
    '--project',
    project,
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${report}`,
    ...(grep ? ['-t', grep] : []),
    ...more,
  ],
];
/** Says what took longest, so that what slows the whole is seen. */
function sayLongest(took) {
  const long = took.filter(([, ms]) => ms > 2000).sort((a, b) => b[1] - a[1]);
  for (const [name, ms] of long.slice(0, 8))
    console.log(`  ${(ms / 1000).toFixed(1).padStart(6)} s  ${name}`);
}
const vitestCounts = (r) => {
  sayLongest(
    r.testResults.map((f) => [relative(root, f.name), sum(f.assertionResults.map((t) => t.duration ?? 0))]),
  );
  for (const file of r.testResults) {
    if (file.status !== 'failed') continue;
    if (file.assertionResults.length === 0) sayWhy(relative(root, file.name), 'as a whole', file.message);
    for (const test of file.assertionResults)
      if (test.status === 'failed')
        sayWhy(relative(root, file.name), test.fullName, test.failureMessages.join('\n'));
  }
  return {
    good: r.numPassedTests,
    // A file that could not be loaded fails without a failed test.
    bad:
      r.numFailedTests +
      r.testResults.filter((f) => f.status === 'failed' && f.assertionResults.length === 0).length,
  };
};
const playwrightCounts = ({ stats, errors, suites }) => {
  const specsOf = (suite) => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specsOf)];
  const took = ({ tests }) => sum(tests.flatMap((t) => t.results).map((r) => r.duration));
  const specs = suites.flatMap(specsOf);
  sayLongest(specs.map((spec) => [spec.title, took(spec)]));
  for (const spec of specs)
    for (const { status, errors: faults, attachments } of spec.tests.flatMap((test) => test.results)) {
      if (status === 'passed' || status === 'skipped') continue;
      sayWhy(spec.file, spec.title, faults.map((fault) => fault.message ?? '').join('\n'));
      const seen = attachments.find(({ name, path }) => name === 'error-context' && path);
      if (seen) sayPage(seen.path);
    }
  for (const error of errors) sayWhy('e2e', 'as a whole', error.message ?? String(error));
  return { good: stats.expected, bad: stats.unexpected + stats.flaky + errors.length };
};

/** A database server of this run's own, with the templates that tests copy theirs from. */
async function openDatabase() {
  const bin = await step('PostgreSQL', ensurePostgres);
  const cluster = await step('Throwaway database on 127.0.0.1', () => openThrowaway(bin));
  let stopping = null;
  const stop = () => (stopping ??= cluster.stop());
  for (const signal of ['SIGINT', 'SIGTERM'])
    process.on(signal, () => void stop().then(() => process.exit(130)));
  try {
    await step('Interface and server', ensureBuilt);
    const templates = await makeTemplates(cluster);
    return { env: { KAURI_TEST_DATABASE: cluster.url('postgres'), ...templates }, stop };
  } catch (error) {
    await stop();
    throw error;
  }
}

async function main() {
  await step('Packages', ensurePackages);
  const needsDatabase = ['server', 'e2e', 'start'].some(isWanted);
  // The database is got ready while what asks for none begins.
  const opening = needsDatabase ? openDatabase() : Promise.resolve(null);
  opening.catch(() => undefined);
  let database = null;
  const env = () => database.env;
  const unit = (project) => suite(project, ...vitest(project, '--maxWorkers=1'), () => ({}), vitestCounts);
  try {
    // Two lanes for two cores, about as long as each other; the browser tests take both.
    await Promise.all([
      (async () => {
        database = await opening;
        await suite('server', ...vitest('server'), env, vitestCounts);
        await suite('start', ...vitest('start'), () => ({}), vitestCounts);
        await check('circles', 'npm', ['run', '--silent', 'circles']);
        await check('unused', 'npx', ['knip']);
      })(),
      (async () => {
        await check('format', 'npx', ['prettier', '--check', '.']);
        await check('lint', 'npx', ['eslint', '.']);
        await check('types', 'npm', ['run', '--silent', 'types']);
        await unit('core');
        await unit('web');
      })(),
    ]);
    if (isWanted('e2e')) {
      const chromium = await step('Chromium', ensureChromium);
      const browser = (report) => ({
        ...env(),
        KAURI_CHROMIUM: chromium,
        PLAYWRIGHT_JSON_OUTPUT_NAME: report,
      });
      const args = () => ['playwright', 'test', '-c', 'e2e', ...(grep ? ['-g', grep] : [])];
      await suite('e2e', args, browser, playwrightCounts);
    }
  } finally {
    await (await opening.catch(() => null))?.stop();
  }
  if (failed > 0) process.exitCode = 1;
}

main()
  .catch((error) => {
    failed++;
    fail(error);
  })
  .finally(() => {
    for (const one of why) console.log(`\n${one}`);
    console.log(`\n${passed} passed, ${failed} failed`);
  });
