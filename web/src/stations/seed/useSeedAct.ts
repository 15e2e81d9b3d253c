import type { AnswerOf, BodyInputOf, ParamsOf, RouteName, SeedRoom } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { call } from '../../api/client';
import { ProblemError } from '../../api/problem';
import { useDraft } from '../../parts/useDraft';
import { useSaving } from '../../parts/useSaving';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useSeed } from '../../stores/seed';

/** Routes that answer with the seed room as it stands. */
type SeedRoute = { [N in RouteName]: AnswerOf<N> extends SeedRoom ? N : never }[RouteName];

/**
 * One act at the Seed station: its draft, its saving, and its undo where it is a record.
 * @param at what its path names besides the nursery
 * @param initial the fields as they are before anything is typed
 */
export function useSeedAct<N extends SeedRoute, F extends object>(
  name: N,
  at: Omit<ParamsOf<N>, 'nursery'>,
  initial: F,
  about = Object.values(at).join('.') || 'new',
) {
  const nursery = useNursery();
  const seed = useSeed();
  const messages = useMessages();
  const key = `${name}.${about}`;
  const { draft, clear } = useDraft(key, initial);
  const saving = useSaving(key);

  /** @returns the id it was taken under, or null when it was refused */
  async function send(
    body: object,
    said: string,
    { undo = false, keep = false } = {},
  ): Promise<string | null> {
    let id = '';
    const params = { ...nursery.params, ...at } as unknown as ParamsOf<N>;
    const answer = await saving.save(body, (given) => {
      id = given;
      return call(name, { params, body: { ...body, id } as unknown as BodyInputOf<N> });
    });
    if (answer === null) return null;
    seed.take(answer as SeedRoom);
    if (!keep) clear();
    messages.say(
      said,
      undo
        ? async () => {
            seed.take(
              await call('undoSeedRecord', {
                params: { ...nursery.params, record: id },
                body: { id: newId() },
              }),
            );
          }
        : undefined,
    );
    return id;
  }
  /** The version to save over: as it was opened, or as it was found once somebody changed it meanwhile. */
  function versionNow(opened: number): number {
    const { value } = saving.fault;
    const theirs =
      value instanceof ProblemError && value.kind === 'stale-edit'
        ? (value.problem.current as { version?: number } | undefined)?.version
        : undefined;
    return theirs ?? opened;
  }
  return { draft, clear, send, versionNow, ...saving };
}
