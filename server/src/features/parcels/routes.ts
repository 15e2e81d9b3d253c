import type { parcelRoutes } from '@kauri/core/contract';
import type { HandlersOf } from '../../http/context';
import { workOf } from '../../nursery/work';
import { parcelsOf, putParcel, sendTrees, takeBackSending } from './parcels';

export const parcelHandlers: HandlersOf<typeof parcelRoutes> = {
  async parcels(call) {
    const { tx, nurseryId, today } = await workOf(call);
    return parcelsOf(tx, nurseryId, today);
  },
  async putParcel(call) {
    const work = await workOf(call);
    await putParcel(work, call.params.parcel, call.body);
    return parcelsOf(work.tx, work.nurseryId, work.today);
  },
  async sendTrees(call) {
    const work = await workOf(call);
    await sendTrees(work, call.body);
    return parcelsOf(work.tx, work.nurseryId, work.today);
  },
  async takeBackSending(call) {
    const work = await workOf(call);
    await takeBackSending(work, call.params.sending, call.body.id);
    return parcelsOf(work.tx, work.nurseryId, work.today);
  },
};
