import { say } from '@kauri/core';
import { count } from '../../words/numbers';

/** A time of work as a grower says it: "about 40 min", "about 3½ h". */
export function minutesWords(minutes: number): string {
  if (minutes < 52) return say`about ${Math.max(5, Math.round(minutes / 5) * 5)} min`;
  const halves = Math.round(minutes / 30);
  const whole = Math.floor(halves / 2);
  return say`about ${whole || ''}${halves % 2 ? '½' : ''} h`;
}

/** What an hour of it saves; nothing where it is hardly a tree. */
export function savingWords(lossPerHour: number): string {
  if (lossPerHour < 0.5) return '';
  return lossPerHour < 10
    ? say`saves a few trees an hour`
    : say`saves some ${count(lossPerHour < 100 ? Math.round(lossPerHour / 10) * 10 : Math.round(lossPerHour / 50) * 50)} trees an hour`;
}
