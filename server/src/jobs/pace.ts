/** Quiet after a write until what it changed is worked out: writes that come together are taken together, ms. */
const QUIET_MS = 60;
/** Longest that writes which keep coming put it off, ms. */
const MOST_MS = 400;

/** What is known of one nursery's Today: writes not yet worked out, and how long the last working took. */
export interface Waiting {
  firstAt: number;
  lastAt: number;
  /** Not before this: at most half of the time is spent working one nursery out. */
  restUntil: number;
}

/**
 * When a nursery's Today is worked out next: soon after the last of some writes that come together, within a stated time
 * after the first, and never so often that the machine does little else.
 */
export const dueAt = ({ firstAt, lastAt, restUntil }: Waiting): number =>
  Math.max(Math.min(lastAt + QUIET_MS, firstAt + MOST_MS), restUntil);
