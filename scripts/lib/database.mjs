import { ensurePostgres, clusterFolder, homeFolder, openCluster } from './postgres.mjs';
import { Plain } from './steps.mjs';

const root = new URL('../../', import.meta.url).pathname.replace(/\/$/, '');

/**
 * Works with the database that `npm start` uses, whether Kauri runs at the moment or not, or with the one that
 * DATABASE_URL names.
 * @param work gets an owner's connection string, and the folder of PostgreSQL's programs
 */
export async function withDatabase({ empty = false } = {}, work) {
  const bin = await ensurePostgres();
  if (process.env.DATABASE_URL) return work(process.env.DATABASE_URL, bin);
  const cluster = await openCluster(bin, clusterFolder(homeFolder(root)));
  try {
    return await work(cluster.url(empty ? 'kauri_empty' : 'kauri'), bin);
  } finally {
    // One that was running belongs to whoever runs Kauri.
    if (!cluster.takenOver) await cluster.stop();
  }
}

/** @throws Plain where there is no such database yet */
export async function mustExist(url) {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: url });
  try {
    await client.connect();
  } catch (error) {
    if (error.code === '3D000') throw new Plain('There is no Kauri here yet: npm start makes it.');
    throw error;
  }
  return client;
}
