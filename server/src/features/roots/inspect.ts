import { plugScoreOf, say } from '@kauri/core';
import type { BodyOf } from '@kauri/core/contract';
import { note } from '../../db/journal';
import { observation } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { move } from '../lots/ledger';
import { lockLot, mustBeRecordable } from '../lots/locked';

/** Records the roots of one pulled plant; a spoiled one leaves the lot. */
export async function inspectRoots(work: Work, lotId: string, body: BodyOf<'inspectRoots'>): Promise<void> {
  const row = await lockLot(work, lotId, body.seen);
  mustBeRecordable(work, row, body.on);
  const { standing } = row.held;
  if (standing === 0)
    throw new Refusal(422, 'none-standing', say`Nothing of ${row.code} stands; there is no plant to pull.`);
  if (body.spoiled && standing === 1)
    throw new Refusal(
      422,
      'last-plant',
      say`That is the last plant of ${row.code}. Put it back, or write it off if it is spoiled; nothing was recorded.`,
    );
  if (row.stage.containerTypeId === null && plugScoreOf(body.plant) !== null)
    throw new Refusal(
      422,
      'no-plugs',
      say`${row.code} stands in a bed: it has no plug to score. Leave the plug out.`,
    );
  const { id, on, plant, spoiled, note: words } = body;
  await work.tx.insert(observation).values({
    nurseryId: work.nurseryId,
    id,
    lotId,
    kind: 'root',
    onDate: on,
    values: { kind: 'root', plant, spoiled },
    note: words,
  });
  if (spoiled) await move(work, lotId, id, on, [{ from: 'standing', to: 'out:sampled', count: 1 }], words);
  await note(work, 'look at roots', lotId, null, body);
}
