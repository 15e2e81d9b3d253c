import type pg from 'pg';
import { everyTenantTable } from '../features/archive/tables';

/**
 * Does away with a nursery that was made to practise in, whole: its rows, and what is kept of nobody else's. What is added to
 * and never changed lets go of such a nursery's rows alone, and only to the owner of the tables.
 * @throws Error for a nursery that is none of these
 */
export async function dropNursery(ownerPool: pg.Pool, nurseryId: string): Promise<void> {
  const client = await ownerPool.connect();
  try {
    await client.query('begin');
    await client.query(
      `select set_config('kauri.nursery', $1, true), set_config('kauri.dropping', 'on', true)`,
      [nurseryId],
    );
    const { rows } = await client.query<{ practice: boolean }>('select practice from nursery where id = $1', [
      nurseryId,
    ]);
    if (rows.length && !rows[0].practice) throw new Error('Only a nursery to practise in is done away with.');
    for (const { name } of (await everyTenantTable(client)).reverse())
      await client.query(`delete from "${name}" where nursery_id = $1`, [nurseryId]);
    await client.query('delete from nursery where id = $1', [nurseryId]);
    await client.query('commit');
  } catch (error) {
    await client.query('rollback');
    throw error;
  } finally {
    client.release();
  }
}
