import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import type { Logger } from 'pino';
import type { TodayJob } from './refreshToday';
import { ROOM_TO_WORK } from './roomToWork';
import type { Said, Told } from './todayThread';

interface Thread {
  ask: (databaseUrl: string, job: TodayJob | null) => Promise<void>;
  logs: Map<string, Logger>;
}

let shared: Thread | null = null;

/** One thread serves every Kauri of this process, and keeps warm what it has worked out: weather and code. */
function startThread(file: string): Thread {
  const worker = new Worker(file, { resourceLimits: ROOM_TO_WORK });
  const logs = new Map<string, Logger>();
  const open = new Map<number, { done: () => void; failed: (error: Error) => void }>();
  let last = 0;
  const fail = (error: Error) => {
    for (const job of open.values()) job.failed(error);
    open.clear();
    // The next job starts another.
    if (shared === thread) shared = null;
  };
  worker.on('message', (said: Said) => {
    if ('log' in said) return logs.get(said.databaseUrl)?.error(said.log, 'a lot’s forecast failed');
    const job = open.get(said.id);
    open.delete(said.id);
    if (said.fault === undefined) job?.done();
    else job?.failed(new Error(said.fault));
  });
  worker.on('error', fail);
  worker.on('exit', (code) => fail(new Error(`The thread that works out Today ended (${code}).`)));
  // Last, for a listener holds the process open again.
  worker.unref();
  const thread: Thread = {
    logs,
    ask: (databaseUrl, job) =>
      new Promise<void>((done, failed) => {
        const id = ++last;
        open.set(id, { done, failed });
        worker.postMessage({ id, databaseUrl, job } satisfies Told);
      }),
  };
  return thread;
}

/** The thread that works out Todays of a database; null where Kauri runs from its sources, which have none built. */
export function openThread(databaseUrl: string, log: Logger) {
  const file = ['./jobs/todayThread.js', './todayThread.js']
    .map((path) => fileURLToPath(new URL(path, import.meta.url)))
    .find(existsSync);
  if (file === undefined) return null;
  const thread = () => {
    shared ??= startThread(file);
    shared.logs.set(databaseUrl, log);
    return shared;
  };
  return {
    work: (job: TodayJob) => thread().ask(databaseUrl, job),
    /** Lets go of the database once what is under way is done. */
    close: async () => {
      if (!shared) return;
      await shared.ask(databaseUrl, null).catch(() => undefined);
      shared?.logs.delete(databaseUrl);
    },
  };
}
