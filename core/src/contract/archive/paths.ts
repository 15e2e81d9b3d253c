import type { Path } from '../route';

/** A nursery taken out whole, and brought in: method and path of every route. */
export const archivePaths = {
  takeOut: ['GET', '/nurseries/:nursery/archive'],
  bringIn: ['POST', '/archives'],
} as const satisfies Record<string, Path>;
