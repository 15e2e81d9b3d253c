/** How bare roots stand: covered, in the air, soon to be covered, or past what they stand. */
export const exposureStates = ['covered', 'out', 'soon', 'over'] as const;
export type ExposureState = (typeof exposureStates)[number];

/** From this share of what they stand on, it is time to cover them. */
export const COVER_FROM = 0.75;

export interface Exposure {
  state: ExposureState;
  /** Minutes in the air; 0 while covered. */
  minutes: number;
  /** Minutes left of what they stand; negative once past, null where that is not known. */
  left: number | null;
}

/**
 * How long bare fine roots have been in the air, against what they stand.
 * @param outSince ms; null while they are covered
 * @param now ms
 * @param standMinutes what they stand; null where the air is not known, and then no warning is given
 */
export function exposureAt(outSince: number | null, now: number, standMinutes: number | null): Exposure {
  if (outSince === null) return { state: 'covered', minutes: 0, left: standMinutes };
  // A clock set back meanwhile does not make roots wetter.
  const minutes = Math.max(0, now - outSince) / 60_000;
  const left = standMinutes === null ? null : standMinutes - minutes;
  const state =
    left === null || standMinutes === null
      ? 'out'
      : left <= 0
        ? 'over'
        : minutes >= COVER_FROM * standMinutes
          ? 'soon'
          : 'out';
  return { state, minutes, left };
}

/**
 * Trees of a batch that are covered again in time, at a pace.
 * @param minutesEach that lifting takes, a tree
 */
export const batchIn = (standMinutes: number, minutesEach: number): number =>
  Math.max(1, Math.floor((COVER_FROM * standMinutes) / minutesEach));
