import { createHash, randomBytes } from 'node:crypto';
import type { CookieOptions, Request } from 'express';
import type pg from 'pg';

const COOKIE = 'kauri_session';
const DAYS = 30;

export interface Person {
  id: string;
  name: string;
  email: string;
}

function hashOf(token: string): string {
  return createHash('sha256').update(token).digest('base64url');
}

function tokenIn(req: Request): string | null {
  for (const part of (req.headers.cookie ?? '').split(';')) {
    const [name, value] = part.trim().split('=');
    if (name === COOKIE && value) return value;
  }
  return null;
}

/** Lax would do for reading; Strict costs nothing here, as no other site links into a nursery. */
export function cookieFor(req: Request): CookieOptions {
  return { httpOnly: true, sameSite: 'strict', path: '/', secure: req.secure };
}

/** What the database knows the session of a request by; null where the request has none. */
export function tokenHashOf(req: Request): string | null {
  const token = tokenIn(req);
  return token === null ? null : hashOf(token);
}

/** Who is signed in on this request, by the session kept in the database; null if nobody (any more). */
export async function personOf(pool: pg.Pool, req: Request): Promise<Person | null> {
  const tokenHash = tokenHashOf(req);
  if (tokenHash === null) return null;
  const { rows } = await pool.query<Person>({
    name: 'person-of-session',
    text: 'select p.id, p.name, p.email from session s join person p on p.id = s.person_id where s.token_hash = $1 and s.expires_at > now()',
    values: [tokenHash],
  });
  return rows[0] ?? null;
}

export const sessionCookie = COOKIE;

/** Starts a session and returns the token for the cookie. What has run out is cleared away on the way. */
export async function startSession(pool: pg.Pool, personId: string): Promise<string> {
  const token = randomBytes(32).toString('base64url');
  await pool.query('delete from session where expires_at < now()');
  await pool.query('delete from sign_in_try where resets_at < now()');
  await pool.query(
    `insert into session (token_hash, person_id, expires_at) values ($1, $2, now() + make_interval(days => ${DAYS}))`,
    [hashOf(token), personId],
  );
  return token;
}

export async function endSession(pool: pg.Pool, req: Request): Promise<void> {
  const token = tokenIn(req);
  if (token) await pool.query('delete from session where token_hash = $1', [hashOf(token)]);
}

export async function endAllSessions(pool: pg.Pool, personId: string): Promise<void> {
  await pool.query('delete from session where person_id = $1', [personId]);
}
