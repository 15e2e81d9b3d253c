import { bedGeometry, containerVolume, traysOnBench, say, inWords } from '@kauri/core';
import type { BodyOf, NewStage } from '@kauri/core/contract';
import { and, eq } from 'drizzle-orm';
import { note } from '../../db/journal';
import { containerType, lot, place, stage } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { takeFromStore } from '../seed/store';
import { move } from './ledger';

const kindWords = inWords({
  bed: 'a bed',
  bench: 'a bench',
  ground: 'standing-out ground',
  bay: 'a heel-in bay',
});

/** Sows a lot: the lot, where it stands, and its first two movements. */
export async function sowLot(work: Work, body: BodyOf<'sowLot'>): Promise<void> {
  if (body.sownOn > work.today) {
    throw new Refusal(422, 'not-yet', say`${body.sownOn} is still to come; today is ${work.today}.`, {
      fields: [{ path: 'sownOn', message: say`Today is ${work.today}.` }],
    });
  }
  await mustFit(work, body.stage);
  const { nurseryId } = work;
  await takeFromStore(work, body);
  const { id, stage: s, seeds, note: words, ...values } = body;
  await work.tx.insert(lot).values({ nurseryId, id, ...values, note: words });
  await standIn(work, id, s, body.sownOn);
  await move(work, id, id, body.sownOn, [
    { from: 'supply', to: 'seed', count: seeds },
    { from: 'seed', to: 'sown', count: seeds },
  ]);
  await note(work, 'sow', id, null, body);
}

/** Stands a lot in a place from a day on. */
export async function standIn(work: Work, lotId: string, s: NewStage, startedOn: string): Promise<void> {
  await work.tx
    .insert(stage)
    .values({ nurseryId: work.nurseryId, id: s.id, lotId, startedOn, ...stoodIn(s) });
}

/** What a stage stands in, as it is kept. */
export const stoodIn = (s: NewStage) => ({
  placeId: s.placeId,
  ...(s.kind === 'container'
    ? { containerTypeId: s.containerTypeId, trays: s.trays, densityPerM2: null, areaM2: null }
    : { containerTypeId: null, trays: null, densityPerM2: s.densityPerM2, areaM2: s.areaM2 }),
});

/** A stage must go where its kind can stand, and be no larger than the place itself. */
export async function mustFit(work: Work, s: NewStage): Promise<void> {
  const [there] = await work.tx
    .select()
    .from(place)
    .where(and(eq(place.nurseryId, work.nurseryId), eq(place.id, s.placeId)));
  if (!there) throw new Refusal(422, 'no-such-place', say`Choose a place of this nursery.`);
  if (s.kind === 'bed') {
    if (there.kind !== 'bed')
      throw new Refusal(
        422,
        'invalid',
        say`${there.name} is ${kindWords[there.kind]}; a bed lot needs a bed.`,
      );
    const area = bedGeometry(there.design as Parameters<typeof bedGeometry>[0]).value.insideAreaM2;
    if (s.areaM2 > area * 1.001)
      throw new Refusal(
        422,
        'invalid',
        say`${there.name} has ${area.toFixed(2)} m² inside; ${s.areaM2} m² does not fit.`,
        { fields: [{ path: 'stage.areaM2', message: say`Room for ${area.toFixed(2)} m².` }] },
      );
    return;
  }
  if (there.kind === 'bed')
    throw new Refusal(422, 'invalid', say`${there.name} is a bed; trays need a bench.`);
  if (there.kind === 'bay')
    throw new Refusal(422, 'invalid', say`${there.name} is for lifted trees; trays need a bench or ground.`);
  const [container] = await work.tx
    .select()
    .from(containerType)
    .where(and(eq(containerType.nurseryId, work.nurseryId), eq(containerType.id, s.containerTypeId)));
  if (!container) throw new Refusal(422, 'no-such-container', say`Choose a container of this nursery.`);
  containerVolume(container.values);
  const bench = there.design as { lengthMm: number; widthMm: number };
  const room = traysOnBench(bench, {
    lengthMm: container.values.trayLengthMm,
    widthMm: container.values.trayWidthMm,
  }).value;
  if (s.trays > room)
    throw new Refusal(
      422,
      'invalid',
      say`${there.name} takes ${room} trays of ${container.values.name}; ${s.trays} do not fit.`,
      { fields: [{ path: 'stage.trays', message: say`Room for ${room}.` }] },
    );
}
