import { say } from '@kauri/core';
import { ref } from 'vue';

/** Longest that a device may look for where it is, ms, and how old an answer may be. */
const TIMEOUT_MS = 20_000;

/**
 * Where this device is, and why that is not known; an address without https is not told.
 * @param oldest age that an answer may have, ms
 */
export function useWhere(found: (at: GeolocationCoordinates) => void, oldest: number) {
  const has = isSecureContext && 'geolocation' in navigator;
  const asking = ref(false);
  const trouble = ref<string | null>(null);
  function ask(): void {
    asking.value = true;
    trouble.value = null;
    navigator.geolocation.getCurrentPosition(
      ({ coords }) => {
        asking.value = false;
        found(coords);
      },
      ({ code }) => {
        asking.value = false;
        trouble.value =
          code === 1
            ? say`The device was not allowed to say where it is.`
            : say`The device does not know where it is.`;
      },
      { timeout: TIMEOUT_MS, maximumAge: oldest, enableHighAccuracy: oldest === 0 },
    );
  }
  return { has, asking, trouble, ask };
}
