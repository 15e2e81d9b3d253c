import {
  actsFor,
  coverKey,
  factsAt,
  forecastLot,
  outlookUnderCover,
  standingOf,
  warmthOf,
  weatherOutlook,
  type Act,
  type EpochDay,
  type LotFacts,
  type Outlook,
  type Site,
  type Warmth,
  type WeatherSeries,
} from '@kauri/core';

/** Lots to be forecast on a day, with the weather of their nursery. */
export interface ForecastWork {
  series: WeatherSeries;
  site: Site;
  asOf: EpochDay;
  lots: LotFacts[];
}

/** How far ahead forecasts look, days: as in the browser. */
export const HORIZON_DAYS = 460;

/** What each lot asks for: the same forecasts a screen makes, with the same numbers. */
export function actsOfLots({ series, site, asOf, lots }: ForecastWork): Act[][] {
  const open = weatherOutlook(series, site, asOf, { horizonDays: HORIZON_DAYS });
  const under = new Map<string, { outlook: Outlook; warmth: Warmth }>();
  return lots.map((lot) => {
    const known = factsAt(lot, asOf);
    const key = coverKey(known);
    let weather = under.get(key);
    if (!weather) {
      const outlook = outlookUnderCover(open, known);
      under.set(key, (weather = { outlook, warmth: warmthOf(outlook) }));
    }
    const forecast = forecastLot(lot, weather.outlook, weather.warmth, { view: asOf });
    const standing = standingOf(known, forecast);
    return standing ? actsFor(known, forecast, standing, site.latitudeDeg) : [];
  });
}
