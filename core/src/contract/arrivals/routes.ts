import { atArrival, inNursery, route } from '../route';
import { JustId } from '../basics';
import { arrivalPaths as paths } from './paths';
import * as arrivals from './schemas';

/** Plants that come from outside: looked at, taken or sent back, kept apart for a while. */
export const arrivalRoutes = {
  arrivals: route(paths.arrivals, 'visitor', 'Plants that came from outside', {
    params: inNursery,
    answer: arrivals.Arrivals,
  }),
  addArrival: route(paths.addArrival, 'crew', 'Take plants in that came from outside, or send them back', {
    params: inNursery,
    body: arrivals.NewArrival,
    answer: arrivals.Arrivals,
  }),
  takeBackArrival: route(paths.takeBackArrival, 'crew', 'Take an arrival back that was written by mistake', {
    params: atArrival,
    body: JustId,
    answer: arrivals.Arrivals,
  }),
  endQuarantine: route(paths.endQuarantine, 'grower', 'Say until when plants that came stay apart', {
    params: atArrival,
    body: arrivals.EndQuarantine,
    answer: arrivals.Arrivals,
  }),
} as const;
