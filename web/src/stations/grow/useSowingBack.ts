import { v7 as newId } from 'uuid';
import { call } from '../../api/client';
import { useNursery } from '../../stores/nursery';
import { useSeason } from '../../stores/season';
import { useSeed } from '../../stores/seed';

/** Takes a sowing back: the lot is gone from every view, its seed is in the bag again. */
export function useSowingBack() {
  const nursery = useNursery();
  const season = useSeason();
  const seed = useSeed();
  /** @param id of the write: sent again after a lost answer, it is taken once */
  return async (lot: string, id = newId()): Promise<void> => {
    const body = { id, on: season.todayIso };
    await call('takeBackSowing', { params: { ...nursery.params, lot }, body });
    nursery.dropLot(lot);
    void seed.load(true).catch(() => undefined);
  };
}
