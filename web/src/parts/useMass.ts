import { usePreferences } from '../stores/preferences';

const KILO = 1000;
const POUND_G = 453.59237;

/** A mass of seed as a grower says it: grams or kilograms, ounces or pounds. */
export function useMass(): (grams: number) => string {
  const preferences = usePreferences();
  return (grams) => {
    const large = preferences.units === 'metric' ? KILO : POUND_G;
    if (Math.abs(grams) >= large) return preferences.show(grams / KILO, 'mass', 2);
    const shown = Math.abs(preferences.shown(grams, 'seedMass'));
    return preferences.show(grams, 'seedMass', shown < 10 ? 2 : shown < 100 ? 1 : 0);
  };
}
