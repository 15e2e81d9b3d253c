import type { Path } from '../route';

/** Yard: places, containers, media, plan: method and path of every route. */
export const yardPaths = {
  day: ['GET', '/nurseries/:nursery/day'],
  catalogue: ['GET', '/nurseries/:nursery/catalogue'],
  addPlace: ['POST', '/nurseries/:nursery/places'],
  editPlace: ['PUT', '/nurseries/:nursery/places/:place'],
  site: ['GET', '/nurseries/:nursery/site'],
  arrangeYard: ['POST', '/nurseries/:nursery/site'],
  setPrices: ['PUT', '/nurseries/:nursery/prices'],
  addDesign: ['POST', '/nurseries/:nursery/designs'],
  editDesign: ['PUT', '/nurseries/:nursery/designs/:design'],
  designVersions: ['GET', '/nurseries/:nursery/designs/:design'],
  checks: ['GET', '/nurseries/:nursery/checks'],
  checkPlace: ['POST', '/nurseries/:nursery/places/:place/checks'],
  addContainer: ['POST', '/nurseries/:nursery/containers'],
  editContainer: ['PUT', '/nurseries/:nursery/containers/:container'],
  addMedium: ['POST', '/nurseries/:nursery/media'],
  editMedium: ['PUT', '/nurseries/:nursery/media/:medium'],
  stock: ['GET', '/nurseries/:nursery/stock'],
  moveStock: ['POST', '/nurseries/:nursery/media/:medium/stock'],
} as const satisfies Record<string, Path>;
