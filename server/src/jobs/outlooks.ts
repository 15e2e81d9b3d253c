import {
  warmthOf,
  weatherOutlook,
  type EpochDay,
  type Outlook,
  type Site,
  type Warmth,
  type WeatherSeries,
} from '@kauri/core';

/** How far ahead forecasts look, days: as in the browser. */
const HORIZON_DAYS = 460;
const KEPT = 8;

interface Weather {
  outlook: Outlook;
  warmth: Warmth;
}
/** Worked out before, by a word for everything it rests on: only ever a saving of work, never a state. */
const kept = new Map<string, Weather>();

/**
 * The weather of a nursery as known on a day.
 * @param basis names the days it rests on; the same basis is the same weather
 */
export async function weatherOn(
  basis: string,
  asOf: EpochDay,
  read: () => Promise<{ series: WeatherSeries; site: Site }>,
): Promise<Weather> {
  const key = `${asOf} ${basis}`;
  const before = kept.get(key);
  if (before) return before;
  const { series, site } = await read();
  const outlook = weatherOutlook(series, site, asOf, { horizonDays: HORIZON_DAYS });
  const weather = { outlook, warmth: warmthOf(outlook) };
  if (kept.size >= KEPT) kept.delete(kept.keys().next().value!);
  kept.set(key, weather);
  return weather;
}
