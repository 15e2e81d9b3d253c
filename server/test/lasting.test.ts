import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startServer } from '../src/start';
import { openTestServer, setUpLots, TODAY, type TestServer } from './harness';

let server: TestServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
beforeAll(async () => {
  server = await openTestServer();
  yard = await setUpLots(server);
  await yard.owner.today(yard.nursery);
});
afterAll(() => server.close());

const count = (counted: number) =>
  yard.owner.ok('countEmergence', {
    params: yard.inBed,
    body: { id: crypto.randomUUID().replace(/^(.{14})./, '$17'), on: TODAY, counted, cause: 'died' },
  });

describe('Today', () => {
  it('is worked out again after the database dropped every connection', async () => {
    await server.owner.query(
      'select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()',
    );
    await expect.poll(async () => (await yard.owner.send('health')).status, { timeout: 30_000 }).toBe(200);
    await count(70);
    await yard.owner.today(yard.nursery);
  });
  it('is not held by a server that was killed while it worked on it', async () => {
    const queue = `today ${yard.nurseryId}`;
    await server.owner.query(
      `insert into graphile_worker._private_job_queues (queue_name, locked_at, locked_by)
       values ($1, now() - interval '1 minute', 'worker-that-is-gone')
       on conflict (queue_name) do update set locked_at = excluded.locked_at, locked_by = excluded.locked_by`,
      [queue],
    );
    await count(60);
    // The next server that starts gives back what nobody alive holds; those that run look by themselves now and then.
    const second = await startServer({
      databaseUrl: server.databaseUrl,
      port: 0,
      today: TODAY,
      logLevel: 'silent',
    });
    try {
      await yard.owner.today(yard.nursery);
    } finally {
      await second.stop();
    }
  });
});
