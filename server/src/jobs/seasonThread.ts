import { parentPort, workerData } from 'node:worker_threads';
import { openPool } from '../db/tenant';
import { planSeason, type SeasonJob } from './seasonWork';

/*
 * A thread that plans one season and ends. What it reaches is told as it goes, so that whoever stops it has the best so far.
 */
const { databaseUrl, job } = workerData as { databaseUrl: string; job: SeasonJob };
const pool = openPool(databaseUrl, { max: 1 });

planSeason(pool, job, (progress) => parentPort!.postMessage({ progress }))
  .then(
    (result) => parentPort!.postMessage({ result }),
    (error: Error) => parentPort!.postMessage({ fault: error.stack ?? error.message }),
  )
  .finally(() => pool.end());
