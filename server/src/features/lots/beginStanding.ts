import type { NewStage } from '@kauri/core/contract';
import { lot, observation } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { move } from './ledger';
import { mustFit, standIn } from './sow';

/** A lot of plants that already stand: pricked out of a flat, or severed from a branch. */
export interface StandingLot {
  values: Omit<typeof lot.$inferInsert, 'nurseryId'>;
  count: number;
  stage: NewStage;
}

/** Begins a lot with plants that are up: its ledger from supply to standing, its place, its first count. */
export async function beginStanding(work: Work, { values, count, stage }: StandingLot): Promise<void> {
  const { nurseryId } = work;
  const { id, sownOn } = values;
  await mustFit(work, stage);
  await work.tx.insert(lot).values({ nurseryId, ...values });
  await standIn(work, id, stage, sownOn);
  await work.tx.insert(observation).values({
    nurseryId,
    id: stage.id,
    lotId: id,
    kind: 'emergence',
    onDate: sownOn,
    values: { kind: 'emergence', counted: count },
    note: '',
  });
  await move(work, id, id, sownOn, [
    { from: 'supply', to: 'seed', count },
    { from: 'seed', to: 'sown', count },
    { from: 'sown', to: 'standing', count },
  ]);
}
