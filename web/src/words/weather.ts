import { say, inWords } from '@kauri/core';
import type { CoverKind, ReadingFlag, SeasonSum, WeatherEvent, WeatherEventKind } from '@kauri/core';
import type { Quantity } from '@kauri/core';

/** What a sum of the season is of, with its limits in the grower's units. */
export function sumWords(what: SeasonSum, show: Show): string {
  switch (what) {
    case 'warmth':
      return say`Warmth above ${show(5, 'temperature', 0)}`;
    case 'chill':
      return say`Chill, ${show(0, 'temperature', 0)} to ${show(7.2, 'temperature')}`;
    case 'rain':
      return say`Rain`;
    case 'evaporation':
      return say`Evaporation`;
  }
}

export const weatherEventWords: Record<WeatherEventKind, string> = inWords({
  'late frost': 'Late frost',
  'hard frost': 'Hard frost',
  heat: 'Heat',
  'drying wind': 'Drying wind',
  downpour: 'Downpour',
});

export const coverKindWords: Record<CoverKind, string> = inWords({
  shade: 'Shade',
  tunnel: 'Tunnel',
  glass: 'Glass',
  other: 'Other',
});

export const flagWords: Record<ReadingFlag, string> = inWords({
  'out of range': 'impossible',
  spike: 'lone jump',
  stuck: 'does not move',
});

type Show = (value: number, quantity: Quantity, digits?: number) => string;

/** The worst of an event in a few words. */
export function worstWords({ kind, worst }: WeatherEvent, show: Show): string {
  if (kind === 'downpour') return show(worst, 'rain', 0);
  if (kind === 'drying wind') return say`${show(worst, 'pressure')} deficit`;
  return show(worst, 'temperature', 0);
}
