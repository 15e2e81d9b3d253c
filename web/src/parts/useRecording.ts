import { isoOf } from '@kauri/core';
import type { BodyInputOf } from '@kauri/core/contract';
import { computed } from 'vue';
import { useDevice } from '../stores/device';
import { saidOf, useMessages } from '../stores/messages';
import { useNursery } from '../stores/nursery';
import { useSeason } from '../stores/season';
import type { ShownLot } from './useLots';
import { useDraft } from './useDraft';
import { useSaving } from './useSaving';
import { useSeen } from './useSeen';
import { useTakeBack } from './useTakeBack';

type Recording =
  'countEmergence' | 'measureLot' | 'pullRoots' | 'shiftLot' | 'inspectRoots' | 'liftLot' | 'writeOff';

/**
 * One record on a lot: its draft with day and note, its saving, and the undo offered afterwards.
 * @param initial the fields of this record as they are before anything is typed
 */
export function useRecording<N extends Recording, F extends object>(
  name: N,
  lot: () => ShownLot,
  initial: F,
) {
  const nursery = useNursery();
  const season = useSeason();
  const messages = useMessages();
  const device = useDevice();
  const { takeBack } = useTakeBack();
  const lotId = lot().row.id;
  const key = `${name}.${lotId}`;
  const { draft, clear, form } = useDraft(key, { ...initial, on: '', note: '' });
  const saving = useSaving(key);
  const seen = useSeen(() => [lot().row]);

  /** The day of the record: as typed, else the ribbon's date, never one still to come. */
  const on = computed({
    get: () => draft.value.on || isoOf(Math.min(season.view, season.today)),
    set: (day: string) => (draft.value.on = day),
  });

  /** @returns whether it was taken */
  async function record(
    fields: Omit<BodyInputOf<N>, 'id' | 'on' | 'note' | 'seen'>,
    said: string,
    { keepOpen = false } = {},
  ): Promise<boolean> {
    const body = { ...fields, on: on.value, note: draft.value.note, seen: seen.of(lotId) };
    const params = { ...nursery.params, lot: lotId };
    let entry = '';
    const outcome = await saving.save(body, (id) => {
      entry = id;
      const write = { ...body, id } as unknown as BodyInputOf<N> & { id: string };
      return device.write(name, params as never, write, said, form());
    });
    if (outcome === null) {
      seen.told(saving.fault.value);
      return false;
    }
    if (!keepOpen) clear();
    messages.say(saidOf(outcome, said), () => takeBack(lotId, entry, said));
    return true;
  }
  return { draft, on, record, clear, ...saving };
}
