import type { Path } from '../route';

/** Plants that come from outside: method and path of every route. */
export const arrivalPaths = {
  arrivals: ['GET', '/nurseries/:nursery/arrivals'],
  addArrival: ['POST', '/nurseries/:nursery/arrivals'],
  takeBackArrival: ['POST', '/nurseries/:nursery/arrivals/:arrival/undo'],
  endQuarantine: ['POST', '/nurseries/:nursery/arrivals/:arrival/quarantine'],
} as const satisfies Record<string, Path>;
