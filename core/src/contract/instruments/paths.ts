import type { Path } from '../route';

/** Instruments: method and path of every route. */
export const instrumentsPaths = {
  instrument: ['GET', '/instruments/:tool'],
} as const satisfies Record<string, Path>;
