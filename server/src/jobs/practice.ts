import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import type pg from 'pg';
import { loadPractice, practiceDemo } from '../demo/load';
import { dropNursery } from '../db/drop';
import type { Server } from '../http/context';

/** Where the stand-ins of instruments answer. */
export type StandIns = Pick<Server, 'irrigationUrl' | 'stationUrl' | 'instrumentUrl'>;

export interface PracticeJob {
  personId: string;
  south: boolean;
  /** What it speaks. */
  language: string;
  /** In the time zone of the demo it is made like. */
  today: string;
  standIns: StandIns;
}

interface Setting {
  ownerPool: pg.Pool;
  databaseUrl: string;
  pool: pg.Pool;
  today: (timeZone: string) => string;
  standIns: StandIns;
}

/** Makes nurseries to practise in. Stopped in the middle of one, it is left to whoever starts next. */
export function practiceMaker(setting: Setting) {
  let stopped = false;
  let leave: () => void = () => undefined;
  const apart = (job: PracticeJob) => {
    const { made, end } = runApart(setting, job);
    leave = end;
    return made;
  };
  return {
    make: (personId: string) => makePractice(setting, personId, apart, () => stopped),
    stop() {
      stopped = true;
      leave();
    },
  };
}

/**
 * Makes the nursery that somebody asked to practise in, in a thread of its own, and does away with the one before.
 * @returns its id; null where nobody waits for it any more
 */
async function makePractice(
  { ownerPool, pool, today, standIns }: Setting,
  personId: string,
  apart: (job: PracticeJob) => Promise<string>,
  isStopped: () => boolean,
): Promise<string | null> {
  const { rows } = await pool.query<{ south: boolean; language: string; before: string | null }>(
    `select south, language, practice_nursery_id as before from practice where person_id = $1 and state = 'making'`,
    [personId],
  );
  if (!rows.length) return null;
  const [{ south, language, before }] = rows;
  const keep = (state: 'ready' | 'failed', nurseryId: string | null) =>
    pool.query('update practice set state = $2, practice_nursery_id = $3 where person_id = $1', [
      personId,
      state,
      nurseryId,
    ]);
  try {
    if (before !== null) await dropNursery(ownerPool, before);
    const job = { personId, south, language, today: today(practiceDemo(south).timeZone), standIns };
    const made = await apart(job);
    await keep('ready', made);
    return made;
  } catch (error) {
    if (!isStopped()) await keep('failed', null);
    throw error;
  }
}

/** What loading asks of a server: today, and where instruments answer. */
export const practiceServer = (pool: pg.Pool, { today, standIns }: PracticeJob): Server => ({
  pool,
  log: { info: () => undefined, error: () => undefined },
  today: () => today,
  askToday: () => undefined,
  askSeason: () => undefined,
  askPractice: () => undefined,
  ...standIns,
});

/** In a thread of its own; in this one where Kauri runs from its sources, which have none built. */
function runApart({ databaseUrl, pool }: Setting, job: PracticeJob) {
  const file = ['./jobs/practiceThread.js', './practiceThread.js']
    .map((path) => fileURLToPath(new URL(path, import.meta.url)))
    .find(existsSync);
  if (file === undefined) return { made: loadPractice(practiceServer(pool, job), job), end: () => undefined };
  const worker = new Worker(file, { workerData: { databaseUrl, job } });
  const made = new Promise<string>((done, failed) => {
    worker.on('message', (said: { made?: string; fault?: string }) =>
      said.made === undefined ? failed(new Error(said.fault)) : done(said.made),
    );
    worker.on('error', failed);
    worker.on('exit', () => failed(new Error('The thread that makes a nursery to practise in ended.')));
  });
  return { made, end: () => void worker.terminate() };
}
