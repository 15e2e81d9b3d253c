import type { Path } from '../route';

/** Water: method and path of every route. */
export const waterPaths = {
  water: ['GET', '/nurseries/:nursery/water'],
  setWater: ['PUT', '/nurseries/:nursery/water'],
  watering: ['GET', '/nurseries/:nursery/watering'],
  sendProgramme: ['POST', '/nurseries/:nursery/watering/programme'],
  readController: ['POST', '/nurseries/:nursery/watering/readings'],
  failStandIn: ['POST', '/nurseries/:nursery/watering/fault'],
} as const satisfies Record<string, Path>;
