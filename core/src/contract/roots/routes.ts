import { atLot, inNursery, route } from '../route';
import { rootsPaths as paths } from './paths';
import * as lots from '../lots/schemas';
import * as roots from './schemas';

/** Root bench. */
export const rootsRoutes = {
  inspectRoots: route(paths.inspectRoots, 'crew', 'Record the roots of one pulled plant', {
    params: atLot,
    body: roots.InspectRoots,
    answer: lots.LotDetail,
  }),
  rootRules: route(paths.rootRules, 'visitor', 'Scorecards and the terms of pulling', {
    params: inNursery,
    answer: roots.KeptRootRules,
  }),
  setRootRules: route(paths.setRootRules, 'grower', 'Change the scorecards or the terms of pulling', {
    params: inNursery,
    body: roots.EditedRootRules,
    answer: roots.KeptRootRules,
  }),
} as const;
