import type { growingRoutes, LotDetail, RouteName } from '@kauri/core/contract';
import type { HandlersOf, NurseryCall } from '../../http/context';
import { lotDetails } from '../lots/lotDetail';
import { workOf } from '../../nursery/work';
import { recordCare } from './care';
import { carryLots } from './carry';
import { recordEvent } from './events';
import { keepPhoto, photoOf } from './photos';

export const growingHandlers: HandlersOf<typeof growingRoutes> = {
  async recordEvent(call) {
    await recordEvent(await workOf(call), call.body);
    return { lots: await those(call, call.body.lots) };
  },
  async recordCare(call) {
    await recordCare(await workOf(call), call.body);
    return { lots: await those(call, call.body.lots) };
  },
  async carryLots(call) {
    await carryLots(await workOf(call), call.body);
    return { lots: await those(call, call.body.lots) };
  },
  keepPhoto: async (call) => keepPhoto(await workOf(call), call.params.photo, call.req),
  async photo(call) {
    const jpeg = await photoOf(call, call.params.photo);
    // A photo never changes, but it is its nursery’s: kept by this browser alone.
    call.res.setHeader('Cache-Control', 'private, max-age=31536000, immutable');
    return jpeg;
  },
};

const those = (
  { tx, nurseryId }: Pick<NurseryCall<RouteName>, 'tx' | 'nurseryId'>,
  lots: readonly { lotId: string }[],
): Promise<LotDetail[]> =>
  lotDetails(
    tx,
    nurseryId,
    lots.map((l) => l.lotId),
  );
