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
  return async (lot: string): Promise<void> => {
    const body = { id: newId(), on: season.todayIso };
    const { id } = await call('takeBackSowing', { params: { ...nursery.params, lot }, body });
    nursery.dropLot(id);
    void seed.load(true).catch(() => undefined);
  };
}
