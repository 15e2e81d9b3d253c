import type { Place, PlaceBody } from '@kauri/core/contract';
import { computed, ref } from 'vue';
import { call } from '../../api/client';
import { ProblemError } from '../../api/problem';
import { useSaving } from '../../parts/useSaving';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';

/** Keeps a new or a changed place. When someone else changed it meanwhile, both are shown before saving over. */
export function useKeepPlace(place: Place | undefined, key: string) {
  const nursery = useNursery();
  const messages = useMessages();
  const { busy, save, fault, sentence, wrong } = useSaving(key);
  const version = ref(place?.version ?? 0);
  const theirs = computed(() =>
    fault.value instanceof ProblemError && fault.value.kind === 'stale-edit'
      ? (fault.value.problem.current as Place)
      : null,
  );

  /** @returns the place as kept, or null when it was refused */
  async function keep(body: PlaceBody): Promise<Place | null> {
    if (theirs.value) version.value = theirs.value.version;
    const kept = await save({ body, version: version.value }, (id) =>
      place
        ? call('editPlace', {
            params: { ...nursery.params, place: place.id },
            body: { version: version.value, place: body },
          })
        : call('addPlace', { params: nursery.params, body: { id, place: body } }),
    );
    if (!kept) return null;
    nursery.takePlace(kept);
    messages.say(`${kept.place.name} kept.`);
    return kept;
  }
  return { keep, busy, theirs, sentence, wrong: (path: string) => wrong(`place.${path}`) };
}
