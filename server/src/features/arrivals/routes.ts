import type { arrivalRoutes } from '@kauri/core/contract';
import type { HandlersOf } from '../../http/context';
import { workOf } from '../../nursery/work';
import { addArrival, arrivalsOf, endQuarantine, takeBackArrival } from './arrivals';

export const arrivalHandlers: HandlersOf<typeof arrivalRoutes> = {
  async arrivals(call) {
    return arrivalsOf(await workOf(call));
  },
  async addArrival(call) {
    const work = await workOf(call);
    await addArrival(work, call.body);
    return arrivalsOf(work);
  },
  async takeBackArrival(call) {
    const work = await workOf(call);
    await takeBackArrival(work, call.params.arrival, call.body.id);
    return arrivalsOf(work);
  },
  async endQuarantine(call) {
    const work = await workOf(call);
    await endQuarantine(work, call.params.arrival, call.body);
    return arrivalsOf(work);
  },
};
