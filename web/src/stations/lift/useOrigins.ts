import type { Parcel } from '@kauri/core/contract';
import { useArrivals } from '../../stores/arrivals';
import { useNursery } from '../../stores/nursery';
import { useSeed } from '../../stores/seed';
import { originOf } from './origins';

/** Where lifted trees come from, as papers say it: fetched when it is asked for. */
export function useOrigins() {
  const nursery = useNursery();
  const seed = useSeed();
  const arrivals = useArrivals();
  const load = () => Promise.all([seed.load(), nursery.lookBack(), arrivals.load()]);
  const of = ({ lotId }: Pick<Parcel, 'lotId'>): string =>
    originOf(lotId, {
      lot: (id) => nursery.lots.get(id),
      seedLot: (id) => seed.lotById.get(id),
      arrival: (id) => arrivals.all.find((one) => one.lotId === id),
    });
  return { load, of };
}
