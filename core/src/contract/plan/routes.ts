import { atOrder, inNursery, route } from '../route';
import { planPaths as paths } from './paths';
import * as plan from './schemas';

/** What is wanted, and how it may be raised. */
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
  routes: route(paths.routes, 'visitor', 'How species are raised here, where the nursery wrote it', {
    params: inNursery,
    answer: plan.KeptRoutes,
  }),
  setRoutes: route(paths.setRoutes, 'grower', 'Write how species are raised here', {
    params: inNursery,
    body: plan.EditedRoutes,
    answer: plan.KeptRoutes,
  }),
  plan: route(paths.plan, 'visitor', 'Sowings that are planned', {
    params: inNursery,
    answer: plan.KeptPlan,
  }),
  setPlan: route(paths.setPlan, 'grower', 'Plan sowings', {
    params: inNursery,
    body: plan.EditedPlan,
    answer: plan.KeptPlan,
  }),
} as const;
