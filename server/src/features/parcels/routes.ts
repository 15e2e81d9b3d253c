import type { parcelRoutes } from '@kauri/core/contract';
import type { HandlersOf } from '../../http/context';
import { keepValue, readValue } from '../../nursery/values';
import { workOf } from '../../nursery/work';
import { setAside } from './setAside';
import { look, takeBackLook } from './looks';
import { bringBack, takeBackReturn } from './returns';
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
  async setAside(call) {
    const work = await workOf(call);
    await setAside(work, call.body);
    return parcelsOf(work.tx, work.nurseryId, work.today);
  },
  async look(call) {
    const work = await workOf(call);
    await look(work, call.body);
    return parcelsOf(work.tx, work.nurseryId, work.today);
  },
  async takeBackLook(call) {
    const work = await workOf(call);
    await takeBackLook(work, call.params.look);
    return parcelsOf(work.tx, work.nurseryId, work.today);
  },
  async papers(call) {
    const { version, value } = await readValue(call, 'papers');
    return { version, papers: value };
  },
  async setPapers(call) {
    const { version, papers } = call.body;
    const kept = await keepValue(await workOf(call), 'papers', version, papers);
    return { version: kept.version, papers: kept.value };
  },
  async grading(call) {
    const { version, value } = await readValue(call, 'grading');
    return { version, grading: value };
  },
  async setGrading(call) {
    const { version, grading } = call.body;
    const kept = await keepValue(await workOf(call), 'grading', version, grading);
    return { version: kept.version, grading: kept.value };
  },
  async liftingPlan(call) {
    const { version, value } = await readValue(call, 'lifting');
    return { version, plan: value };
  },
  async setLiftingPlan(call) {
    const { version, plan } = call.body;
    const kept = await keepValue(await workOf(call), 'lifting', version, plan);
    return { version: kept.version, plan: kept.value };
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
  async bringBack(call) {
    const work = await workOf(call);
    await bringBack(work, call.params.sending, call.body);
    return parcelsOf(work.tx, work.nurseryId, work.today);
  },
  async takeBackReturn(call) {
    const work = await workOf(call);
    await takeBackReturn(work, call.params, call.body.id);
    return parcelsOf(work.tx, work.nurseryId, work.today);
  },
};
