import type { planRoutes } from '@kauri/core/contract';
import type { HandlersOf } from '../../http/context';
import { workOf } from '../../nursery/work';
import { addOrders, editOrder, ordersOf, removeOrder } from './orders';

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
};
