import { useSessionStorage } from '@vueuse/core';
import type { Ref } from 'vue';
import { keptKey } from '../stores/kept';

/**
 * What is being typed, kept in the browser through a reload or a closed sheet until `clear` is called.
 * @param key names the form and what it is about
 */
export function useDraft<T extends object>(
  key: string,
  initial: T,
): { draft: Ref<T>; clear: () => void; form: () => { key: string; draft: T } } {
  const name = keptKey(`draft.${key}`);
  const draft = useSessionStorage<T>(name, structuredClone(initial), {
    mergeDefaults: true,
    deep: true,
    // A form may be gone in the very moment it is cleared.
    flush: 'sync',
  });
  return {
    draft,
    /** What is typed, with its place: to be put back there. */
    form: () => ({ key: name, draft: draft.value }),
    clear: () => {
      draft.value = structuredClone(initial);
      // The next sheet begins with its own fields, and ids of its own among them.
      sessionStorage.removeItem(name);
    },
  };
}
