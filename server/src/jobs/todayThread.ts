import { parentPort } from 'node:worker_threads';
import type pg from 'pg';
import { openPool } from '../db/tenant';
import { refreshToday, type TodayJob } from './refreshToday';

/** What the thread is told: a job of a database, or that a database is worked on no more. */
export type Told = { id: number; databaseUrl: string; job: TodayJob | null };
/** What it answers: that a job is done, or its fault; and a lot's failure as it happens. */
export type Said = { id: number; fault?: string } | { databaseUrl: string; log: object };

/*
 * A thread that works out Todays, one after another, over a connection of its own to each database: neither reading a
 * nursery nor forecasting it holds up the thread that answers.
 */
const say = (said: Said): void => parentPort!.postMessage(said);
const pools = new Map<string, pg.Pool>();

function poolOf(databaseUrl: string): pg.Pool {
  const open = pools.get(databaseUrl) ?? openPool(databaseUrl, { max: 1 });
  pools.set(databaseUrl, open);
  return open;
}

async function leave(databaseUrl: string): Promise<void> {
  const pool = pools.get(databaseUrl);
  pools.delete(databaseUrl);
  await pool?.end();
}

parentPort!.on('message', ({ id, databaseUrl, job }: Told) => {
  const failed = (nurseryId: string, lotId: string, error: unknown) => {
    const stack = error instanceof Error ? error.stack : String(error);
    say({ databaseUrl, log: { nurseryId, lotId, stack } });
  };
  const done = job ? refreshToday({ pool: poolOf(databaseUrl), failed }, job) : leave(databaseUrl);
  done.then(
    () => say({ id }),
    (error: Error) => say({ id, fault: error.stack ?? error.message }),
  );
});
