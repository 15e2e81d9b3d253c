import { say } from '@kauri/core';
import type { BodyInputOf, ParamsOf, SeedRoom } from '@kauri/core/contract';
import { computed } from 'vue';
import { call } from '../../api/client';
import { andTheirs, useEditing } from '../../parts/useEditing';
import { useDraft } from '../../parts/useDraft';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useSeed } from '../../stores/seed';

type EditRoute = 'editSeedLot' | 'editStockBed';
type Body<N extends EditRoute> = Omit<BodyInputOf<N>, 'version'>;

/**
 * Changes what is written on one thing of the Seed station. What somebody else changed of it meanwhile stays; where both
 * changed the same, theirs is shown, and saving again puts mine over just that.
 * @param at what its path names besides the nursery
 * @param kept the thing as it was when the sheet was opened
 * @param initial the fields as they are before anything is typed
 * @param words what each part of it is called, by its path
 */
export function useSeedEdit<N extends EditRoute, F extends object>(
  name: N,
  at: Omit<ParamsOf<N>, 'nursery'>,
  kept: Body<N> & { id: string; version: number },
  initial: F,
  words: Readonly<Record<string, string>>,
) {
  const nursery = useNursery();
  const seed = useSeed();
  const messages = useMessages();
  const key = `${name}.${Object.values(at).join('.')}`;
  const { draft, clear } = useDraft(key, initial);
  const { id: _id, version: opened, ...parts } = kept;
  const bodyOf = (row: Record<string, unknown>) =>
    Object.fromEntries(Object.keys(parts).map((part) => [part, row[part]])) as unknown as Body<N>;
  const { save, theirs, both, busy, sentence, wrong } = useEditing<Body<N>>(
    key,
    { version: opened, body: bodyOf(kept as unknown as Record<string, unknown>) },
    (current) => ({
      version: (current as { version: number }).version,
      body: bodyOf(current as Record<string, unknown>),
    }),
  );
  /** What somebody else wrote where both changed the same; blank where nobody did. */
  const theirWords = computed(() =>
    both.value
      .map((path) => {
        const value = path
          .split('.')
          .reduce<unknown>((of, part) => (of as Record<string, unknown> | null)?.[part], theirs.value);
        return `${words[path] ?? path} “${value === null || value === '' ? say`none` : String(value)}”`;
      })
      .join('; '),
  );

  /** @returns whether it was taken */
  async function edit(mine: Body<N>, said: string): Promise<boolean> {
    const params = { ...nursery.params, ...at } as unknown as ParamsOf<N>;
    const taken = await save(mine, (_, version, body) =>
      call(name, { params, body: { ...body, version } as unknown as BodyInputOf<N> }),
    );
    if (taken === null) return false;
    seed.take(taken.answer as SeedRoom);
    clear();
    messages.say(`${said}${taken.together ? andTheirs() : ''}.`);
    return true;
  }
  return { draft, busy, sentence, wrong, theirWords, edit };
}
