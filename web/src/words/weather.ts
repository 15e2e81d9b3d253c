import type { CoverKind, ReadingFlag, SeasonSum, WeatherEvent, WeatherEventKind } from '@kauri/core';
import type { Quantity } from '@kauri/core';

export const sumWords: Record<SeasonSum, string> = {
  warmth: 'Warmth above 5 °C',
  chill: 'Chill, 0 to 7.2 °C',
  rain: 'Rain',
  evaporation: 'Evaporation',
};

export const weatherEventWords: Record<WeatherEventKind, string> = {
  'late frost': 'Late frost',
  'hard frost': 'Hard frost',
  heat: 'Heat',
  'drying wind': 'Drying wind',
  downpour: 'Downpour',
};

export const coverKindWords: Record<CoverKind, string> = {
  shade: 'Shade',
  tunnel: 'Tunnel',
  glass: 'Glass',
  other: 'Other',
};

export const flagWords: Record<ReadingFlag, string> = {
  'out of range': 'impossible',
  spike: 'lone jump',
  stuck: 'does not move',
};

type Show = (value: number, quantity: Quantity, digits?: number) => string;

/** The worst of an event in a few words. */
export function worstWords({ kind, worst }: WeatherEvent, show: Show): string {
  if (kind === 'downpour') return show(worst, 'rain', 0);
  if (kind === 'drying wind') return `${worst.toFixed(1)} kPa deficit`;
  return show(worst, 'temperature', 0);
}
