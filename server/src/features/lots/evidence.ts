import { noEvidence } from '@kauri/core';
import type { Evidence } from '@kauri/core/contract';
import { and, asc, eq, inArray } from 'drizzle-orm';
import { movement, stage, type observation } from '../../db/schema/index';
import type { Tx } from '../../db/tenant';

type Row = typeof observation.$inferSelect;
/** One row of `OBSERVATIONS`. */
type Observed = [
  lotId: string,
  id: string,
  on: string,
  values: Row['values'],
  note: string,
  heightN: number | null,
  heightMean: number | null,
  heightSd: number | null,
  diameterN: number | null,
  diameterMean: number | null,
  diameterSd: number | null,
];
const OBSERVATIONS = `
  select lot_id, id, on_date::text, "values", note, height_n, height_mean, height_sd, diameter_n, diameter_mean, diameter_sd
  from observation where nursery_id = $1 and lot_id = any($2::uuid[]) and struck_at is null order by on_date, id`;

/** Records of some lots as forecasts read them: three queries however many lots. */
export async function evidenceOf(tx: Tx, nurseryId: string, lotIds: string[]): Promise<Evidence[]> {
  if (lotIds.length === 0) return [];
  // A nursery has these by the hundred thousand: read as bare rows, in the order they are in.
  const { rows: seen } = await tx.$client.query<Observed>({
    name: 'observations-of-lots',
    text: OBSERVATIONS,
    values: [nurseryId, lotIds],
    rowMode: 'array',
  });
  const moved = await tx
    .select()
    .from(movement)
    .where(and(eq(movement.nurseryId, nurseryId), inArray(movement.lotId, lotIds)))
    .orderBy(asc(movement.onDate), asc(movement.id));
  const stood = await tx
    .select()
    .from(stage)
    .where(and(eq(stage.nurseryId, nurseryId), inArray(stage.lotId, lotIds)))
    .orderBy(asc(stage.startedOn), asc(stage.id));
  const byLot = new Map(lotIds.map((lotId) => [lotId, noEvidence(lotId)]));
  for (const row of seen) addObservation(byLot.get(row[0])!, row);
  for (const { nurseryId: _, lotId, ...row } of stood) byLot.get(lotId)!.stages.push(row);
  for (const m of moved) {
    byLot.get(m.lotId)!.movements.push({
      id: m.id,
      entry: m.entryId,
      on: m.onDate,
      from: m.fromAccount,
      to: m.toAccount,
      count: m.count,
      note: m.note,
      reverses: m.reverses,
    });
  }
  return [...byLot.values()];
}

function addObservation(
  evidence: Evidence,
  [, entry, on, values, note, heightN, heightMean, heightSd, diameterN, diameterMean, diameterSd]: Observed,
): void {
  switch (values.kind) {
    case 'emergence': {
      const { counted, multi, damaged, patches } = values;
      evidence.counts.push({
        entry,
        on,
        count: counted,
        multi: multi ?? null,
        damaged: damaged ?? null,
        patches: patches ?? [],
        note,
      });
      break;
    }
    case 'size':
      if (heightN)
        evidence.sizes.push({ entry, on, what: 'height', n: heightN, mean: heightMean!, sd: heightSd! });
      if (diameterN)
        evidence.sizes.push({
          entry,
          on,
          what: 'diameter',
          n: diameterN,
          mean: diameterMean!,
          sd: diameterSd!,
        });
      break;
    case 'shift':
      evidence.shifts.push({ entry, on, to: values.to, roots: values.roots ?? null, note });
      break;
    case 'event': {
      const { what, hit, dead, patch, photos } = values;
      evidence.events.push({ entry, on, what, hit, dead, patch, photos, note });
      break;
    }
    case 'care':
      evidence.care.push({ entry, on, done: values.done, note });
      break;
    case 'root':
      evidence.roots.push({ entry, on, plant: values.plant, spoiled: values.spoiled, note });
      break;
    case 'cull':
      evidence.culls.push({ entry, on, reasons: values.reasons });
      break;
    case 'pull':
      evidence.pulls.push({ entry, on, scores: values.scores, spoiled: values.spoiled, note });
      break;
  }
}
