import {
  knownWeather,
  LastFew,
  type EpochDay,
  type KnownWeather,
  type Site,
  type WeatherSeries,
} from '@kauri/core';

const kept = new LastFew<string, KnownWeather>(8);

/**
 * The weather of a nursery as known on a day.
 * @param basis names the days it rests on; the same basis is the same weather
 */
export async function weatherOn(
  basis: string,
  asOf: EpochDay,
  read: () => Promise<{ series: WeatherSeries; site: Site }>,
): Promise<KnownWeather> {
  const key = `${asOf} ${basis}`;
  const before = kept.get(key);
  if (before) return before;
  const { series, site } = await read();
  return kept.set(key, knownWeather(series, site, asOf));
}
