import type { Remote } from 'comlink';
import { wrapSpeaking } from '../workers/speaking';
import type { TablesWorker } from '../workers/tables.worker';

/** Does one piece of work on a spreadsheet in a worker of its own, which ends with it: large ones need much memory. */
export async function besidePage<T>(work: (worker: Remote<TablesWorker>) => Promise<T>): Promise<T> {
  const worker = new Worker(new URL('../workers/tables.worker.ts', import.meta.url), { type: 'module' });
  try {
    return await work(wrapSpeaking<TablesWorker>(worker));
  } finally {
    worker.terminate();
  }
}
