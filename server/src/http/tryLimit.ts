import { say } from '@kauri/core';
import { SignIn } from '@kauri/core/contract';
import { ipKeyGenerator, rateLimit, type Store } from 'express-rate-limit';
import type { Express, Request } from 'express';
import type pg from 'pg';
import { Refusal } from './problems';
import { tokenHashOf } from './sessions';

const WINDOW_MS = 15 * 60_000;
/** Wrong passwords for one account, wherever they come from. */
const MOST_FOR_ACCOUNT = 10;
/** Wrong passwords from one network address, whatever the account: a whole crew may share one. */
const MOST_FROM_ADDRESS = 100;

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

function tryLimit(pool: pg.Pool, most: number, keyOf: (req: Request) => string) {
  return rateLimit({
    windowMs: WINDOW_MS,
    limit: most,
    store: databaseStore(pool),
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-7',
    legacyHeaders: false,
    keyGenerator: keyOf,
    handler: (_req, _res, next) =>
      next(new Refusal(429, 'too-many-tries', say`Too many tries. Wait a quarter of an hour and try again.`)),
  });
}

/** The account a sign-in is for, written as the contract reads it: blanks and capitals do not make another. */
function accountOf(req: Request): string {
  const read = SignIn.shape.email.safeParse((req.body as { email?: unknown } | undefined)?.email);
  return read.success ? read.data : 'none';
}

/** At most so many failed tries at a password or code in a quarter of an hour, by account and by network address. */
export function limitTries(app: Express, pool: pg.Pool): void {
  const byAddress = tryLimit(pool, MOST_FROM_ADDRESS, (req) => `address ${ipKeyGenerator(req.ip ?? '')}`);
  const byAccount = tryLimit(pool, MOST_FOR_ACCOUNT, (req) => `account ${accountOf(req)}`);
  const bySession = tryLimit(pool, MOST_FOR_ACCOUNT, (req) => `session ${tokenHashOf(req) ?? 'none'}`);
  app.post('/api/sign-in', byAddress, byAccount);
  app.post(['/api/account/password', '/api/account/second-factor/*step'], bySession);
  app.post(['/api/invites/*step', '/api/password-links/*step'], byAddress);
}
