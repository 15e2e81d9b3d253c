import type { Path } from '../route';

/** Lots and their records: method and path of every route. */
export const lotsPaths = {
  lots: ['GET', '/nurseries/:nursery/lots'],
  lotStamps: ['GET', '/nurseries/:nursery/lot-stamps'],
  lotRecords: ['GET', '/nurseries/:nursery/lot-records'],
  evidence: ['GET', '/nurseries/:nursery/evidence'],
  lot: ['GET', '/nurseries/:nursery/lots/:lot'],
  sowLot: ['POST', '/nurseries/:nursery/lots'],
  correctSowing: ['PUT', '/nurseries/:nursery/lots/:lot/sowing'],
  takeBackSowing: ['POST', '/nurseries/:nursery/lots/:lot/sowing/undo'],
  editLot: ['PUT', '/nurseries/:nursery/lots/:lot'],
  shiftLot: ['POST', '/nurseries/:nursery/lots/:lot/shifts'],
  prickOut: ['POST', '/nurseries/:nursery/lots/:lot/prick-out'],
  splitLot: ['POST', '/nurseries/:nursery/lots/:lot/split'],
  countEmergence: ['POST', '/nurseries/:nursery/lots/:lot/emergence'],
  measureLot: ['POST', '/nurseries/:nursery/lots/:lot/sizes'],
  pullRoots: ['POST', '/nurseries/:nursery/lots/:lot/pulls'],
  liftLot: ['POST', '/nurseries/:nursery/lots/:lot/lifts'],
  writeOff: ['POST', '/nurseries/:nursery/lots/:lot/losses'],
  undoTogether: ['POST', '/nurseries/:nursery/entries/undo'],
  undoEntry: ['POST', '/nurseries/:nursery/lots/:lot/entries/:entry/undo'],
} as const satisfies Record<string, Path>;
