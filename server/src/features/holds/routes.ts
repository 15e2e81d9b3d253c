import type { holdRoutes } from '@kauri/core/contract';
import type { HandlersOf } from '../../http/context';
import { workOf } from '../../nursery/work';
import { beginHold, endHold, holdsOf, noteHold, takeBackHold, takeBackHoldStep } from './holds';

export const holdHandlers: HandlersOf<typeof holdRoutes> = {
  async holds(call) {
    return holdsOf(await workOf(call));
  },
  async beginHold(call) {
    const work = await workOf(call);
    await beginHold(work, call.params.lot, call.body);
    return holdsOf(work);
  },
  async noteHold(call) {
    const work = await workOf(call);
    await noteHold(work, call.params.hold, call.body);
    return holdsOf(work);
  },
  async takeBackHoldStep(call) {
    const work = await workOf(call);
    await takeBackHoldStep(work, call.params.hold, call.params.step);
    return holdsOf(work);
  },
  async endHold(call) {
    const work = await workOf(call);
    await endHold(work, call.params.hold, call.body);
    return holdsOf(work);
  },
  async takeBackHold(call) {
    const work = await workOf(call);
    await takeBackHold(work, call.params.hold, call.body.id);
    return holdsOf(work);
  },
};
