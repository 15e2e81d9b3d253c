import type { Evidence } from '@kauri/core/contract';
import { and, asc, eq, inArray, isNull } from 'drizzle-orm';
import { movement, observation, stage } from '../../db/schema/index';
import type { Tx } from '../../db/tenant';

type Observation = typeof observation.$inferSelect;

/** What is recorded of a lot before anything is. */
export function noEvidence(lotId: string): Evidence {
  return {
    lotId,
    counts: [],
    sizes: [],
    pulls: [],
    roots: [],
    events: [],
    care: [],
    shifts: [],
    stages: [],
    movements: [],
  };
}

/** Records of some lots as forecasts read them: three queries however many lots. */
export async function evidenceOf(tx: Tx, nurseryId: string, lotIds: string[]): Promise<Evidence[]> {
  if (lotIds.length === 0) return [];
  const seen = await tx
    .select()
    .from(observation)
    .where(
      and(
        eq(observation.nurseryId, nurseryId),
        inArray(observation.lotId, lotIds),
        isNull(observation.struckAt),
      ),
    )
    .orderBy(asc(observation.onDate), asc(observation.id));
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
  for (const row of seen) addObservation(byLot.get(row.lotId)!, row);
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

function addObservation(evidence: Evidence, row: Observation): void {
  const base = { entry: row.id, on: row.onDate };
  const { values, note } = row;
  switch (values.kind) {
    case 'emergence':
      evidence.counts.push({
        ...base,
        count: values.counted,
        multi: values.multi ?? null,
        damaged: values.damaged ?? null,
        patches: values.patches ?? [],
        note,
      });
      break;
    case 'size':
      if (row.heightN)
        evidence.sizes.push({
          ...base,
          what: 'height',
          n: row.heightN,
          mean: row.heightMean!,
          sd: row.heightSd!,
        });
      if (row.diameterN)
        evidence.sizes.push({
          ...base,
          what: 'diameter',
          n: row.diameterN,
          mean: row.diameterMean!,
          sd: row.diameterSd!,
        });
      break;
    case 'shift':
      evidence.shifts.push({ ...base, to: values.to, note });
      break;
    case 'event': {
      const { what, hit, dead, patch, photos } = values;
      evidence.events.push({ ...base, what, hit, dead, patch, photos, note });
      break;
    }
    case 'care':
      evidence.care.push({ ...base, done: values.done, note });
      break;
    case 'root':
      evidence.roots.push({ ...base, plant: values.plant, spoiled: values.spoiled, note });
      break;
    case 'pull':
      evidence.pulls.push({ ...base, scores: values.scores, spoiled: values.spoiled, note });
      break;
  }
}
