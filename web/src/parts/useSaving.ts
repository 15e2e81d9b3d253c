import { useSessionStorage } from '@vueuse/core';
import { v7 as newId } from 'uuid';
import { ref } from 'vue';
import { fieldFault, ProblemError, sentenceOf } from '../api/problem';
import { keptKey } from '../stores/kept';

/**
 * Saving one record: the same id until it is taken, through reloads too, so that saving again after a
 * lost answer writes it once. A refusal whose words were changed afterwards gets a new id, since it is
 * another record then.
 * @param key names the form and what it is about
 */
export function useSaving(key: string) {
  const busy = ref(false);
  const fault = ref<unknown>(null);
  const id = useSessionStorage(keptKey(`id.${key}`), newId(), { flush: 'sync' });
  let lastBody = '';

  /** @returns the answer, or null when it was refused or is already under way */
  async function save<T>(body: object, write: (id: string) => Promise<T>): Promise<T | null> {
    if (busy.value) return null;
    const text = JSON.stringify(body);
    if (text !== lastBody && fault.value instanceof ProblemError) id.value = newId();
    lastBody = text;
    busy.value = true;
    fault.value = null;
    try {
      const answer = await write(id.value);
      id.value = newId();
      return answer;
    } catch (error) {
      fault.value = error;
      return null;
    } finally {
      busy.value = false;
    }
  }
  return {
    busy,
    fault,
    save,
    sentence: () => (fault.value ? sentenceOf(fault.value) : null),
    wrong: (path: string) => fieldFault(fault.value, path),
  };
}
