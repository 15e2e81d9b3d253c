import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import pg from 'pg';
import * as schema from './schema/index';

/** Bigints that count trees fit a JavaScript number. */
pg.types.setTypeParser(pg.types.builtins.INT8, Number);
/** Plain dates stay text. */
pg.types.setTypeParser(pg.types.builtins.DATE, (text) => text);

/** A Drizzle handle inside one transaction, with the raw client beside it for streams and bulk work. */
export type Tx = NodePgDatabase<typeof schema> & { $client: pg.PoolClient };

export function openPool(connectionString: string): pg.Pool {
  const pool = new pg.Pool({ connectionString, max: 20, connectionTimeoutMillis: 5000 });
  // A dropped idle connection is replaced on the next query; it must not stop the server.
  pool.on('error', () => undefined);
  return pool;
}

export interface Member {
  nurseryId: string;
  personId: string;
}

/**
 * Runs work in one transaction on behalf of a person in a nursery: row-level security shows and takes
 * that nursery's rows only. Commits when the work returns, rolls back when it throws.
 */
export async function inNursery<T>(
  pool: pg.Pool,
  member: Member,
  work: (tx: Tx, role: string | null) => Promise<T>,
): Promise<T> {
  const client = await pool.connect();
  let broken: Error | undefined;
  try {
    const [nursery, person] = [client.escapeLiteral(member.nurseryId), client.escapeLiteral(member.personId)];
    // One round trip: begin, say who and where, and read the role that goes with it.
    const results = (await client.query(
      `begin; select set_config('kauri.nursery', ${nursery}, true), set_config('kauri.person', ${person}, true);` +
        `select role from membership where nursery_id = ${nursery} and person_id = ${person}`,
    )) as unknown as pg.QueryResult<{ role: string }>[];
    const answer = await work(drizzle(client, { schema }) as Tx, results[2].rows[0]?.role ?? null);
    await client.query('commit');
    return answer;
  } catch (error) {
    await client.query('rollback').catch((failed: Error) => (broken = failed));
    throw error;
  } finally {
    client.release(broken);
  }
}
