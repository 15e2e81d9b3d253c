import { say } from '@kauri/core';
import type { BodyOf, LotDetail, ParamsOf, RouteName } from '@kauri/core/contract';
import { and, eq } from 'drizzle-orm';
import { note } from '../../db/journal';
import { lot } from '../../db/schema/index';
import type { NurseryCall, Work } from '../../http/context';
import { Refusal, staleEdit } from '../../http/problems';
import type { lotsRoutes } from '@kauri/core/contract';
import type { HandlersOf } from '../../http/context';
import { workOf } from '../../nursery/work';
import { evidenceOf } from './evidence';
import { lotDetail, lotDetails } from './lotDetail';
import { lotPage, lotRowsOf } from './lotRows';
import { lockLot } from './locked';
import { countEmergence, liftLot, measureLot, pullRoots, writeOff } from './records';
import { lotStamps } from './stamps';
import { undoEntry, undoTogether } from './undo';
import { prickOut } from './prickOut';
import { shiftLot } from './shift';
import { correctSowing, takeBackSowing } from './correctSowing';
import { sowLot } from './sow';
import { splitLot } from './split';

type Recording = 'shiftLot' | 'countEmergence' | 'measureLot' | 'pullRoots' | 'liftLot' | 'writeOff';

/** A record on a lot: does it, then answers with the lot as it stands. */
function recording<N extends Recording>(
  write: (work: Work, lotId: string, body: BodyOf<N>) => Promise<void>,
) {
  return async (call: NurseryCall<N>): Promise<LotDetail> => {
    const { lot: lotId } = call.params as ParamsOf<Recording>;
    await write(await workOf(call as NurseryCall<RouteName>), lotId, call.body);
    return lotDetail(call.tx, call.nurseryId, lotId);
  };
}

async function editLot(work: Work, lotId: string, body: BodyOf<'editLot'>): Promise<void> {
  const before = await lockLot(work, lotId);
  if (before.version !== body.version) {
    throw staleEdit(say`this lot`, before);
  }
  if (body.leafFallOn !== null && (body.leafFallOn < before.sownOn || body.leafFallOn > work.today)) {
    throw new Refusal(
      422,
      'invalid',
      say`Leaf fall is seen between sowing, ${before.sownOn}, and today, ${work.today}.`,
    );
  }
  const { targetHeightCm, leafFallOn, extraWinters, note: words } = body;
  await work.tx
    .update(lot)
    .set({ targetHeightCm, leafFallOn, extraWinters, note: words, version: before.version + 1 })
    .where(and(eq(lot.nurseryId, work.nurseryId), eq(lot.id, lotId)));
  await note(
    work,
    'change lot',
    lotId,
    {
      targetHeightCm: before.targetHeightCm,
      leafFallOn: before.leafFallOn,
      extraWinters: before.extraWinters,
      note: before.note,
    },
    body,
  );
}

export const lotHandlers: HandlersOf<typeof lotsRoutes> = {
  lots: ({ tx, nurseryId, query }) => lotPage(tx, nurseryId, query.after ?? '', query.limit),

  lotStamps: ({ tx, nurseryId, query }) => lotStamps(tx, nurseryId, query.ids ?? null),

  async lotRecords({ tx, nurseryId, query }) {
    const lots = await lotRowsOf(tx, nurseryId, query.ids);
    return {
      lots,
      evidence: await evidenceOf(
        tx,
        nurseryId,
        lots.map((row) => row.id),
      ),
    };
  },

  async evidence({ tx, nurseryId, query }) {
    const { lots, next } = await lotPage(tx, nurseryId, query.after ?? '', query.limit);
    return {
      evidence: await evidenceOf(
        tx,
        nurseryId,
        lots.map((row) => row.id),
      ),
      next,
    };
  },

  lot: ({ tx, nurseryId, params }) => lotDetail(tx, nurseryId, params.lot),

  async sowLot(call) {
    await sowLot(await workOf(call), call.body);
    return lotDetail(call.tx, call.nurseryId, call.body.id);
  },

  async correctSowing(call) {
    await correctSowing(await workOf(call), call.params.lot, call.body);
    return lotDetail(call.tx, call.nurseryId, call.params.lot);
  },

  async takeBackSowing(call) {
    const { id, code } = await takeBackSowing(await workOf(call), call.params.lot, call.body);
    return { id, code };
  },

  async editLot(call) {
    await editLot(await workOf(call), call.params.lot, call.body);
    return lotDetail(call.tx, call.nurseryId, call.params.lot);
  },

  countEmergence: recording<'countEmergence'>(countEmergence),
  measureLot: recording<'measureLot'>(measureLot),
  pullRoots: recording<'pullRoots'>(pullRoots),
  liftLot: recording<'liftLot'>(liftLot),
  writeOff: recording<'writeOff'>(writeOff),
  shiftLot: recording<'shiftLot'>(shiftLot),

  async prickOut(call) {
    const { lot: lotId } = call.params;
    await prickOut(await workOf(call), lotId, call.body);
    const ids = call.body.batches.map(({ id }) => id);
    const [parent, ...lots] = await lotDetails(call.tx, call.nurseryId, [lotId, ...ids]);
    return { parent, lots };
  },

  async splitLot(call) {
    const { lot: lotId } = call.params;
    await splitLot(await workOf(call), lotId, call.body);
    const [parent, ...lots] = await lotDetails(call.tx, call.nurseryId, [lotId, call.body.lotId]);
    return { parent, lots };
  },

  async undoTogether(call) {
    await undoTogether(await workOf(call), call.body);
    const ids = call.body.entries.map((part) => part.lot);
    return { lots: await lotDetails(call.tx, call.nurseryId, ids) };
  },

  async undoEntry(call) {
    await undoEntry(await workOf(call), call.params.lot, call.params.entry, call.body);
    return lotDetail(call.tx, call.nurseryId, call.params.lot);
  },
};
