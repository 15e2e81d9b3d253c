import type { plantingRoutes } from '@kauri/core/contract';
import type { HandlersOf } from '../../http/context';
import { workOf } from '../../nursery/work';
import { changeGuard, plantTrees, plantingsOf, putPlanting, takeBackPlanted } from './plantings';
import { beginWalk, endWalk, markTrees, takeBackWalk, walkSheet } from './walks';

export const plantingHandlers: HandlersOf<typeof plantingRoutes> = {
  async plantings(call) {
    const { tx, nurseryId } = await workOf(call);
    return plantingsOf(tx, nurseryId);
  },
  async putPlanting(call) {
    const work = await workOf(call);
    await putPlanting(work, call.params.planting, call.body);
    return plantingsOf(work.tx, work.nurseryId);
  },
  async plantTrees(call) {
    const work = await workOf(call);
    await plantTrees(work, call.params.planting, call.body);
    return plantingsOf(work.tx, work.nurseryId);
  },
  async takeBackPlanted(call) {
    const work = await workOf(call);
    await takeBackPlanted(work, call.params.planting, call.params.part, call.body.id);
    return plantingsOf(work.tx, work.nurseryId);
  },
  async changeGuard(call) {
    const work = await workOf(call);
    await changeGuard(work, call.params.planting, call.params.part, call.body);
    return plantingsOf(work.tx, work.nurseryId);
  },
  async beginWalk(call) {
    const work = await workOf(call);
    await beginWalk(work, call.params.planting, call.body);
    return walkSheet(work, call.body.id);
  },
  async walk(call) {
    return walkSheet(await workOf(call), call.params.walk);
  },
  async markTrees(call) {
    await markTrees(await workOf(call), call.params.walk, call.body);
    return { done: true };
  },
  async endWalk(call) {
    const work = await workOf(call);
    await endWalk(work, call.params.walk, call.body);
    return plantingsOf(work.tx, work.nurseryId);
  },
  async takeBackWalk(call) {
    const work = await workOf(call);
    await takeBackWalk(work, call.params.walk);
    return plantingsOf(work.tx, work.nurseryId);
  },
};
