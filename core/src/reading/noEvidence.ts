import type { Evidence } from '../contract';

/** What is recorded of a lot before anything is. */
export function noEvidence(lotId: string): Evidence {
  return {
    lotId,
    counts: [],
    sizes: [],
    pulls: [],
    roots: [],
    culls: [],
    events: [],
    care: [],
    shifts: [],
    stages: [],
    movements: [],
  };
}
