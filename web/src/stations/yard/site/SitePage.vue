<script setup lang="ts">
import {
  boxOf,
  checkPlan,
  clearance,
  cornersOf,
  narrowPaths,
  outlineOf,
  type Box,
  type Point,
  say,
} from '@kauri/core';
import { useLocalStorage } from '@vueuse/core';
import { Ruler } from 'lucide-vue-next';
import { computed, ref, useTemplateRef } from 'vue';
import { usePreferences } from '../../../stores/preferences';
import { useSession } from '../../../stores/session';
import { useYard } from '../../../stores/yard';
import { several } from '../../../words/numbers';
import PlanView from '../plan/PlanView.vue';
import { useConditions } from '../useConditions';
import { usePlaces } from '../usePlaces';
import PlanFiles from './PlanFiles.vue';
import SetOut from './SetOut.vue';
import SiteCapacity from './SiteCapacity.vue';
import SiteTools from './SiteTools.vue';
import ThingPanel from './ThingPanel.vue';
import { useDragging } from './useDragging';
import { useSiteEditing } from './useSiteEditing';

const yard = useYard();
const session = useSession();
const preferences = usePreferences();
const { places } = usePlaces();
const editing = useSiteEditing();
const { chosen } = editing;
const plan = useTemplateRef('plan');
const may = computed(() => session.may('grower'));
const snap = useLocalStorage('kauri.plan.snap', true);
const measuring = ref(false);
const measured = ref<Point[]>([]);
const said = ref('');

const grounds = computed(() =>
  places.value.map((p) => ({
    id: p.place.id,
    name: p.place.place.name,
    corners: cornersOf(p.place.place),
  })),
);
const faults = computed(() => checkPlan(grounds.value, yard.elements));
const faulty = computed(() => new Set(faults.value.flatMap((f) => f.placeIds)));
const notes = useConditions();
const thin = computed(() => narrowPaths(yard.elements));

let dragged = false;
function choose(id: string, more: boolean) {
  if (!dragged) editing.choose(id, more);
}
useDragging({
  frame: computed(() => (may.value ? plan.value?.frame : null)),
  scale: () => plan.value!.view.scale.value,
  snap: () => snap.value,
  moving: (id) => (chosen.value.includes(id) ? chosen.value : [id]),
  boxOfThing: editing.boxOfThing,
  others: (ids) => [
    ...grounds.value.filter((g) => !ids.includes(g.id)).map((g) => boxOf(g.corners)),
    ...yard.elements
      .filter(
        (e) =>
          !ids.includes(e.id) &&
          ['outline', 'building', 'wall', 'tunnel', 'shade', 'cold-store'].includes(e.kind),
      )
      .map((e) => boxOf(e.points)),
  ],
  dropped: (ids, move) => {
    chosen.value = [...ids];
    // The click that ends a drag is not a choice of one thing.
    dragged = true;
    setTimeout(() => (dragged = false));
    void editing.moveBy(ids, [move]);
  },
  during: (_ids, move) => {
    said.value = move
      ? say`${preferences.show(move[0], 'site', 2)} east, ${preferences.show(move[1], 'site', 2)} north`
      : '';
  },
});

/** Keys on a thing of the plan. Arrows move it a tenth of a metre, with Shift a whole one. */
function act(event: KeyboardEvent, id: string) {
  if (event.key === 'Enter' || event.key === ' ') {
    event.preventDefault();
    return editing.choose(id, event.shiftKey);
  }
  if (!may.value) return;
  const by = event.shiftKey ? 1 : 0.1;
  const way: Record<string, Point> = {
    ArrowLeft: [-by, 0],
    ArrowRight: [by, 0],
    ArrowUp: [0, by],
    ArrowDown: [0, -by],
  };
  const ids = chosen.value.includes(id) ? chosen.value : [id];
  const plain = !event.ctrlKey && !event.metaKey && !event.altKey;
  const done = () => {
    event.preventDefault();
    event.stopPropagation();
  };
  if (way[event.key]) {
    done();
    if (!chosen.value.includes(id)) chosen.value = [id];
    void editing.moveBy(ids, [way[event.key]]);
  } else if (plain && event.key.toLowerCase() === 'r') {
    done();
    if (!chosen.value.includes(id)) chosen.value = [id];
    void editing.rotate(event.shiftKey ? 15 : 90);
  } else if (plain && event.key.toLowerCase() === 'd') {
    done();
    if (!chosen.value.includes(id)) chosen.value = [id];
    void editing.duplicate();
  } else if (event.key === 'Delete' || event.key === 'Backspace') {
    done();
    if (!chosen.value.includes(id)) chosen.value = [id];
    void editing.remove();
  }
}
function pageKeys(event: KeyboardEvent) {
  if ((event.target as Element).closest('input, textarea, [role="listbox"]')) return;
  const command = event.ctrlKey || event.metaKey;
  if (command && event.key.toLowerCase() === 'z') {
    event.preventDefault();
    void (event.shiftKey ? yard.redo() : yard.undo());
  } else if (command && event.key.toLowerCase() === 'y') {
    event.preventDefault();
    void yard.redo();
  } else if (event.key === 'Escape') {
    chosen.value = [];
    measured.value = [];
  }
}
function onGround(point: Point) {
  if (measuring.value) measured.value = measured.value.length === 2 ? [point] : [...measured.value, point];
  else chosen.value = [];
}
/** Clear ground between two chosen things, m. */
const between = computed(() => {
  if (chosen.value.length !== 2) return null;
  const [a, b] = chosen.value.map((id) => {
    const place = editing.placeOf(id);
    const element = editing.elementOf(id);
    return place ? { points: cornersOf(place), closed: true } : element ? outlineOf(element) : null;
  });
  return a && b ? clearance(a, b) : null;
});
const span = computed(() => {
  const [a, b] = measured.value;
  return a && b ? Math.hypot(a[0] - b[0], a[1] - b[1]) : null;
});

/** Corner handles of the one element chosen. */
const handles = computed(() => {
  const element = chosen.value.length === 1 ? editing.elementOf(chosen.value[0]) : undefined;
  return may.value && element && element.points.length > 1
    ? element.points.map((at, i) => ({ at, i, element }))
    : [];
});
let pulled: { i: number; id: string } | null = null;
const pulledTo = ref<Point | null>(null);
function pull(event: PointerEvent, i: number, id: string) {
  pulled = { i, id };
  (event.target as Element).setPointerCapture(event.pointerId);
  event.stopPropagation();
}
function pullTo(event: PointerEvent) {
  if (!pulled) return;
  const box = plan.value!.frame!.getBoundingClientRect();
  const [e, n] = plan.value!.view.toPlan(event.clientX - box.left, event.clientY - box.top);
  const grid = snap.value ? 0.1 : 0.01;
  pulledTo.value = [Math.round(e / grid) * grid, Math.round(n / grid) * grid];
}
function pullEnd() {
  const element = pulled && editing.elementOf(pulled.id);
  if (pulled && element && pulledTo.value) {
    const { i } = pulled;
    const to = pulledTo.value.map((m) => Math.round(m * 1000) / 1000) as unknown as Point;
    void editing.changeElement(pulled.id, { points: element.points.map((p, k) => (k === i ? to : p)) });
  }
  pulled = null;
  pulledTo.value = null;
}
const one = computed(() => (chosen.value.length === 1 ? chosen.value[0] : null));
const extentOf = (ids: readonly string[]) => ids.map(editing.boxOfThing).filter((b): b is Box => !!b);
</script>

<template>
  <div class="grid h-full min-h-0 grid-rows-[auto_1fr] lg:grid-cols-[1fr_20rem]" @keydown="pageKeys">
    <div
      class="border-rule flex flex-wrap items-center gap-2 border-b px-3 py-2 lg:col-span-2"
      role="toolbar"
      :aria-label="say`Plan tools`"
    >
      <SiteTools v-if="may" v-model:snap="snap" :editing="editing" :middle="() => plan!.view.middle.value" />
      <button
        class="act px-3"
        type="button"
        :aria-pressed="measuring"
        :aria-label="say`Measure`"
        @click="((measuring = !measuring), (measured = []))"
      >
        <Ruler :size="20" aria-hidden="true" />
        <span class="text-sm">{{ measuring ? say`Measuring` : say`Measure` }}</span>
      </button>
      <PlanFiles :places="places" />
      <span class="text-muted ml-auto text-sm" role="status" data-testid="plan-said">
        <template v-if="span !== null">{{
          say`${preferences.show(span, 'site', 2)} between the two points`
        }}</template>
        <template v-else-if="measuring">{{ say`Click two points` }}</template>
        <template v-else-if="said">{{ said }}</template>
        <template v-else-if="yard.saving">{{ say`Saving …` }}</template>
        <template v-else>{{
          chosen.length ? several(chosen.length, 'thing') + say` chosen` : say`Everything kept`
        }}</template>
      </span>
    </div>
    <div class="min-h-72">
      <PlanView
        ref="plan"
        class="h-full min-h-72"
        :places="places"
        :elements="yard.elements"
        :chosen="chosen"
        :faulty="faulty"
        :notes="notes"
        edit
        @choose="choose"
        @act="act"
        @ground="onGround"
      >
        <template #default="{ scale }">
          <g v-for="h in handles" :key="h.i">
            <circle
              :cx="h.at[0]"
              :cy="h.at[1]"
              :r="8 / scale"
              fill="var(--card)"
              stroke="var(--ink)"
              stroke-width="2"
              vector-effect="non-scaling-stroke"
              class="cursor-move"
              data-handle
              @pointerdown="pull($event, h.i, h.element.id)"
              @pointermove="pullTo"
              @pointerup="pullEnd"
              @click.stop
            />
          </g>
          <circle
            v-if="pulledTo"
            :cx="pulledTo[0]"
            :cy="pulledTo[1]"
            :r="5 / scale"
            fill="var(--water)"
            pointer-events="none"
          />
          <path
            v-if="measured.length"
            :d="`M${measured.map((m) => m.join(' ')).join('L')}`"
            fill="none"
            stroke="var(--water)"
            stroke-width="3"
            stroke-linecap="round"
            vector-effect="non-scaling-stroke"
          />
          <circle
            v-for="(m, i) in measured"
            :key="`m${i}`"
            :cx="m[0]"
            :cy="m[1]"
            :r="5 / scale"
            fill="var(--water)"
          />
        </template>
      </PlanView>
    </div>
    <aside
      class="border-rule space-y-5 overflow-y-auto border-t p-4 lg:border-t-0 lg:border-l"
      :aria-label="say`Chosen on the plan`"
    >
      <p v-if="!places.length && !yard.elements.length">
        {{
          say`Nothing is drawn yet. Add the outline of the ground first, then what stands on it, then beds: a plan to scale shows what collides, where a barrow passes, and which beds lose their light.`
        }}
      </p>
      <ThingPanel
        v-if="one"
        :id="one"
        :place="editing.placeOf(one)"
        :element="editing.elementOf(one)"
        @spot="editing.placeAt(one, $event)"
        @change="editing.changeElement(one, $event)"
      />
      <p v-else-if="chosen.length > 1" class="font-bold">
        {{ say`${several(extentOf(chosen).length, 'thing')} chosen`
        }}<template v-if="between !== null">{{
          say`, ${preferences.show(between, 'site', 2)} clear between them`
        }}</template>
      </p>
      <SetOut v-if="may && chosen.length" :editing="editing" />
      <section aria-labelledby="plan-faults">
        <h2 id="plan-faults" class="text-lg">{{ say`Checked` }}</h2>
        <p v-if="!faults.length && !thin.length" class="text-muted">
          {{ say`Nothing collides, and a barrow passes everywhere.` }}
        </p>
        <ul class="space-y-1" data-testid="plan-faults">
          <li v-for="(f, i) in faults" :key="i">
            <button
              class="text-left underline underline-offset-4"
              type="button"
              @click="chosen = [...f.placeIds]"
            >
              {{ f.sentence }}
              <template v-if="f.kind === 'narrow'">{{
                say`${preferences.show(f.clearM!, 'site', 2)} wide.`
              }}</template>
            </button>
          </li>
          <li v-for="p in thin" :key="p.id">
            {{
              say`${p.name} is too narrow for ${p.main ? say`a main path (0.9 m)` : say`a barrow (0.6 m)`}.`
            }}
          </li>
        </ul>
      </section>
      <SiteCapacity v-if="places.length" :places="places" />
      <p class="text-muted text-sm">
        {{
          say`Keys on a chosen thing: arrows move it by 0.1 m, with Shift by 1 m; R turns, D duplicates, Delete takes away, Ctrl Z undoes.`
        }}
      </p>
    </aside>
  </div>
</template>
