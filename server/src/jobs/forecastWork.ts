import {
  actsFor,
  coverKey,
  factsAt,
  forecastLot,
  outlookUnderCover,
  standingOf,
  warmthOf,
  type Act,
  type LotFacts,
  type Outlook,
  type Warmth,
} from '@kauri/core';

/** Lots to be forecast, in the weather of their nursery as known on a day. */
export interface ForecastWork {
  outlook: Outlook;
  warmth: Warmth;
  lots: LotFacts[];
}

/** What each lot asks for: the same forecasts a screen makes, with the same numbers. */
export function actsOfLots({ outlook: open, warmth: inTheOpen, lots }: ForecastWork): Act[][] {
  const { asOf, site } = open;
  const under = new Map([['', { outlook: open, warmth: inTheOpen }]]);
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
