import type { KeptPlan, KeptRoutes, planRoutes } from '@kauri/core/contract';
import type { HandlersOf } from '../../http/context';
import { keepValue, readValue } from '../../nursery/values';
import { workOf } from '../../nursery/work';
import { raisingLearnt } from './learnt';
import { changedOf, mustBeHere } from './raising';
import { addOrders, editOrder, ordersOf, removeOrder } from './orders';
import {
  chooseProposal,
  nameProposal,
  proposalsOf,
  propose,
  removeProposal,
  stopProposal,
} from './proposals';

export const planHandlers: HandlersOf<typeof planRoutes> = {
  async orders(call) {
    return { orders: await ordersOf(call) };
  },
  async addOrders(call) {
    const work = await workOf(call);
    await addOrders(work, call.body);
    return { orders: await ordersOf(work) };
  },
  async editOrder(call) {
    return editOrder(await workOf(call), call.params.order, call.body);
  },
  async removeOrder(call) {
    const work = await workOf(call);
    await removeOrder(work, call.params.order, call.body.version);
    return { orders: await ordersOf(work) };
  },
  async routes(call) {
    const work = await workOf(call);
    const { version, value } = await readValue(work, 'routes');
    const learnt = await raisingLearnt(work, work.today);
    return { version, routes: value, learnt } as KeptRoutes;
  },
  async setRoutes(call) {
    const { version, routes } = call.body;
    const work = await workOf(call);
    const { value: before } = await readValue(work, 'routes');
    await mustBeHere(work, changedOf(routes.routes, before.routes));
    const kept = await keepValue(work, 'routes', version, routes);
    const learnt = await raisingLearnt(work, work.today);
    return { version: kept.version, routes: kept.value, learnt };
  },
  async plan(call) {
    const { version, value } = await readValue(call, 'plan');
    return { version, plan: value } as KeptPlan;
  },
  async setPlan(call) {
    const { version, plan } = call.body;
    const work = await workOf(call);
    const { value: before } = await readValue(work, 'plan');
    const changed = changedOf(plan.sowings, before.sowings);
    await mustBeHere(
      work,
      changed.map((sowing) => ({ ...sowing, name: sowing.route })),
    );
    const kept = await keepValue(work, 'plan', version, plan);
    return { version: kept.version, plan: kept.value };
  },
  async proposals(call) {
    return { proposals: await proposalsOf(call) };
  },
  async propose(call) {
    const work = await workOf(call);
    await propose(work, call.body);
    return { proposals: await proposalsOf(work) };
  },
  async nameProposal(call) {
    const work = await workOf(call);
    await nameProposal(work, call.params.proposal, call.body.name);
    return { proposals: await proposalsOf(work) };
  },
  async stopProposal(call) {
    const work = await workOf(call);
    await stopProposal(work, call.params.proposal);
    return { proposals: await proposalsOf(work) };
  },
  async removeProposal(call) {
    const work = await workOf(call);
    await removeProposal(work, call.params.proposal);
    return { proposals: await proposalsOf(work) };
  },
  async chooseProposal(call) {
    return chooseProposal(await workOf(call), call.params.proposal, call.body.version);
  },
};
