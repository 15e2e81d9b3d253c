import {
  actsFor,
  emergenceClock,
  emergenceOutlook,
  factsAt,
  forecastLot,
  isRising,
  lotAsks,
  standingOf,
  feltWeather,
  type KnownWeather,
  type LotAsks,
  type LotFacts,
  type RisingFacts,
  type RootCall,
} from '@kauri/core';

/** A lot to be forecast, with how it comes up and what its pulled plants say. */
export interface AskedLot {
  facts: LotFacts;
  rising: RisingFacts | null;
  roots: RootCall;
}

/** What a lot asks for, nothing before it was sown, or why its forecast failed. */
export type Asked = { asks: LotAsks | null; fault: null } | { asks: null; fault: string };

/**
 * What each lot asks for: the same forecasts a screen makes, with the same numbers. A lot whose forecast fails says so
 * and the others go on.
 */
export function asksOfLots(
  lots: readonly AskedLot[],
  open: KnownWeather,
  failed: (lot: LotFacts, error: unknown) => void,
): Asked[] {
  const { felt } = feltWeather(open);
  return lots.map(({ facts, rising, roots }): Asked => {
    try {
      const { asOf, site } = open.outlook;
      const known = factsAt(facts, asOf);
      const { outlook, warmth } = felt(known);
      const forecast = forecastLot(facts, outlook, warmth, { view: asOf });
      const standing = standingOf(known, forecast);
      if (!standing) return { asks: null, fault: null };
      const acts = actsFor(known, forecast, standing, site.latitudeDeg);
      // How it comes up is reckoned in the open, as at the Seed station.
      const coming =
        rising && isRising(standing, forecast)
          ? emergenceOutlook(
              rising.counts,
              rising.sown,
              emergenceClock(rising.of, open.warmth),
              rising.prior,
              open.warmth,
            ).value
          : null;
      return {
        asks: lotAsks(known, forecast, standing, coming, roots, acts),
        fault: null,
      };
    } catch (error) {
      failed(facts, error);
      return { asks: null, fault: error instanceof Error ? error.message : String(error) };
    }
  });
}
