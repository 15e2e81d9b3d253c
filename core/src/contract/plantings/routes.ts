import { JustId } from '../basics';
import { atPlanted, atPlanting, atWalk, inNursery, route } from '../route';
import { plantingPaths as paths } from './paths';
import * as plantings from './schemas';

/** Where trees were planted for good, and how they fare. */
export const plantingRoutes = {
  plantings: route(paths.plantings, 'visitor', 'Plantings, what stands in them, and their walks', {
    params: inNursery,
    answer: plantings.Plantings,
  }),
  putPlanting: route(paths.putPlanting, 'crew', 'Add a planting, or change one', {
    params: atPlanting,
    body: plantings.PutPlanting,
    answer: plantings.Plantings,
  }),
  plantTrees: route(paths.plantTrees, 'crew', 'Plant lifted trees', {
    params: atPlanting,
    body: plantings.PlantTrees,
    answer: plantings.Plantings,
  }),
  takeBackPlanted: route(paths.takeBackPlanted, 'crew', 'Take a planting of trees back', {
    params: atPlanted,
    body: JustId,
    answer: plantings.Plantings,
  }),
  changeGuard: route(paths.changeGuard, 'crew', 'Say what stands about planted trees now', {
    params: atPlanted,
    body: plantings.ChangeGuard,
    answer: plantings.Plantings,
  }),
  beginWalk: route(paths.beginWalk, 'crew', 'Begin a survival walk', {
    params: atPlanting,
    body: plantings.BeginWalk,
    answer: plantings.WalkSheet,
  }),
  walk: route(paths.walk, 'visitor', 'A survival walk, tree by tree', {
    params: atWalk,
    answer: plantings.WalkSheet,
  }),
  markTrees: route(paths.markTrees, 'crew', 'Mark trees on a walk', {
    params: atWalk,
    body: plantings.MarkTrees,
  }),
  endWalk: route(paths.endWalk, 'crew', 'End a survival walk', {
    params: atWalk,
    body: plantings.EndWalk,
    answer: plantings.Plantings,
  }),
  takeBackWalk: route(paths.takeBackWalk, 'crew', 'Take a survival walk back', {
    params: atWalk,
    body: JustId,
    answer: plantings.Plantings,
  }),
} as const;
