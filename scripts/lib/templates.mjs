import { step } from './steps.mjs';

/** The day tests and pictures stand on: late autumn in the demo. */
const TEST_DAY = '2026-11-24';

/**
 * Makes two databases that tests copy theirs from: an empty Kauri and one with the demo as on the day tests stand on. A
 * copy takes a moment where loading takes seconds.
 * @returns their names, as the tests' environment
 */
export async function makeTemplates(cluster) {
  const { default: pg } = await import('pg');
  const { startServer } = await import('../../server/dist/start.js');
  const admin = new pg.Client({ connectionString: cluster.url('postgres') });
  await admin.connect();
  try {
    for (const [name, demo] of Object.entries({ kauri_template_empty: false, kauri_template_demo: true })) {
      await admin.query(`create database ${name}`);
      await step(demo ? 'Template with the demo' : 'Empty template', async () => {
        const options = { databaseUrl: cluster.url(name), port: 0, demo, today: TEST_DAY, logLevel: 'error' };
        await (await startServer(options)).stop();
      });
    }
  } finally {
    await admin.end();
  }
  return { KAURI_TEST_EMPTY: 'kauri_template_empty', KAURI_TEST_DEMO: 'kauri_template_demo' };
}
