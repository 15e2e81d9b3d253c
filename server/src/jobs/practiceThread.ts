import { parentPort, workerData } from 'node:worker_threads';
import { openPool } from '../db/tenant';
import { loadPractice } from '../demo/load';
import { practiceServer, type PracticeJob } from './practice';

/* A thread that makes one nursery to practise in, and ends. */
const { databaseUrl, job } = workerData as { databaseUrl: string; job: PracticeJob };
const pool = openPool(databaseUrl, { max: 1 });

loadPractice(practiceServer(pool, job), job)
  .then(
    (made) => parentPort!.postMessage({ made }),
    (error: Error) => parentPort!.postMessage({ fault: error.stack ?? error.message }),
  )
  .finally(() => pool.end());
