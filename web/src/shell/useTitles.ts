import { useTitle } from '@vueuse/core';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { useNursery } from '../stores/nursery';
import { thing } from '../parts/useThing';
import { pageWords, titleWords } from '../words/pages';

/** Names the page in the browser’s tab: the lot, place or planting it is about first, then the page and the nursery. */
export function useTitles(): void {
  const route = useRoute();
  const nursery = useNursery();
  const named = computed(() => {
    const id = (name: string) => route.params[name] as string | undefined;
    return (
      nursery.index.get(id('lot') ?? '')?.code ??
      nursery.catalogue?.places.find((place) => place.id === id('place'))?.place.name ??
      nursery.catalogue?.species.find((species) => species.id === id('species'))?.common ??
      thing.value
    );
  });
  useTitle(
    computed(() => titleWords([named.value, pageWords[String(route.name)], nursery.catalogue?.nursery.name])),
  );
}
