import { inNursery, route } from '../route';
import { learntPaths as paths } from './paths';
import * as learnt from './schemas';

/** Values learnt. */
export const learntRoutes = {
  learnt: route(paths.learnt, 'visitor', 'Values the nursery’s own lots taught, taken or turned down', {
    params: inNursery,
    answer: learnt.KeptLearnt,
  }),
  setLearnt: route(paths.setLearnt, 'grower', 'Take a learnt value, turn it down, or take either back', {
    params: inNursery,
    body: learnt.EditedLearnt,
    answer: learnt.KeptLearnt,
  }),
} as const;
