import { airAtMidday, dayOf, dryingMinutes } from '@kauri/core';
import { computed } from 'vue';
import { useNursery } from '../../stores/nursery';

/** Longer than this nobody needs a warning, minutes. */
const LONG_MINUTES = 120;

/** How long bare fine roots stand the air of a day, as far as its weather is known. */
export function useExposure(on: () => string) {
  const nursery = useNursery();
  return computed(() => {
    const { start, tMinC, tMaxC, humidity } = nursery.series;
    const at = (/^\d{4}-\d{2}-\d{2}$/.test(on()) ? dayOf(on()) : NaN) - start;
    if (!(tMinC[at] <= tMaxC[at])) return null;
    const measured = humidity?.[at] ?? NaN;
    const air = airAtMidday({ tMinC: tMinC[at], tMaxC: tMaxC[at], humidity: measured });
    const minutes = Math.floor(dryingMinutes(air));
    return {
      tempC: air.tempC,
      minutes: Math.min(LONG_MINUTES, minutes),
      isLong: minutes >= LONG_MINUTES,
      isAssumed: Number.isNaN(measured),
    };
  });
}
