import { once } from 'node:events';
import { existsSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import type { Act } from '@kauri/core';
import { actsOfLots, type ForecastWork } from './forecastWork';

/** Fewer lots than this are not worth a thread. */
const A_FEW = 40;
const MOST_THREADS = 4;
/** The built server has its thread beside it; run from its sources, it works in its own. */
const thread = ['./jobs/forecastThread.js', './forecastThread.js']
  .map((path) => fileURLToPath(new URL(path, import.meta.url)))
  .find(existsSync);

/** Forecasts lots off the thread that answers, as many side by side as the machine has room for. */
export async function forecastActs(work: ForecastWork): Promise<Act[][]> {
  if (thread === undefined || work.lots.length < A_FEW) return actsOfLots(work);
  const threads = Math.min(MOST_THREADS, availableParallelism(), Math.ceil(work.lots.length / A_FEW));
  const size = Math.ceil(work.lots.length / threads);
  const parts = Array.from({ length: threads }, (_, i) => work.lots.slice(i * size, (i + 1) * size));
  const done = await Promise.all(parts.map((lots) => inThread({ ...work, lots }, thread)));
  return done.flat();
}

async function inThread(workerData: ForecastWork, file: string): Promise<Act[][]> {
  const worker = new Worker(file, { workerData });
  const [acts] = (await once(worker, 'message')) as [Act[][]];
  await worker.terminate();
  return acts;
}
