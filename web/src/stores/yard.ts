import type { SiteElement } from '@kauri/core';
import type {
  Arrangement,
  KeptSite,
  KeptWater,
  Place,
  PlaceBody,
  PlaceCheck,
  StockRow,
} from '@kauri/core/contract';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { v7 as newId } from 'uuid';
import { call } from '../api/client';
import { sentenceOf } from '../api/problem';
import { useNursery } from './nursery';

/** Where a place stands. */
export interface Spot {
  eastM: number;
  northM: number;
  angleDeg: number;
}

/** One edit of the plan, with what undoes it. */
export interface YardEdit {
  words: string;
  elements?: { before: readonly SiteElement[]; after: readonly SiteElement[] };
  moved?: readonly { id: string; before: Spot; after: Spot }[];
  added?: readonly { id: string; place: PlaceBody }[];
  removed?: readonly { id: string; place: PlaceBody }[];
}

function reverse(edit: YardEdit): YardEdit {
  return {
    words: edit.words,
    elements: edit.elements && { before: edit.elements.after, after: edit.elements.before },
    moved: edit.moved?.map(({ id, before, after }) => ({ id, before: after, after: before })),
    added: edit.removed,
    removed: edit.added,
  };
}

/** The site plan and what belongs to it; edits are saved one after another, and can be undone. */
export const useYard = defineStore('yard', () => {
  const nursery = useNursery();
  const site = shallowRef<KeptSite | null>(null);
  const water = shallowRef<KeptWater | null>(null);
  const checks = shallowRef<PlaceCheck[]>([]);
  const stock = shallowRef<StockRow[]>([]);
  const done = shallowRef<readonly YardEdit[]>([]);
  const undone = shallowRef<readonly YardEdit[]>([]);
  const saving = ref(0);
  const fault = ref<string | null>(null);
  let queue: Promise<unknown> = Promise.resolve();
  let loaded: string | null = null;

  const elements = computed<readonly SiteElement[]>(() => site.value?.plan.elements ?? []);

  async function load(again = false) {
    if (loaded === nursery.nurseryId && !again) return;
    const { params } = nursery;
    const [keptSite, keptWater, checked, heaps] = await Promise.all([
      call('site', { params }),
      call('water', { params }),
      call('checks', { params }),
      call('stock', { params }),
    ]);
    site.value = keptSite;
    nursery.plan = keptSite.plan.elements as SiteElement[];
    water.value = keptWater;
    checks.value = checked.checks;
    stock.value = heaps.rows;
    if (loaded !== nursery.nurseryId) {
      done.value = [];
      undone.value = [];
    }
    loaded = nursery.nurseryId;
  }

  function placeOf(id: string): Place | undefined {
    return nursery.lookup.places.get(id) as Place | undefined;
  }

  /** Shows an edit at once, before the server has it. */
  function show(edit: YardEdit) {
    if (edit.elements && site.value)
      site.value = { ...site.value, plan: { schema: 1, elements: edit.elements.after as never } };
    for (const { id, after } of edit.moved ?? []) {
      const now = placeOf(id);
      if (now) nursery.takePlace({ ...now, place: { ...now.place, ...after } });
    }
    for (const { id, place } of edit.added ?? []) nursery.takePlace({ id, version: 0, place });
    // What is taken away goes once the server agrees: lots may still name it.
  }

  function send(edit: YardEdit): Promise<boolean> {
    const id = newId();
    saving.value++;
    const run = queue.then(async () => {
      const version = (placeId: string) => placeOf(placeId)?.version ?? 0;
      const body: Arrangement = {
        id,
        site: edit.elements
          ? { version: site.value!.version, plan: { schema: 1, elements: edit.elements.after as never } }
          : null,
        moved: (edit.moved ?? []).map(({ id: placeId, after }) => ({
          id: placeId,
          version: version(placeId),
          ...after,
        })),
        added: (edit.added ?? []).map(({ id: placeId, place }) => ({ id: placeId, place })),
        // Read now, not when it was asked for: a place just added has its version by the time it is taken away again.
        removed: (edit.removed ?? []).map(({ id: placeId }) => ({
          id: placeId,
          version: version(placeId),
        })),
      };
      const answer = await call('arrangeYard', { params: nursery.params, body });
      if (edit.elements) {
        site.value = { ...site.value!, version: answer.site.version };
        // Kept: forecasts feel the shade of it from here on.
        nursery.plan = elements.value;
      }
      for (const gone of answer.removed) nursery.dropPlace(gone);
      for (const place of answer.places) {
        const now = placeOf(place.id);
        // A later edit may already be shown: only the version is taken then.
        nursery.takePlace(now ? { ...place, place: { ...place.place, ...spotOf(now.place) } } : place);
      }
    });
    queue = run.catch(() => undefined);
    return run
      .then(() => {
        fault.value = null;
        return true;
      })
      .catch(async (error: unknown) => {
        fault.value = sentenceOf(error);
        await Promise.all([load(true), nursery.reloadCatalogue()]).catch(() => undefined);
        return false;
      })
      .finally(() => saving.value--);
  }

  async function apply(edit: YardEdit): Promise<boolean> {
    show(edit);
    return send(edit);
  }

  /** Makes an edit; when it is refused the plan is shown again as the server has it. */
  async function make(edit: YardEdit): Promise<boolean> {
    done.value = [...done.value.slice(-99), edit];
    undone.value = [];
    const kept = await apply(edit);
    if (!kept) done.value = done.value.filter((other) => other !== edit);
    return kept;
  }
  async function undo() {
    const edit = done.value.at(-1);
    if (!edit) return;
    done.value = done.value.slice(0, -1);
    if (await apply(reverse(edit))) undone.value = [...undone.value, edit];
  }
  async function redo() {
    const edit = undone.value.at(-1);
    if (!edit) return;
    undone.value = undone.value.slice(0, -1);
    if (await apply(edit)) done.value = [...done.value, edit];
  }

  /** What lies on the heap of a medium, L. */
  const litresOf = (mediumId: string): number =>
    stock.value.reduce((sum, row) => (row.mediumId === mediumId ? sum + row.litres : sum), 0);

  return {
    site,
    water,
    checks,
    stock,
    litresOf,
    elements,
    done,
    undone,
    saving,
    fault,
    load,
    make,
    undo,
    redo,
  };
});

function spotOf({ eastM, northM, angleDeg }: PlaceBody): Spot {
  return { eastM, northM, angleDeg };
}
