import { call } from '../api/client';

/** What a nursery is looked at by; its lots, places and weather are here as soon as it is open. */
const looks = [
  'todayBook',
  'orders',
  'parcels',
  'plantings',
  'seedRoom',
  'holds',
  'arrivals',
  'routes',
  'plan',
  'rootRules',
  'grading',
  'liftingPlan',
  'papers',
  'water',
  'checks',
  'stock',
  'stations',
] as const;

/**
 * Looks at everything once, one after another and behind all else, so that the device has the whole nursery for when there is
 * no network: also what was not opened today. Where the application itself is not kept, there is nothing to be ready for.
 */
export async function keepReady(nursery: string): Promise<void> {
  if (!navigator.serviceWorker?.controller) return;
  for (const name of looks) await call(name, { params: { nursery } }).catch(() => undefined);
}
