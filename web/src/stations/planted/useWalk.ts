import { placeInRows, placesBefore, treeStates, type DeathCause, type TreeState } from '@kauri/core';
import type { BodyInputOf, Planting, WalkSheet } from '@kauri/core/contract';
import { useEventListener, useLocalStorage } from '@vueuse/core';
import { v7 as newId } from 'uuid';
import { computed, ref, shallowRef } from 'vue';
import { OfflineError, sentenceOf } from '../../api/problem';
import { keptKey } from '../../stores/kept';
import { usePlantings } from '../../stores/plantings';

/** A mark that was made here, by an id of its own: two tabs may be sending the same list. */
type Mark = BodyInputOf<'markTrees'>['marks'][number] & { id: string };
/** One tree of a walk, in the order it is walked. */
export interface WalkTree {
  partId: string;
  number: number;
  /** Row and place in it; null where the planting has no rows. */
  at: { row: number; at: number } | null;
}
const keyOf = ({ partId, number }: { partId: string; number: number }) => `${partId} ${number}`;

/**
 * A walk tree by tree: which is next, what was marked, and what the server does not have yet. Each tap is kept in the browser at
 * once and sent behind; without network the walk goes on.
 */
export function useWalk(sheet: WalkSheet, planting: Planting) {
  const plantings = usePlantings();
  const before = placesBefore(planting);
  const perRow = planting.layout.kind === 'rows' ? planting.layout.perRow : null;
  const trees: WalkTree[] = sheet.trees.flatMap(({ partId, numbers }) =>
    numbers.map((number) => ({
      partId,
      number,
      at: placeInRows((before.get(partId) ?? 0) + number, { perRow }),
    })),
  );
  const earlier = new Map(sheet.before.map((one) => [keyOf(one), one.state]));
  const unsent = useLocalStorage<Mark[]>(keptKey(`walk.${sheet.walk.id}`), [], { flush: 'sync' });
  const marks = ref(
    new Map<string, { state: TreeState; cause: DeathCause | null }>([
      ...sheet.marks.map(
        ({ partId, number, state, cause }): [string, { state: TreeState; cause: DeathCause | null }] => [
          keyOf({ partId, number }),
          { state, cause },
        ],
      ),
    ]),
  );
  for (const { partId, number, state, cause } of unsent.value) {
    const key = keyOf({ partId, number });
    if (state === null) marks.value.delete(key);
    else marks.value.set(key, { state, cause });
  }
  const stateOf = (tree: WalkTree) => marks.value.get(keyOf(tree))?.state ?? null;
  const firstOpen = trees.findIndex((tree) => stateOf(tree) === null);
  /** The tree one stands at; past the last one the walk is through. */
  const at = ref(firstOpen < 0 ? trees.length : firstOpen);
  const current = computed(() => trees[at.value] ?? null);
  const done = computed(() => marks.value.size);
  /** Trees marked here, the last one last, for taking a tap back. */
  const trail = ref<number[]>([]);
  const lastMarked = computed(() => (trail.value.length ? trees[trail.value[trail.value.length - 1]] : null));

  const fault = ref<string | null>(null);
  const sending = ref(false);
  let underWay: Promise<void> = Promise.resolve();
  /** Sends what the server does not have yet; what cannot be sent stays. Asked while it is at it, it is done when that is. */
  function flush(): Promise<void> {
    if (!sending.value && unsent.value.length) underWay = send();
    return underWay;
  }
  async function send(): Promise<void> {
    sending.value = true;
    const batch = unsent.value.slice(0, 500);
    try {
      await plantings.mark(sheet.walk.id, { id: newId(), marks: latest(batch) });
      const sent = new Set(batch.map(({ id }) => id));
      unsent.value = unsent.value.filter(({ id }) => !sent.has(id));
      fault.value = null;
    } catch (error) {
      // Without network the walk goes on; a refusal is said.
      fault.value = error instanceof OfflineError ? null : sentenceOf(error);
      sending.value = false;
      return;
    }
    sending.value = false;
    // What was marked meanwhile.
    if (unsent.value.length) await flush();
  }
  useEventListener('online', () => void flush());
  void flush();

  function put(tree: WalkTree, state: TreeState | null, cause: DeathCause | null, livesAgain = false) {
    const { partId, number } = tree;
    const next = new Map(marks.value);
    if (state === null) next.delete(keyOf(tree));
    else next.set(keyOf(tree), { state, cause });
    marks.value = next;
    unsent.value = [...unsent.value, { id: newId(), partId, number, state, cause, note: '', livesAgain }];
    void flush();
  }
  /** A tree found dead before is to be marked living: somebody has to say it twice. */
  const asked = shallowRef<TreeState | null>(null);
  function mark(state: TreeState, sure = false) {
    const tree = current.value;
    if (!tree) return;
    const risen = treeStates[state].lives && earlier.get(keyOf(tree)) === 'dead';
    if (risen && !sure) {
      asked.value = state;
      return;
    }
    asked.value = null;
    put(tree, state, null, risen);
    trail.value = [...trail.value, at.value];
    let next = at.value + 1;
    while (next < trees.length && stateOf(trees[next]) !== null) next++;
    at.value = next;
  }
  /** What the tree marked last died of. */
  function because(cause: DeathCause) {
    const tree = lastMarked.value;
    const state = tree && stateOf(tree);
    if (tree && (state === 'dead' || state === 'dying')) put(tree, state, cause);
  }
  function back() {
    const last = trail.value[trail.value.length - 1];
    if (last === undefined) return;
    trail.value = trail.value.slice(0, -1);
    asked.value = null;
    put(trees[last], null, null);
    at.value = last;
  }
  /** Goes to the first tree of a row, or part, that nobody looked at yet. */
  function goTo(index: number) {
    asked.value = null;
    at.value = index;
  }
  return {
    trees,
    current,
    at,
    done,
    asked,
    unsent,
    fault,
    lastMarked,
    stateOf,
    causeOf: (tree: WalkTree) => marks.value.get(keyOf(tree))?.cause ?? null,
    beforeOf: (tree: WalkTree) => earlier.get(keyOf(tree)) ?? null,
    mark,
    because,
    back,
    goTo,
    flush,
  };
}

/** The last mark of each tree, as it is sent. */
function latest(marks: readonly Mark[]): BodyInputOf<'markTrees'>['marks'] {
  const last = new Map(marks.map((mark) => [keyOf(mark), mark]));
  return [...last.values()].map(({ id: _, ...mark }) => mark);
}
