import { entriesOf, say } from '@kauri/core';
import { v7 as newId } from 'uuid';
import { KEPT } from '../device/keptAnswer';
import { useDevice } from '../stores/device';
import { useNursery } from '../stores/nursery';
import { useSeason } from '../stores/season';

/** Takes records back: those not sent yet are let go of, the others reversed, now or when there is a network. */
export function useTakeBack() {
  const device = useDevice();
  const nursery = useNursery();
  const season = useSeason();

  /** Lets go of the act that made some records, if it made no other and was not sent yet. */
  async function isUnsent(entries: readonly string[]): Promise<boolean> {
    const act = device.acts.find(({ write }) => {
      const made = entriesOf(write);
      return made.length === entries.length && made.every(({ entry }) => entries.includes(entry));
    });
    return act !== undefined && (await device.takeBack(act.id));
  }

  return {
    /** @param said what is taken back, as it is listed while that waits */
    async takeBack(lot: string, entry: string, said: string): Promise<void> {
      if (await isUnsent([entry])) return;
      const body = { id: newId(), on: season.todayIso };
      const kept = await device.write(
        'undoEntry',
        { ...nursery.params, lot, entry },
        body,
        say`Take back: ${said}`,
      );
      // Lots that came of it went with it.
      if (kept !== KEPT && [...nursery.lots.values()].some(({ parentLotId }) => parentLotId === lot))
        await nursery.fetchLots();
    },
    /** Records of several lots, all or none. */
    async takeBackTogether(entries: readonly { lot: string; entry: string }[], said: string): Promise<void> {
      if (await isUnsent(entries.map(({ entry }) => entry))) return;
      const body = { id: newId(), on: season.todayIso, entries: [...entries] };
      await device.write('undoTogether', nursery.params, body, say`Take back: ${said}`);
    },
  };
}
