import { EventEmitter } from 'node:events';
import { setTimeout as pause } from 'node:timers/promises';
import {
  runTaskList,
  type RunnerOptions,
  type TaskList,
  type WorkerEvents,
  type WorkerPool,
} from 'graphile-worker';
import type pg from 'pg';
import type { Logger } from 'pino';
import { startRegular, type Regular } from './regular';

/** First half of the key under which a worker holds a lock while it lives; the second is its id's digest. */
const ALIVE = 7_041_955;
/** How often it is looked for jobs that a dead worker holds, ms; and how long a job is held at least before it is asked, s. */
const LOOK_MS = 20_000;
const HELD_S = 5;
/** How long a queue that lost its database waits before it begins again, ms. */
const REST_MS = 1000;

type LastingOptions = Omit<RunnerOptions, 'taskList' | 'crontab'> & {
  pgPool: pg.Pool;
  taskList: TaskList;
  regular: readonly Regular[];
};

/**
 * Runs a queue that outlives its database: where a worker falls, or the connection that says it lives, all begin again.
 * A job that a server held when it was killed is given back within a minute, and not after the hours a queue waits by itself.
 * @returns stops it
 */
export async function lastingRunner(
  { taskList, regular, ...options }: LastingOptions,
  log: Pick<Logger, 'error' | 'info'>,
): Promise<{ stop: () => Promise<void> }> {
  const { pgPool } = options;
  let stopped = false;
  let wake: () => void = () => undefined;

  const begin = async (): Promise<{ runner: WorkerPool; alive: pg.PoolClient; fallen: Promise<void> }> => {
    const alive = await pgPool.connect();
    const events: WorkerEvents = new EventEmitter();
    const fallen = new Promise<void>((resolve) => {
      alive.once('error', () => resolve());
      alive.once('end', () => resolve());
      events.on('worker:fatalError', () => resolve());
      events.on('worker:stop', () => resolve());
      wake = resolve;
    });
    events.on('worker:create', ({ worker }) => {
      alive
        .query('select pg_advisory_lock($1, hashtext($2))', [ALIVE, worker.workerId])
        .catch((err: unknown) => log.error({ err }, 'a worker could not say that it lives'));
    });
    try {
      await giveBack(pgPool);
      const runner = runTaskList({ ...options, events }, taskList, pgPool);
      // How it ended is told by its workers.
      runner.promise.catch(() => undefined);
      return { runner, alive, fallen };
    } catch (error) {
      alive.release(true);
      throw error;
    }
  };

  let now = await begin();
  const endRegular = startRegular(pgPool, regular, log);
  const looking = setInterval(() => {
    giveBack(pgPool).catch((err: unknown) => log.error({ err }, 'jobs of dead workers were not looked for'));
  }, LOOK_MS);
  looking.unref();
  const lasting = (async () => {
    for (;;) {
      await now.fallen;
      await now.runner.gracefulShutdown().catch(() => undefined);
      now.alive.release(true);
      if (stopped) return;
      log.error({}, 'the queue lost its database or a worker; it begins again');
      for (;;) {
        await pause(REST_MS);
        if (stopped) return;
        try {
          now = await begin();
          break;
        } catch {
          // The database is not there yet: asked again after a rest.
        }
      }
    }
  })();
  return {
    async stop() {
      stopped = true;
      clearInterval(looking);
      endRegular();
      wake();
      await lasting;
    },
  };
}

/** Gives back what workers hold that hold no lock of their life any more. */
async function giveBack(pool: pg.Pool): Promise<void> {
  await pool.query(
    `with held as (
       select distinct locked_by from (
         select locked_by from graphile_worker._private_jobs where locked_at < now() - make_interval(secs => $2)
         union all
         select locked_by from graphile_worker._private_job_queues where locked_at < now() - make_interval(secs => $2)
       ) l where locked_by is not null
     ), dead as (
       select locked_by from held where not exists (
         select from pg_locks where locktype = 'advisory' and database = (select oid from pg_database where datname = current_database())
           and classid::bigint = $1 and objid::bigint = hashtext(locked_by)::bigint & 4294967295)
     )
     select graphile_worker.force_unlock_workers((select array_agg(locked_by) from dead)) where exists (select from dead)`,
    [ALIVE, HELD_S],
  );
}
