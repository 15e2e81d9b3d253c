import { JustId } from '../basics';
import { atParcel, atSending, inNursery, route } from '../route';
import { parcelPaths as paths } from './paths';
import * as parcels from './schemas';

/** Lifted trees, where they lie, and whom they were sent to. */
export const parcelRoutes = {
  parcels: route(paths.parcels, 'visitor', 'Lifted trees, and what was sent', {
    params: inNursery,
    answer: parcels.Parcels,
  }),
  putParcel: route(paths.putParcel, 'crew', 'Put lifted trees in another place', {
    params: atParcel,
    body: parcels.PutParcel,
    answer: parcels.Parcels,
  }),
  sendTrees: route(paths.sendTrees, 'crew', 'Send lifted trees, for a line of an order or without', {
    params: inNursery,
    body: parcels.SendTrees,
    answer: parcels.Parcels,
  }),
  takeBackSending: route(paths.takeBackSending, 'crew', 'Take a sending back that was written by mistake', {
    params: atSending,
    body: JustId,
    answer: parcels.Parcels,
  }),
} as const;
