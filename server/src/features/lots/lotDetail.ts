import { say } from '@kauri/core';
import type { LotDetail } from '@kauri/core/contract';
import type { Tx } from '../../db/tenant';
import { Refusal } from '../../http/problems';
import { evidenceOf } from './evidence';
import { lotRow } from './lotRows';

/** One lot with its records and journal. */
export async function lotDetail(tx: Tx, nurseryId: string, lotId: string): Promise<LotDetail> {
  const row = await lotRow(tx, nurseryId, lotId);
  if (!row) throw new Refusal(404, 'no-such-lot', say`There is no such lot in this nursery.`);
  const [evidence] = await evidenceOf(tx, nurseryId, [lotId]);
  const { rows } = await tx.$client.query<LotDetail['journal'][number]>(
    `select j.id, to_char(j.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as at, p.name as who, j.act, j.before, j.after
     from journal j join person p on p.id = j.person_id
     where j.nursery_id = $1 and j.subject_id = $2 order by j.at desc, j.id desc limit 200`,
    [nurseryId, lotId],
  );
  return { lot: row, evidence, journal: rows };
}

/** Several lots, each as {@link lotDetail} gives it. */
export async function lotDetails(tx: Tx, nurseryId: string, lotIds: readonly string[]): Promise<LotDetail[]> {
  const details: LotDetail[] = [];
  for (const lotId of lotIds) details.push(await lotDetail(tx, nurseryId, lotId));
  return details;
}
