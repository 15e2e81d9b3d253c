import type { Path } from '../route';

/** Lifted trees, and what becomes of them: method and path of every route. */
export const parcelPaths = {
  parcels: ['GET', '/nurseries/:nursery/parcels'],
  putParcel: ['PUT', '/nurseries/:nursery/parcels/:parcel'],
  sendTrees: ['POST', '/nurseries/:nursery/sendings'],
  takeBackSending: ['POST', '/nurseries/:nursery/sendings/:sending/undo'],
} as const satisfies Record<string, Path>;
