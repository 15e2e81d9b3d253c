import type { NewStage } from '@kauri/core/contract';
import { lot, observation } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { move } from './ledger';
import { mustFit, standIn } from './sow';

/** A lot of plants that already stand: pricked out of a flat, set apart from a lot, or severed from a branch. */
export interface StandingLot {
  values: Omit<typeof lot.$inferInsert, 'nurseryId'>;
  count: number;
  stage: NewStage;
  /** The day it begins to stand by itself; the day it was sown where left out. */
  on?: string;
  /** The day it was seen up, where that was before it stood by itself. */
  upOn?: string;
}

/** Begins a lot with plants that are up: its ledger from supply to standing, its place, its first count. */
export async function beginStanding(
  work: Work,
  { values, count, stage, on = values.sownOn, upOn = on }: StandingLot,
): Promise<void> {
  const { nurseryId } = work;
  const { id } = values;
  await mustFit(work, stage);
  await work.tx.insert(lot).values({ nurseryId, ...values });
  await standIn(work, id, stage, on);
  await work.tx.insert(observation).values({
    nurseryId,
    id: stage.id,
    lotId: id,
    kind: 'emergence',
    onDate: upOn,
    values: { kind: 'emergence', counted: count },
    note: '',
  });
  await move(work, id, id, on, [
    { from: 'supply', to: 'seed', count },
    { from: 'seed', to: 'sown', count },
    { from: 'sown', to: 'standing', count },
  ]);
}
