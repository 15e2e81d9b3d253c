import { existsSync } from 'node:fs';
import { setImmediate as nextTurn } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import type { SeasonProgress } from '@kauri/core';
import type { SeasonResult } from '@kauri/core/contract';
import { and, eq, sql } from 'drizzle-orm';
import { makeWorkerUtils, type Logger as QueueLogger } from 'graphile-worker';
import { lastingRunner } from './lastingRunner';
import type pg from 'pg';
import type { Logger } from 'pino';
import { nursery, seasonProposal } from '../db/schema/index';
import { inNursery } from '../db/tenant';
import { NOBODY } from './refreshToday';
import { ROOM_TO_WORK } from './roomToWork';
import { planSeason, type SeasonJob } from './seasonWork';

/** Seasons being planned: rows of a queue, worked out one at a time in a thread of its own. */
export interface Seasons {
  /** Takes up what waits, and what whoever worked on it left. */
  take: () => Promise<void>;
  stop: () => Promise<void>;
}

interface Setting {
  queuePool: pg.Pool;
  logger: QueueLogger;
  databaseUrl: string;
  pool: pg.Pool;
  log: Logger;
  today: (timeZone: string) => string;
}

/** How often how far it is is written down, and looked at whether it is still wanted, ms. */
const LOOK_MS = 400;
/** Not touched for so long, whoever worked on it is gone, s. */
const GONE_S = 20;

interface Key {
  nurseryId: string;
  id: string;
}

/** Starts taking seasons to be planned. */
export async function startSeasons({
  queuePool,
  logger,
  databaseUrl,
  pool,
  log,
  today,
}: Setting): Promise<Seasons> {
  const utils = await makeWorkerUtils({ pgPool: queuePool, logger });
  const take = async () => {
    const { rows } = await queuePool.query<{ nursery_id: string; id: string }>(
      `select nursery_id, id from season_proposal where state = 'working'
       and (touched_at is null or touched_at < now() - make_interval(secs => $1))`,
      [GONE_S],
    );
    for (const { nursery_id: nurseryId, id } of rows)
      await utils.addJob('season', { nurseryId, id }, { jobKey: `season ${id}`, maxAttempts: 1 });
  };
  let stopped = false;
  /** Ends what is under way; what it had reached stands, and is taken up again by whoever starts next. */
  let leave: (() => void) | null = null;
  const work = async (key: Key) => {
    const as = { nurseryId: key.nurseryId, personId: NOBODY };
    const at = and(
      eq(seasonProposal.nurseryId, key.nurseryId),
      eq(seasonProposal.id, key.id),
      eq(seasonProposal.state, 'working'),
    );
    type Change = Partial<typeof seasonProposal.$inferInsert>;
    /** @returns whether it is still wanted */
    const write = (change: Change) =>
      inNursery(pool, as, async (tx) => {
        const rows = await tx
          .update(seasonProposal)
          .set({ touchedAt: sql`now()`, ...change })
          .where(at)
          .returning({ id: seasonProposal.id });
        return rows.length > 0;
      });
    const asked = await inNursery(pool, as, async (tx) => {
      const [row] = await tx.select().from(seasonProposal).where(at);
      const [home] = await tx.select().from(nursery).where(eq(nursery.id, key.nurseryId));
      return row && { asked: row.asked, today: today(home.timeZone) };
    });
    if (!asked || !(await write({ step: 'weeks', share: 0, madeOn: asked.today }))) return;
    let reached: Change = {};
    const running = runApart(
      databaseUrl,
      pool,
      { nurseryId: key.nurseryId, ...asked },
      ({ step, share, result }) => {
        reached = { ...reached, step, share, ...(result && { result }) };
      },
    );
    leave = running.leave;
    const looking = setInterval(() => {
      const change = reached;
      reached = {};
      write(change).then(
        (wanted) => !wanted && running.leave(),
        (err: unknown) => {
          // Written with the next look.
          reached = { ...change, ...reached };
          log.error({ err }, 'how far a season is was not kept');
        },
      );
    }, LOOK_MS);
    try {
      const result = await running.result;
      clearInterval(looking);
      if (result) await write({ state: 'done', step: 'done', share: 1, result });
      else if (stopped) await write({ ...reached, touchedAt: null });
    } catch (err) {
      clearInterval(looking);
      log.error({ err, ...key }, 'a season was not planned');
      await write({
        ...reached,
        state: 'failed',
        fault:
          'Planning failed; nothing of your nursery was changed. Try again, or ask whoever looks after Kauri.',
      });
    } finally {
      clearInterval(looking);
      leave = null;
    }
  };
  const runner = await lastingRunner(
    {
      pgPool: queuePool,
      logger,
      concurrency: 1,
      noHandleSignals: true,
      pollInterval: 2000,
      regular: [{ task: 'seasons', everyMinutes: 1 }],
      taskList: { season: (payload) => work(payload as Key), seasons: take },
    },
    log,
  );
  await take();
  return {
    take,
    async stop() {
      stopped = true;
      leave?.();
      await runner.stop();
      await utils.release();
    },
  };
}

/** A season planned in a thread of its own; in this one where Kauri runs from its sources, which have none built. */
function runApart(
  databaseUrl: string,
  pool: pg.Pool,
  job: SeasonJob,
  told: (progress: SeasonProgress) => void,
) {
  const file = ['./jobs/seasonThread.js', './seasonThread.js']
    .map((path) => fileURLToPath(new URL(path, import.meta.url)))
    .find(existsSync);
  let left = false;
  if (file === undefined) {
    const result = planSeason(pool, job, async (progress) => {
      told(progress);
      await nextTurn();
      if (left) throw new Left();
    }).catch((error: unknown) => {
      if (error instanceof Left) return null;
      throw error;
    });
    return { result, leave: () => void (left = true) };
  }
  const worker = new Worker(file, { workerData: { databaseUrl, job }, resourceLimits: ROOM_TO_WORK });
  const result = new Promise<SeasonResult | null>((done, failed) => {
    worker.on('message', (said: { progress?: SeasonProgress; result?: SeasonResult; fault?: string }) => {
      if (said.progress) told(said.progress);
      else if (said.result) done(said.result);
      else failed(new Error(said.fault));
    });
    worker.on('error', failed);
    worker.on('exit', () => done(null));
  });
  return { result, leave: () => void worker.terminate() };
}

class Left extends Error {}
