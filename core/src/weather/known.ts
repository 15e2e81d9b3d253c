import type { EpochDay } from '../calendar/day';
import { weatherOutlook, type Outlook, type Site } from './ensemble';
import type { WeatherSeries } from './series';
import { warmthOf, type Warmth } from './sums';

/** How far ahead forecasts look, days: the same on every screen and on the server. */
export const HORIZON_DAYS = 1150;

/** Weather as known on a day, with its sums. */
export interface KnownWeather {
  outlook: Outlook;
  warmth: Warmth;
}

/** Works out the weather as known on a day. */
export function knownWeather(series: WeatherSeries, site: Site, asOf: EpochDay): KnownWeather {
  const outlook = weatherOutlook(series, site, asOf, { horizonDays: HORIZON_DAYS });
  return { outlook, warmth: warmthOf(outlook) };
}

/** Keeps what was worked out last, so many at most: only ever a saving of work, never a state. */
export class LastFew<K, V> {
  readonly #kept = new Map<K, V>();
  constructor(readonly most: number) {}

  get(key: K): V | undefined {
    return this.#kept.get(key);
  }
  set(key: K, value: V): V {
    if (!this.#kept.has(key) && this.#kept.size >= this.most)
      this.#kept.delete(this.#kept.keys().next().value!);
    this.#kept.set(key, value);
    return value;
  }
  clear(): void {
    this.#kept.clear();
  }
}
