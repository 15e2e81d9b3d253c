import { Logger as QueueLogger, makeWorkerUtils } from 'graphile-worker';
import { eq } from 'drizzle-orm';
import type pg from 'pg';
import type { Logger } from 'pino';
import { nursery } from '../db/schema/index';
import { inNursery, openPool } from '../db/tenant';
import { nightlyCopy } from '../backup/nightly';
import { lastingRunner } from './lastingRunner';
import { dueAt } from './pace';
import { practiceMaker, type StandIns } from './practice';
import { NOBODY, refreshToday, type JobTools, type TodayJob } from './refreshToday';
import { startSeasons } from './seasons';
import { openThread } from './thread';

/** Local hour by which a nursery's Today of the new day is worked out, before anyone asks. */
const DAWN_HOUR = 3;

/** Long work, kept as rows in PostgreSQL and done by whichever server is free. */
export interface Jobs {
  /** Has Today of a nursery worked out anew, soon and off the thread that answers. */
  askToday: (nurseryId: string) => void;
  /** Has seasons that wait to be planned taken up. */
  askSeason: () => void;
  /** Has a nursery that somebody asked to practise in made. */
  askPractice: (personId: string) => void;
  /** Ends once what is under way is done. */
  stop: () => Promise<void>;
}

interface Setting {
  /** The owner's connection: the queue's tables are none of a nursery's. */
  ownerUrl: string;
  /** What the server works as, which row-level security binds. */
  databaseUrl: string;
  pool: pg.Pool;
  log: Logger;
  today: (timeZone: string) => string;
  /** Where instruments answer that a nursery to practise in has. */
  standIns: StandIns;
  /** A folder for nightly copies, and where PostgreSQL's programs are; null where none are wanted. */
  copies: { folder: string; bin: string | null } | null;
}

/** Starts taking jobs. */
export async function startJobs({
  ownerUrl,
  databaseUrl,
  pool,
  log,
  today,
  standIns,
  copies,
}: Setting): Promise<Jobs> {
  const queuePool = openPool(ownerUrl, { max: 8 });
  const logger = new QueueLogger(() => (level, message) => {
    if (level === 'error') log.error({ queue: message });
  });
  const failed: JobTools['failed'] = (nurseryId, lotId, err) =>
    log.error({ nurseryId, lotId, err }, 'a lot’s forecast failed');
  const thread = openThread(databaseUrl, log) ?? {
    work: (job: TodayJob) => refreshToday({ pool, failed }, job),
    close: () => Promise.resolve(),
  };
  const practices = practiceMaker({ ownerPool: queuePool, databaseUrl, pool, today, standIns });
  /** By nursery: before this it is not worked out again. */
  const restUntil = new Map<string, number>();
  const utils = await makeWorkerUtils({ pgPool: queuePool, logger });
  const add = (nurseryId: string) =>
    utils.addJob(
      'today',
      { nurseryId },
      { jobKey: `today ${nurseryId}`, queueName: `today ${nurseryId}`, maxAttempts: 3 },
    );
  const runner = await lastingRunner(
    {
      pgPool: queuePool,
      logger,
      concurrency: 2,
      noHandleSignals: true,
      pollInterval: 2000,
      regular: [
        { task: 'dawn', everyMinutes: 60 },
        ...(copies ? [{ task: 'copy', everyMinutes: 1440, afterMinutes: 90 }] : []),
      ],
      taskList: {
        today: async (payload) => {
          const { nurseryId } = payload as { nurseryId: string };
          const [home] = await inNursery(pool, { nurseryId, personId: NOBODY }, (tx) =>
            tx.select().from(nursery).where(eq(nursery.id, nurseryId)),
          );
          if (!home) return;
          const begun = Date.now();
          await thread.work({ nurseryId, today: today(home.timeZone) });
          restUntil.set(nurseryId, 2 * Date.now() - begun);
        },
        practice: async (payload) => {
          const { personId } = payload as { personId: string };
          const made = await practices.make(personId);
          if (made !== null) await add(made);
        },
        copy: async () => {
          if (!copies) return;
          const { dropped, ...copied } = await nightlyCopy(ownerUrl, copies.folder, today('UTC'), copies.bin);
          log.info({ copied, dropped: dropped.length }, 'nightly copy made');
        },
        dawn: async () => {
          const { rows } = await queuePool.query<{ id: string; time_zone: string }>(
            'select id, time_zone from nursery',
          );
          const hour = (timeZone: string) =>
            Number(new Intl.DateTimeFormat('en-GB', { hour: '2-digit', timeZone }).format(new Date()));
          for (const { id, time_zone } of rows) if (hour(time_zone) === DAWN_HOUR) await add(id);
        },
      },
    },
    log,
  );
  const seasons = await startSeasons({ queuePool, logger, databaseUrl, pool, log, today });
  const waiting = new Map<string, { firstAt: number; timer: NodeJS.Timeout }>();
  let stopped = false;
  return {
    askToday(nurseryId) {
      if (stopped) return;
      const before = waiting.get(nurseryId);
      clearTimeout(before?.timer);
      const lastAt = Date.now();
      const firstAt = before?.firstAt ?? lastAt;
      const due = dueAt({ firstAt, lastAt, restUntil: restUntil.get(nurseryId) ?? 0 });
      const timer = setTimeout(
        () => {
          waiting.delete(nurseryId);
          if (!stopped) add(nurseryId).catch((err: unknown) => log.error({ err }, 'Today was not asked for'));
        },
        Math.max(0, due - lastAt),
      );
      timer.unref();
      waiting.set(nurseryId, { firstAt, timer });
    },
    askSeason() {
      if (!stopped) seasons.take().catch((err: unknown) => log.error({ err }, 'a season was not asked for'));
    },
    askPractice(personId) {
      if (stopped) return;
      utils
        .addJob(
          'practice',
          { personId },
          { jobKey: `practice ${personId}`, queueName: 'practice', maxAttempts: 2 },
        )
        .catch((err: unknown) => log.error({ err }, 'a nursery to practise in was not asked for'));
    },
    async stop() {
      stopped = true;
      practices.stop();
      await seasons.stop();
      for (const { timer } of waiting.values()) clearTimeout(timer);
      await runner.stop();
      await utils.release();
      await thread.close();
      await queuePool.end();
    },
  };
}
