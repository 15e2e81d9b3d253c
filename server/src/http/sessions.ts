import { createHash, randomBytes } from 'node:crypto';
import type { CookieOptions, Request, Response } from 'express';
import type pg from 'pg';

/** What a browser is kept as: at a desk a session ends with a working day, on the yard's own device it lasts. */
export type DeviceKind = 'desk' | 'yard';
/** How long a session lasts after it was last used, hours. */
const IDLE_HOURS = { desk: 12, yard: 30 * 24 } satisfies Record<DeviceKind, number>;
/** No session outlives this, used or not, days. */
const MOST_DAYS = 180;
/** A session in use is written down at most this often, minutes. */
const SEEN_EVERY_MIN = 15;
/** A page that asks by itself, with nobody at it, says so by this header, and keeps no session awake. */
const NOBODY_THERE = 'x-kauri-idle';

export interface Person {
  id: string;
  name: string;
  email: string;
}

/** The digest by which the database knows a secret; whoever reads the database can use none. */
export function digestOf(secret: string): string {
  return createHash('sha256').update(secret).digest('base64url');
}

/** Over TLS the name itself binds the cookie to this host and to TLS. */
const cookieName = (req: Request) => (req.secure ? '__Host-kauri_session' : 'kauri_session');

function tokenIn(req: Request): string | null {
  const wanted = cookieName(req);
  for (const part of (req.headers.cookie ?? '').split(';')) {
    const [name, value] = part.trim().split('=');
    if (name === wanted && value) return value;
  }
  return null;
}

/** Lax would do for reading; Strict costs nothing here, as no other site links into a nursery. */
function cookieFor(req: Request): CookieOptions {
  return { httpOnly: true, sameSite: 'strict', path: '/', secure: req.secure };
}

/** What the database knows the session of a request by; null where the request has none. */
export function tokenHashOf(req: Request): string | null {
  const token = tokenIn(req);
  return token === null ? null : digestOf(token);
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

/** When each session was last written down as used, so that most requests write nothing. A server keeps its own. */
const written = new Map<string, number>();
const MOST_REMEMBERED = 10_000;

/** A request of somebody at the page puts the end of their session off; one the page made by itself does not. */
export function keepAwake(pool: pg.Pool, req: Request, tokenHash: string): void {
  if (req.headers[NOBODY_THERE] !== undefined) return;
  const now = Date.now();
  if (now - (written.get(tokenHash) ?? 0) < SEEN_EVERY_MIN * 60_000) return;
  if (written.size >= MOST_REMEMBERED) written.clear();
  written.set(tokenHash, now);
  pool
    .query(
      `update session set seen_at = now(),
         expires_at = least(created_at + make_interval(days => $2), now() + make_interval(hours => case device when 'yard' then $4::int else $3::int end))
       where token_hash = $1 and expires_at > now() and seen_at < now() - make_interval(mins => 1)`,
      [tokenHash, MOST_DAYS, IDLE_HOURS.desk, IDLE_HOURS.yard],
    )
    .catch(() => written.delete(tokenHash));
}

/** Starts a session and gives the browser its cookie. What has run out is cleared away on the way. */
export async function startSession(
  pool: pg.Pool,
  { req, res }: { req: Request; res: Response },
  personId: string,
  device: DeviceKind = 'desk',
): Promise<void> {
  const token = randomBytes(32).toString('base64url');
  await pool.query('delete from session where expires_at < now()');
  await pool.query('delete from sign_in_try where resets_at < now()');
  const agent = (req.headers['user-agent'] ?? '').slice(0, 300);
  await pool.query(
    'insert into session (token_hash, person_id, expires_at, agent, device) values ($1, $2, now() + make_interval(hours => $3), $4, $5)',
    [digestOf(token), personId, IDLE_HOURS[device], agent, device],
  );
  // At a desk the cookie goes with the browser's window; the yard's device keeps it through a restart.
  const lasts = device === 'yard' ? { maxAge: MOST_DAYS * 86_400_000 } : {};
  res.cookie(cookieName(req), token, { ...cookieFor(req), ...lasts });
}

/** Ends the session of this browser, and takes its cookie. */
export async function endSession(
  pool: pg.Pool,
  { req, res }: { req: Request; res: Response },
): Promise<void> {
  const tokenHash = tokenHashOf(req);
  if (tokenHash) await pool.query('delete from session where token_hash = $1', [tokenHash]);
  res.clearCookie(cookieName(req), cookieFor(req));
}

/** Ends the sessions of a person: all, or all but the one that asks. */
export async function endSessionsOf(
  db: Pick<pg.Pool, 'query'>,
  personId: string,
  but: string | null = null,
): Promise<void> {
  await db.query('delete from session where person_id = $1 and token_hash is distinct from $2', [
    personId,
    but,
  ]);
}
