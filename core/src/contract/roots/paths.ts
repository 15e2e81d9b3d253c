import type { Path } from '../route';

/** Root bench: method and path of every route. */
export const rootsPaths = {
  inspectRoots: ['POST', '/nurseries/:nursery/lots/:lot/roots'],
  rootRules: ['GET', '/nurseries/:nursery/root-rules'],
  setRootRules: ['PUT', '/nurseries/:nursery/root-rules'],
} as const satisfies Record<string, Path>;
