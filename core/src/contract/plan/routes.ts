import { atOrder, atProposal, inNursery, route } from '../route';
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
  proposals: route(paths.proposals, 'visitor', 'Seasons that are proposed, or being planned', {
    params: inNursery,
    answer: plan.Proposals,
  }),
  propose: route(paths.propose, 'grower', 'Have a season planned, off the thread that answers', {
    params: inNursery,
    body: plan.NewProposal,
    answer: plan.Proposals,
  }),
  nameProposal: route(paths.nameProposal, 'grower', 'Name a proposed season', {
    params: atProposal,
    body: plan.NamedProposal,
    answer: plan.Proposals,
  }),
  stopProposal: route(paths.stopProposal, 'grower', 'Stop planning, and keep the best so far', {
    params: atProposal,
    body: plan.NoWords,
    answer: plan.Proposals,
  }),
  removeProposal: route(paths.removeProposal, 'grower', 'Throw a proposed season away', {
    params: atProposal,
    body: plan.NoWords,
    answer: plan.Proposals,
  }),
  chooseProposal: route(paths.chooseProposal, 'grower', 'Make a proposed season the plan', {
    params: atProposal,
    body: plan.ChosenProposal,
    answer: plan.KeptPlan,
  }),
} as const;
