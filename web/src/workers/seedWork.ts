import { type Remote } from 'comlink';
import { wrapSpeaking } from './speaking';
import { useNursery } from '../stores/nursery';
import type { SeedWorker } from './seed.worker';

let worker: Remote<SeedWorker> | null = null;
let sent: string | null = null;

/** The Seed station's worker, with the weather as it now is. One serves every part of the station. */
export async function seedWork(): Promise<Remote<SeedWorker>> {
  const nursery = useNursery();
  worker ??= wrapSpeaking<SeedWorker>(
    new Worker(new URL('./seed.worker.ts', import.meta.url), { type: 'module' }),
  );
  const key = `${nursery.nurseryId} ${nursery.weatherVersion}`;
  if (sent !== key) {
    const { latitudeDeg, elevationM } = nursery.catalogue!.nursery;
    sent = key;
    await worker.setWeather(nursery.series, { latitudeDeg, elevationM });
  }
  return worker;
}

/** A value without reactivity, as a worker can be sent it. */
export function plain<T>(value: T): T {
  return JSON.parse(JSON.stringify(value)) as T;
}
