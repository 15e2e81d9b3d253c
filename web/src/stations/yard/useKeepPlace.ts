import { say } from '@kauri/core';
import type { Place, PlaceBody } from '@kauri/core/contract';
import { call } from '../../api/client';
import { andTheirs, useEditing } from '../../parts/useEditing';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';

const edited = ({ version, place }: Place) => ({ version, body: place });

/** Keeps a new or a changed place. Where someone else changed the same of it meanwhile, both are shown before saving over. */
export function useKeepPlace(place: Place | undefined, key: string) {
  const nursery = useNursery();
  const messages = useMessages();
  const { busy, save, theirs, sentence, wrong } = useEditing<PlaceBody>(
    key,
    place ? edited(place) : { version: 0, body: {} as PlaceBody },
    (current) => edited(current as Place),
  );

  /** @returns the place as kept, or null when it was refused */
  async function keep(mine: PlaceBody): Promise<Place | null> {
    const kept = await save(mine, (id, version, body) =>
      place
        ? call('editPlace', {
            params: { ...nursery.params, place: place.id },
            body: { version, place: body },
          })
        : call('addPlace', { params: nursery.params, body: { id, place: body } }),
    );
    if (!kept) return null;
    nursery.takePlace(kept.answer);
    messages.say(say`${kept.answer.place.name} kept${kept.together ? andTheirs() : ''}.`);
    return kept.answer;
  }
  return { keep, busy, theirs, sentence, wrong: (path: string) => wrong(`place.${path}`) };
}
