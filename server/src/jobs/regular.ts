import type pg from 'pg';
import type { Logger } from 'pino';

const MINUTE_MS = 60_000;
const DAY_MS = 1440 * MINUTE_MS;

/** Work that comes round: every so often, counted from midnight UTC and so many minutes after. */
export interface Regular {
  task: string;
  everyMinutes: number;
  /** Minutes after its round begins; 0 where it is done at once. */
  afterMinutes?: number;
}

/** When the round that is under way began. */
export function roundAt({ everyMinutes, afterMinutes = 0 }: Omit<Regular, 'task'>, nowMs: number): Date {
  const every = everyMinutes * MINUTE_MS;
  const after = afterMinutes * MINUTE_MS;
  const midnight = Math.floor(nowMs / DAY_MS) * DAY_MS;
  return new Date(midnight + Math.floor((nowMs - midnight - after) / every) * every + after);
}

/** Takes a round for this server, if no other on the database has it, and puts the work into the queue. */
const TAKE = `
  with round as (
    insert into graphile_worker._private_known_crontabs as known (identifier, known_since, last_execution)
    values ($1, $2, $2)
    on conflict (identifier) do update set last_execution = excluded.last_execution
      where known.last_execution is null or known.last_execution < excluded.last_execution
    returning xmax <> 0 as is_known
  )
  select graphile_worker.add_job($1::text, json_build_object(), job_key := $1::text) from round where is_known or $3`;

/**
 * Puts regular work into the queue, once for all servers on a database. A round that nobody could take, the database being
 * away or its disk full, is taken as soon as it can be; a whole day's round is first done when the next one begins.
 * (The queue's own clock ends its process where it cannot write.)
 * @returns stops it
 */
export function startRegular(
  pool: pg.Pool,
  regular: readonly Regular[],
  log: Pick<Logger, 'error'>,
  lookMs = 10_000,
): () => void {
  const taken = new Map<string, number>();
  let looking = false;
  async function look(): Promise<void> {
    if (looking) return;
    looking = true;
    try {
      for (const one of regular) {
        const round = roundAt(one, Date.now());
        if (taken.get(one.task) === round.getTime()) continue;
        await pool.query(TAKE, [one.task, round, one.everyMinutes < 1440]);
        taken.set(one.task, round.getTime());
      }
    } catch (err) {
      log.error({ err }, 'regular work was not asked for; it is asked again');
    } finally {
      looking = false;
    }
  }
  const timer = setInterval(() => void look(), lookMs);
  timer.unref();
  void look();
  return () => clearInterval(timer);
}
