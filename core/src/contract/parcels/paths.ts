import type { Path } from '../route';

/** Lifted trees, and what becomes of them: method and path of every route. */
export const parcelPaths = {
  parcels: ['GET', '/nurseries/:nursery/parcels'],
  putParcel: ['PUT', '/nurseries/:nursery/parcels/:parcel'],
  setAside: ['POST', '/nurseries/:nursery/asides'],
  look: ['POST', '/nurseries/:nursery/looks'],
  takeBackLook: ['POST', '/nurseries/:nursery/looks/:look/undo'],
  papers: ['GET', '/nurseries/:nursery/papers'],
  setPapers: ['PUT', '/nurseries/:nursery/papers'],
  grading: ['GET', '/nurseries/:nursery/grading'],
  setGrading: ['PUT', '/nurseries/:nursery/grading'],
  liftingPlan: ['GET', '/nurseries/:nursery/lifting-plan'],
  setLiftingPlan: ['PUT', '/nurseries/:nursery/lifting-plan'],
  sendTrees: ['POST', '/nurseries/:nursery/sendings'],
  takeBackSending: ['POST', '/nurseries/:nursery/sendings/:sending/undo'],
  bringBack: ['POST', '/nurseries/:nursery/sendings/:sending/returns'],
  takeBackReturn: ['POST', '/nurseries/:nursery/sendings/:sending/returns/:returned/undo'],
} as const satisfies Record<string, Path>;
