import type { Path } from '../route';

/** What is wanted: method and path of every route. */
export const planPaths = {
  orders: ['GET', '/nurseries/:nursery/orders'],
  addOrders: ['POST', '/nurseries/:nursery/orders'],
  editOrder: ['PUT', '/nurseries/:nursery/orders/:order'],
  removeOrder: ['POST', '/nurseries/:nursery/orders/:order/removal'],
  routes: ['GET', '/nurseries/:nursery/routes'],
  setRoutes: ['PUT', '/nurseries/:nursery/routes'],
  plan: ['GET', '/nurseries/:nursery/plan'],
  setPlan: ['PUT', '/nurseries/:nursery/plan'],
  proposals: ['GET', '/nurseries/:nursery/proposals'],
  propose: ['POST', '/nurseries/:nursery/proposals'],
  nameProposal: ['PUT', '/nurseries/:nursery/proposals/:proposal'],
  stopProposal: ['POST', '/nurseries/:nursery/proposals/:proposal/stop'],
  removeProposal: ['POST', '/nurseries/:nursery/proposals/:proposal/removal'],
  chooseProposal: ['POST', '/nurseries/:nursery/proposals/:proposal/choice'],
} as const satisfies Record<string, Path>;
