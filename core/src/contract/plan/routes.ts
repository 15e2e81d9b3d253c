import { atOrder, inNursery, route } from '../route';
import { planPaths as paths } from './paths';
import * as plan from './schemas';

/** What is wanted. */
export const planRoutes = {
  orders: route(paths.orders, 'visitor', 'Orders and hopes', { params: inNursery, answer: plan.Orders }),
  addOrders: route(paths.addOrders, 'grower', 'Take one order or several, all or none', {
    params: inNursery,
    body: plan.NewOrders,
    answer: plan.Orders,
  }),
  editOrder: route(paths.editOrder, 'grower', 'Change an order', {
    params: atOrder,
    body: plan.EditedOrder,
    answer: plan.KeptOrder,
  }),
  removeOrder: route(paths.removeOrder, 'grower', 'Take an order out that was written by mistake', {
    params: atOrder,
    body: plan.RemovedOrder,
    answer: plan.Orders,
  }),
} as const;
