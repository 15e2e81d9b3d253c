import { lookupFrom, type Lookup } from '@kauri/core';
import type { Climate, LearntValues } from '@kauri/core/contract';
import type { nursery } from '../../db/schema/index';
import type { Tx } from '../../db/tenant';
import { readValue } from '../../nursery/values';
import { catalogueOf } from './catalogue';

/** Everything of a nursery that forecasts look things up in, as its screens put it together. */
export async function nurseryLookup(
  tx: Tx,
  home: Pick<typeof nursery.$inferSelect, 'id' | 'latitudeDeg' | 'longitudeDeg'>,
): Promise<Lookup> {
  const of = { tx, nurseryId: home.id };
  const climate = await readValue(of, 'climate');
  const learnt = await readValue(of, 'learnt');
  const { value } = await readValue(of, 'site');
  return lookupFrom(await catalogueOf(tx, home.id), climate.value as Climate, learnt.value as LearntValues, {
    elements: value.elements,
    latitudeDeg: home.latitudeDeg,
    longitudeDeg: home.longitudeDeg,
  });
}
