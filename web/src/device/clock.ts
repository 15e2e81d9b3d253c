import { dayOf, isoOf, plainDateAt } from '@kauri/core';

/** When the server last answered, by its own clock, and what day it was in the nursery. */
export interface Contact {
  /** Its clock, ms since 1970. */
  serverMs: number;
  /** This device’s clock at that moment. */
  deviceMs: number;
  /** The nursery’s day then. */
  today: string;
}

/**
 * The nursery’s day while the server cannot be asked: as many days on as have passed there since it last answered. What the
 * device’s own clock is wrong by was seen then and is taken off.
 * @param deviceMs this device’s clock now
 */
export function dayAway(
  { serverMs, deviceMs: then, today }: Contact,
  timeZone: string,
  deviceMs: number,
): string {
  const dayAt = (ms: number) => dayOf(plainDateAt(new Date(ms), timeZone));
  const passed = Math.max(0, deviceMs - then);
  return isoOf(dayOf(today) + dayAt(serverMs + passed) - dayAt(serverMs));
}
