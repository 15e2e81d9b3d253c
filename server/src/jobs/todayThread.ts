import { parentPort, workerData } from 'node:worker_threads';
import { openPool } from '../db/tenant';
import { refreshToday, type TodayJob } from './refreshToday';

/*
 * A thread that works out Todays, one after another, over a connection of its own: neither reading a nursery nor
 * forecasting it holds up the thread that answers.
 */
const { databaseUrl } = workerData as { databaseUrl: string };
const pool = openPool(databaseUrl, 1);

parentPort!.on('message', ({ id, job }: { id: number; job: TodayJob }) => {
  refreshToday(
    {
      pool,
      failed: (nurseryId, lotId, error) =>
        parentPort!.postMessage({
          log: { nurseryId, lotId, stack: error instanceof Error ? error.stack : String(error) },
        }),
    },
    job,
  ).then(
    () => parentPort!.postMessage({ id }),
    (error: Error) => parentPort!.postMessage({ id, fault: error.stack ?? error.message }),
  );
});
