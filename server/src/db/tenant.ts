import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import pg from 'pg';

/** Bigints that count trees fit a JavaScript number. */
pg.types.setTypeParser(pg.types.builtins.INT8, Number);
/** Plain dates stay text. */
pg.types.setTypeParser(pg.types.builtins.DATE, (text) => text);

/** A Drizzle handle inside one transaction, with the raw client beside it for streams and bulk work. */
export type Tx = NodePgDatabase & { $client: pg.PoolClient };

/** A statement that is prepared by name belongs to one connection, and a pooler lends another each time: names are left out. */
class Unnamed extends pg.Client {
  constructor(config?: pg.ClientConfig) {
    super(config);
    const query = this.query.bind(this) as (...args: unknown[]) => unknown;
    this.query = ((asked: unknown, ...rest: unknown[]) => {
      const isPlain = typeof asked === 'object' && Object.getPrototypeOf(asked) === Object.prototype;
      return query(isPlain ? { ...asked, name: undefined } : asked, ...rest);
    }) as unknown as pg.Client['query'];
  }
}

/** The way through a pooler, as who the server works as. */
export function throughPooler(workUrl: string, poolerUrl: string): string {
  const [url, work] = [new URL(poolerUrl), new URL(workUrl)];
  url.username = work.username;
  url.password = work.password;
  return url.toString();
}

/** How long a connection may take to be made, ms: a machine that is very busy is not a database that is gone. */
const CONNECT_MS = 10_000;

export function openPool(connectionString: string, { max = 20, isPooled = false } = {}): pg.Pool {
  const pool = new pg.Pool({
    connectionString,
    max,
    connectionTimeoutMillis: CONNECT_MS,
    ...(isPooled ? { Client: Unnamed } : {}),
  });
  // A dropped idle connection is replaced on the next query; it must not stop the server.
  pool.on('error', () => undefined);
  // One that is being closed when the database goes says so on itself.
  pool.on('connect', (client) => client.on('error', () => undefined));
  return pool;
}

export interface Member {
  nurseryId: string;
  personId: string;
}

/** Someone with a live session, and their role in the nursery asked for; null where they have none. */
export interface SignedIn {
  person: { id: string; name: string; email: string };
  role: string | null;
}

/**
 * Runs work in one transaction on behalf of a person in a nursery: row-level security shows and takes
 * that nursery's rows only. Commits when the work returns, rolls back when it throws.
 */
export async function inNursery<T>(pool: pg.Pool, member: Member, work: (tx: Tx) => Promise<T>): Promise<T> {
  const client = await pool.connect();
  const [nursery, person] = [client.escapeLiteral(member.nurseryId), client.escapeLiteral(member.personId)];
  const opening = `select set_config('kauri.nursery', ${nursery}, true), set_config('kauri.person', ${person}, true)`;
  return transact(client, opening, false, work);
}

/**
 * As {@link inNursery}, for whoever a session belongs to: who they are and what they may do is asked in the
 * same round trip that begins the transaction. One that only reads can write nothing, and its end is not
 * waited for; everything it reads is of one moment.
 * @param tokenHash of the session
 */
export async function inNurseryBySession<T>(
  pool: pg.Pool,
  { nurseryId, tokenHash, readOnly }: { nurseryId: string; tokenHash: string; readOnly: boolean },
  work: (tx: Tx, who: SignedIn | null) => Promise<T>,
): Promise<T> {
  const client = await pool.connect();
  const [nursery, token] = [client.escapeLiteral(nurseryId), client.escapeLiteral(tokenHash)];
  const opening =
    `select set_config('kauri.nursery', ${nursery}, true);` +
    `select p.id, p.name, p.email, set_config('kauri.person', p.id::text, true)
       from session s join person p on p.id = s.person_id where s.token_hash = ${token} and s.expires_at > now();` +
    `select role from membership where nursery_id = ${nursery} and person_id = current_person()`;
  return transact(client, opening, readOnly, (tx, [, people, memberships]) => {
    const person = people.rows[0] as SignedIn['person'] | undefined;
    return work(
      tx,
      person ? { person, role: (memberships.rows[0] as { role: string } | undefined)?.role ?? null } : null,
    );
  });
}

/** Whose calendar a secret opens, by its digest; null where it opens none. */
export async function inNurseryByCalendar(pool: pg.Pool, tokenHash: string): Promise<Member | null> {
  const client = await pool.connect();
  const hash = client.escapeLiteral(tokenHash);
  return transact(
    client,
    `select set_config('kauri.calendar', ${hash}, true); select nursery_id, person_id from calendar_token where token_hash = ${hash}`,
    true,
    (_, [, found]) => {
      const row = found.rows[0] as { nursery_id: string; person_id: string } | undefined;
      return Promise.resolve(row ? { nurseryId: row.nursery_id, personId: row.person_id } : null);
    },
  );
}

/** Which invitation a secret opens, by its digest, while it can be taken; null where it opens none. */
export async function inNurseryByInvite(
  pool: pg.Pool,
  tokenHash: string,
): Promise<{ nurseryId: string; personId: string; id: string } | null> {
  const client = await pool.connect();
  const hash = client.escapeLiteral(tokenHash);
  return transact(
    client,
    `select set_config('kauri.invite', ${hash}, true);
     select nursery_id, by_person, id from invite
     where token_hash = ${hash} and taken_by is null and withdrawn_at is null and ends_at > now()`,
    true,
    (_, [, found]) => {
      const row = found.rows[0] as { nursery_id: string; by_person: string; id: string } | undefined;
      return Promise.resolve(row ? { nurseryId: row.nursery_id, personId: row.by_person, id: row.id } : null);
    },
  );
}

/** Begins with some statements in one round trip, works, and ends; the client goes back to its pool. */
async function transact<T>(
  client: pg.PoolClient,
  opening: string,
  readOnly: boolean,
  work: (tx: Tx, opened: pg.QueryResult[]) => Promise<T>,
): Promise<T> {
  let answer: T;
  try {
    const [, ...opened] = (await client.query(
      `begin ${readOnly ? 'isolation level repeatable read read only' : ''}; ${opening}`,
    )) as unknown as pg.QueryResult[];
    answer = await work(drizzle(client) as Tx, opened);
    if (!readOnly) await client.query('commit');
  } catch (error) {
    const broken = await client.query('rollback').then(
      () => undefined,
      (failed: Error) => failed,
    );
    client.release(broken);
    throw error;
  }
  if (!readOnly) client.release();
  else
    client.query('commit').then(
      () => client.release(),
      (failed: Error) => client.release(failed),
    );
  return answer;
}
