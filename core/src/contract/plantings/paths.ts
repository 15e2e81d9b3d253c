import type { Path } from '../route';

/** Trees in their places for good, and the walks that look after them: method and path of every route. */
export const plantingPaths = {
  plantings: ['GET', '/nurseries/:nursery/plantings'],
  putPlanting: ['PUT', '/nurseries/:nursery/plantings/:planting'],
  plantTrees: ['POST', '/nurseries/:nursery/plantings/:planting/trees'],
  takeBackPlanted: ['POST', '/nurseries/:nursery/plantings/:planting/trees/:part/undo'],
  changeGuard: ['PUT', '/nurseries/:nursery/plantings/:planting/trees/:part/guard'],
  beginWalk: ['POST', '/nurseries/:nursery/plantings/:planting/walks'],
  walk: ['GET', '/nurseries/:nursery/walks/:walk'],
  markTrees: ['POST', '/nurseries/:nursery/walks/:walk/marks'],
  endWalk: ['POST', '/nurseries/:nursery/walks/:walk/end'],
  takeBackWalk: ['POST', '/nurseries/:nursery/walks/:walk/undo'],
} as const satisfies Record<string, Path>;
