import { say } from '@kauri/core';
import { computed, shallowRef } from 'vue';
import { ProblemError } from '../api/problem';
import { editsTogether } from './editsTogether';
import { useSaving } from './useSaving';

/** A record as it is kept, and its version. */
interface Kept<B> {
  version: number;
  body: B;
}

/** Said after a record was kept beside what somebody else changed of it. */
export const andTheirs = () => say`; what somebody else changed of it meanwhile stays`;

/**
 * Saves changes to one record that others may change too. What somebody else changed meanwhile stays, and is not asked
 * about unless both changed the same: then theirs is shown, and saving again puts mine over just that.
 * @param key names the form and what it is about
 * @param opened the record as it was when the form was opened
 * @param bodyOf reads a record as the server names it in a refusal
 */
export function useEditing<B extends object>(
  key: string,
  opened: Kept<B>,
  bodyOf: (current: unknown) => Kept<B>,
) {
  const saving = useSaving(key);
  const found = shallowRef<Kept<B> | null>(null);
  const both = shallowRef<readonly string[]>([]);
  /** As somebody else left it, where both changed the same. */
  const theirs = computed(() => (both.value.length ? found.value!.body : null));

  /** @returns the answer, and whether what somebody else changed went with it; null when it was refused */
  async function save<T>(
    mine: B,
    write: (id: string, version: number, body: B) => Promise<T>,
  ): Promise<{ answer: T; together: boolean } | null> {
    for (;;) {
      const theirsNow = found.value;
      const body = theirsNow ? editsTogether(opened.body, mine, theirsNow.body).record : mine;
      const version = theirsNow?.version ?? opened.version;
      const answer = await saving.save({ body, version }, (id) => write(id, version, body));
      if (answer !== null) return { answer, together: theirsNow !== null };
      const { value } = saving.fault;
      if (!(value instanceof ProblemError && value.kind === 'stale-edit')) return null;
      found.value = bodyOf(value.problem.current);
      both.value = editsTogether(opened.body, mine, found.value.body).both;
      if (both.value.length) return null;
    }
  }
  return { ...saving, save, theirs, both };
}
