import type { Path } from '../route';

/** Values learnt: method and path of every route. */
export const learntPaths = {
  learnt: ['GET', '/nurseries/:nursery/learnt'],
  setLearnt: ['PUT', '/nurseries/:nursery/learnt'],
} as const satisfies Record<string, Path>;
