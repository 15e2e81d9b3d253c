import type { BodyInputOf } from '@kauri/core/contract';
import { isoOf, say } from '@kauri/core';
import { computed } from 'vue';
import { childOf } from '../../parts/childOf';
import { useDraft } from '../../parts/useDraft';
import { useLots, type ShownLot } from '../../parts/useLots';
import { useSaving } from '../../parts/useSaving';
import { useSeen } from '../../parts/useSeen';
import { useTakeBack } from '../../parts/useTakeBack';
import { useDevice } from '../../stores/device';
import { saidOf, useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useSeason } from '../../stores/season';

type Together = 'recordEvent' | 'recordCare' | 'carryLots';

/**
 * One record on a lot, or on all the lots of its place at once: its draft with day and note, its saving, and the undo
 * offered afterwards, which takes every lot’s part back.
 */
export function useLotsTogether<N extends Together, F extends object>(
  name: N,
  lot: () => ShownLot,
  initial: F,
) {
  const nursery = useNursery();
  const season = useSeason();
  const messages = useMessages();
  const device = useDevice();
  const { takeBackTogether } = useTakeBack();
  const { lots } = useLots();
  const { id: lotId, stage } = lot().row;
  const key = `${name}.${lotId}`;
  const { draft, clear, form } = useDraft(key, { ...initial, on: '', note: '', whole: false });
  const saving = useSaving(key);
  const seen = useSeen(() => [lot().row, ...lots.value.map(({ row }) => row)]);

  const on = computed({
    get: () => draft.value.on || isoOf(Math.min(season.view, season.today)),
    set: (day: string) => (draft.value.on = day),
  });
  /** Lots that stand in the same place with something in it, this one first. */
  const together = computed(() => [
    lot(),
    ...lots.value.filter(
      ({ row }) => row.id !== lotId && row.stage.placeId === stage.placeId && row.held.standing > 0,
    ),
  ]);
  const place = computed(() => nursery.lookup.places.get(stage.placeId)?.place.name ?? say`this place`);

  /** @returns whether it was taken */
  async function record(
    body: Omit<BodyInputOf<N>, 'id' | 'on' | 'note' | 'lots'> & { lots: readonly { lotId: string }[] },
    said: string,
  ): Promise<boolean> {
    let entries: { lotId: string; id: string }[] = [];
    const whole = { ...body, on: on.value, note: draft.value.note };
    const outcome = await saving.save(whole, (id) => {
      // Each lot’s part has an id of its own that a retry finds again.
      entries = body.lots.map((part, i) => ({
        ...part,
        seen: seen.of(part.lotId),
        id: i === 0 ? id : childOf(id, i),
        ...(name === 'carryLots' ? { stageId: childOf(id, 1000 + i) } : {}),
      }));
      const write = { ...whole, id: childOf(id, 999), lots: entries } as unknown as BodyInputOf<N> & {
        id: string;
      };
      return device.write(name, nursery.params as never, write, said, form());
    });
    if (outcome === null) {
      seen.told(saving.fault.value);
      return false;
    }
    clear();
    messages.say(saidOf(outcome, said), () =>
      takeBackTogether(
        entries.map(({ lotId: lot, id: entry }) => ({ lot, entry })),
        said,
      ),
    );
    return true;
  }
  return { draft, on, record, clear, together, place, ...saving };
}
