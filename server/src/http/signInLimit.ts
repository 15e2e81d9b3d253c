import { rateLimit, ipKeyGenerator, type Store } from 'express-rate-limit';
import type { Request, RequestHandler } from 'express';
import type pg from 'pg';
import { Refusal } from './problems';

const WINDOW_MS = 15 * 60_000;
const MOST_FAILURES = 10;

/** Counts tries in the database, so that all servers on it share the limit. */
function databaseStore(pool: pg.Pool): Store {
  return {
    async increment(key) {
      const { rows } = await pool.query<{ hits: number; resets_at: Date }>(
        `insert into sign_in_try as t (key, hits, resets_at) values ($1, 1, now() + $2 * interval '1 millisecond')
         on conflict (key) do update set
           hits = case when t.resets_at < now() then 1 else t.hits + 1 end,
           resets_at = case when t.resets_at < now() then excluded.resets_at else t.resets_at end
         returning hits, resets_at`,
        [key, WINDOW_MS],
      );
      return { totalHits: rows[0].hits, resetTime: rows[0].resets_at };
    },
    async decrement(key) {
      await pool.query('update sign_in_try set hits = greatest(0, hits - 1) where key = $1', [key]);
    },
    async resetKey(key) {
      await pool.query('delete from sign_in_try where key = $1', [key]);
    },
  };
}

/** At most ten failed sign-ins for one e-mail address from one network address in a quarter of an hour. */
export function signInLimit(pool: pg.Pool): RequestHandler {
  return rateLimit({
    windowMs: WINDOW_MS,
    limit: MOST_FAILURES,
    store: databaseStore(pool),
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-7',
    legacyHeaders: false,
    keyGenerator: (req: Request) =>
      `${ipKeyGenerator(req.ip ?? '')} ${String((req.body as { email?: unknown })?.email ?? '')
        .toLowerCase()
        .slice(0, 200)}`,
    handler: (_req, _res, next) =>
      next(new Refusal(429, 'too-many-tries', 'Too many tries. Wait a quarter of an hour and try again.')),
  }) as unknown as RequestHandler;
}
