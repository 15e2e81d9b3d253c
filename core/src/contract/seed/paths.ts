import type { Path } from '../route';

/** Seed room: method and path of every route. */
export const seedPaths = {
  seedRoom: ['GET', '/nurseries/:nursery/seed'],
  labelWords: ['GET', '/nurseries/:nursery/labels'],
  setLabelWords: ['PUT', '/nurseries/:nursery/labels'],
  receiveSeed: ['POST', '/nurseries/:nursery/seed-lots'],
  importSeedLots: ['POST', '/nurseries/:nursery/seed-lots/import'],
  editSeedLot: ['PUT', '/nurseries/:nursery/seed-lots/:seedLot'],
  moveSeed: ['POST', '/nurseries/:nursery/seed-lots/:seedLot/moves'],
  testSeed: ['POST', '/nurseries/:nursery/seed-lots/:seedLot/tests'],
  startTreatments: ['POST', '/nurseries/:nursery/treatments'],
  checkTreatment: ['POST', '/nurseries/:nursery/treatments/:treatment/checks'],
  endTreatment: ['PUT', '/nurseries/:nursery/treatments/:treatment'],
  addStockBed: ['POST', '/nurseries/:nursery/stock-beds'],
  editStockBed: ['PUT', '/nurseries/:nursery/stock-beds/:stockBed'],
  cutStockBed: ['POST', '/nurseries/:nursery/stock-beds/:stockBed/cuts'],
  makeLayer: ['POST', '/nurseries/:nursery/layers'],
  checkLayer: ['POST', '/nurseries/:nursery/layers/:layer/checks'],
  severLayer: ['PUT', '/nurseries/:nursery/layers/:layer'],
  undoSeedRecord: ['POST', '/nurseries/:nursery/seed/records/:record/undo'],
  addSpecies: ['POST', '/nurseries/:nursery/species'],
  editSpecies: ['PUT', '/nurseries/:nursery/species/:species'],
} as const satisfies Record<string, Path>;
