import { setTimeout } from 'node:timers/promises';
import { step } from './steps.mjs';

/** The day tests and pictures stand on: late autumn in the demo. */
const TEST_DAY = '2026-11-24';

/** Asks for Today of every nursery, and waits until each has it. */
async function workOutToday(url, pg) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    await client.query(
      `select graphile_worker.add_job('today', json_build_object('nurseryId', id), queue_name := 'today ' || id) from nursery`,
    );
    const left = () =>
      client.query(
        'select 1 from nursery n where not exists (select 1 from nursery_today t where t.nursery_id = n.id)',
      );
    while ((await left()).rowCount > 0) await setTimeout(200);
  } finally {
    await client.end();
  }
}

/**
 * Makes two databases that tests copy theirs from: an empty Kauri and one with the demo as on the day tests stand on, its
 * Today worked out as if before dawn. A copy takes a moment where loading takes seconds.
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
        const server = await startServer(options);
        await workOutToday(cluster.url(name), pg);
        await server.stop();
      });
    }
  } finally {
    await admin.end();
  }
  return { KAURI_TEST_EMPTY: 'kauri_template_empty', KAURI_TEST_DEMO: 'kauri_template_demo' };
}
