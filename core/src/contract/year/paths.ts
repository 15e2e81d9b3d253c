import type { Path } from '../route';

/** What a year came to: method and path of every route. */
export const yearPaths = {
  year: ['GET', '/nurseries/:nursery/year'],
} as const satisfies Record<string, Path>;
