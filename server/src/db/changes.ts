import { setTimeout as pause } from 'node:timers/promises';
import type { Landed } from '@kauri/core/contract';
import pg from 'pg';
import type { Logger } from 'pino';
import type { Tx } from './tenant';

const CHANNEL = 'kauri_landed';
/** A notice holds at most so many lots by name; PostgreSQL takes 8000 characters. */
const MOST_LOTS = 100;
/** How long until the database is asked again to be listened to, ms. */
const REST_MS = 1000;

/** Has the other members of a nursery told of a write, through whichever server they are at, once it is committed. */
export async function tellLanded(tx: Tx, nurseryId: string, landed: Landed): Promise<void> {
  const lots = landed.lots && landed.lots.length <= MOST_LOTS ? landed.lots : null;
  await tx.$client.query('select pg_notify($1, $2)', [
    CHANNEL,
    JSON.stringify({ nursery: nurseryId, ...landed, lots }),
  ]);
}

/** What others write, as it lands in the database. */
export interface Changes {
  /**
   * Calls on every write in a nursery. After a while without the database everything may have changed.
   * @returns ends it
   */
  follow: (nurseryId: string, told: (landed: Landed) => void) => () => void;
  stop: () => Promise<void>;
}

const ANYTHING: Landed = { area: null, lots: null, page: null };

/**
 * Listens to a database, on one connection for all who follow.
 * @param databaseUrl a connection that stays the same from one statement to the next: past a pooler by transaction
 */
export function listenToChanges(databaseUrl: string, log: Pick<Logger, 'error'>): Changes {
  const following = new Map<string, Set<(landed: Landed) => void>>();
  const stopping = new AbortController();
  const hear = ({ payload }: pg.Notification) => {
    const { nursery, ...landed } = JSON.parse(payload ?? '{}') as Landed & { nursery: string };
    for (const told of following.get(nursery) ?? []) told(landed);
  };
  const listening = (async () => {
    for (let first = true; !stopping.signal.aborted; first = false) {
      const client = new pg.Client({ connectionString: databaseUrl, keepAlive: true });
      const gone = new Promise<void>((resolve) => {
        client.once('error', () => resolve());
        client.once('end', () => resolve());
        stopping.signal.addEventListener('abort', () => resolve(), { once: true });
      });
      client.on('error', () => undefined);
      client.on('notification', hear);
      try {
        await client.connect();
        await client.query(`listen ${CHANNEL}`);
        // What landed while nobody listened is not told again.
        if (!first) for (const all of following.values()) for (const told of all) told(ANYTHING);
        await gone;
      } catch (err) {
        log.error({ err }, 'writes of others could not be listened to');
      }
      await client.end().catch(() => undefined);
      await pause(REST_MS, undefined, { signal: stopping.signal }).catch(() => undefined);
    }
  })();
  return {
    follow(nurseryId, told) {
      const all = following.get(nurseryId) ?? new Set();
      following.set(nurseryId, all.add(told));
      return () => {
        all.delete(told);
        if (all.size === 0 && following.get(nurseryId) === all) following.delete(nurseryId);
      };
    },
    async stop() {
      stopping.abort();
      await listening;
    },
  };
}
