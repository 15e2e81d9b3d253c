<script setup lang="ts">
import {
  alignments,
  boxOf,
  checkPlan,
  clearance,
  cornersOf,
  elementKinds,
  narrowPaths,
  outlineOf,
  spotAbout,
  type Alignment,
  type Box,
  type ElementKind,
  type Point,
} from '@kauri/core';
import type { PlaceBody } from '@kauri/core/contract';
import { useLocalStorage } from '@vueuse/core';
import { Copy, Magnet, Redo2, RotateCw, Ruler, Trash2, Undo2 } from 'lucide-vue-next';
import { computed, ref, useTemplateRef } from 'vue';
import FormField from '../../../parts/FormField.vue';
import { typedNumber } from '../../../parts/typed';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSession } from '../../../stores/session';
import { useYard } from '../../../stores/yard';
import { several } from '../../../words/numbers';
import { kindWords } from '../placeWords';
import { lookOf } from '../plan/elementLook';
import PlanView from '../plan/PlanView.vue';
import { useConditions } from '../useConditions';
import { usePlaces } from '../usePlaces';
import PlanFiles from './PlanFiles.vue';
import SiteCapacity from './SiteCapacity.vue';
import ThingPanel from './ThingPanel.vue';
import { useDragging } from './useDragging';
import { useSiteEditing } from './useSiteEditing';

const nursery = useNursery();
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
      ? `${preferences.show(move[0], 'site', 2)} east, ${preferences.show(move[1], 'site', 2)} north`
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
  if ((event.target as Element).closest('input, select, textarea')) return;
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

const adding = ref('');
const soilless = computed(() => nursery.catalogue!.media.at(-1)!.id);
function add() {
  const what = adding.value;
  adding.value = '';
  if (!what) return;
  const middle = plan.value!.view.middle.value;
  const [kind, of] = what.split(':');
  if (kind === 'element') return void editing.addElement(of as ElementKind, middle);
  const round = (m: number) => Math.round(m * 10) / 10;
  const designed = nursery.catalogue!.designs.find((d) => d.id === of);
  const body = designed
    ? {
        kind: 'bed' as const,
        name: 'Bed 1',
        mediumId: nursery.catalogue!.media[0].id,
        design: designed.design,
        builtFrom: { designId: designed.id, version: designed.version },
      }
    : {
        kind: of as 'bench',
        name: { bench: 'Bench 1', ground: 'Standing-out 1', bay: 'Heel-in bay 1' }[of]!,
        mediumId: soilless.value,
        design: {
          schema: 1 as const,
          lengthMm: { bench: 6000, ground: 6000, bay: 3600 }[of]!,
          widthMm: { bench: 1550, ground: 2400, bay: 1200 }[of]!,
        },
      };
  const spot = spotAbout(body as PlaceBody, middle, 0);
  void editing.addPlace({
    ...body,
    ...spot,
    eastM: round(spot.eastM),
    northM: round(spot.northM),
  } as PlaceBody);
}
const array = ref({ columns: '4', rows: '2', path: '0.6' });
const arrayFault = ref<string | null>(null);
function setOut() {
  arrayFault.value = null;
  const path = preferences.typed(typedNumber(array.value.path), 'site');
  try {
    void editing.array(typedNumber(array.value.columns), typedNumber(array.value.rows), path, path);
  } catch (error) {
    arrayFault.value = (error as Error).message;
  }
}
const alignWords: Record<Alignment, string> = {
  west: 'West edges',
  east: 'East edges',
  south: 'South edges',
  north: 'North edges',
  'middle-east': 'Middles, west to east',
  'middle-north': 'Middles, south to north',
};
const aligning = ref('');
function align() {
  if (aligning.value) void editing.align(aligning.value as Alignment);
  aligning.value = '';
}
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
      aria-label="Plan tools"
    >
      <template v-if="may">
        <select v-model="adding" class="field !w-40" aria-label="Add to the plan">
          <option value="">What to add</option>
          <optgroup label="Beds, from a kept design">
            <option v-for="d in nursery.catalogue!.designs" :key="d.id" :value="`design:${d.id}`">
              {{ d.name }}
            </option>
          </optgroup>
          <optgroup label="Other places">
            <option v-for="k in ['bench', 'ground', 'bay'] as const" :key="k" :value="`place:${k}`">
              {{ kindWords[k].replace(/^./, (c) => c.toUpperCase()) }}
            </option>
          </optgroup>
          <optgroup label="The site">
            <option v-for="k in elementKinds" :key="k" :value="`element:${k}`">{{ lookOf(k).words }}</option>
          </optgroup>
        </select>
        <button class="act" type="button" :disabled="!adding" @click="add">Add</button>
        <button
          class="act px-2.5"
          type="button"
          :disabled="!yard.done.length"
          aria-label="Undo"
          title="Undo (Ctrl Z)"
          @click="yard.undo()"
        >
          <Undo2 :size="20" aria-hidden="true" />
        </button>
        <button
          class="act px-2.5"
          type="button"
          :disabled="!yard.undone.length"
          aria-label="Redo"
          title="Redo (Ctrl Y)"
          @click="yard.redo()"
        >
          <Redo2 :size="20" aria-hidden="true" />
        </button>
        <button
          class="act px-2.5"
          type="button"
          :disabled="!chosen.length"
          aria-label="Turn a quarter"
          title="Turn a quarter (R)"
          @click="editing.rotate(90)"
        >
          <RotateCw :size="20" aria-hidden="true" />
        </button>
        <button
          class="act px-2.5"
          type="button"
          :disabled="!chosen.length"
          aria-label="Duplicate"
          title="Duplicate (D)"
          @click="editing.duplicate()"
        >
          <Copy :size="20" aria-hidden="true" />
        </button>
        <button
          class="act px-2.5"
          type="button"
          :disabled="!chosen.length"
          aria-label="Take away"
          title="Take away (Delete)"
          @click="editing.remove()"
        >
          <Trash2 :size="20" aria-hidden="true" />
        </button>
        <select v-model="aligning" class="field !w-32" aria-label="Align" :disabled="chosen.length < 2">
          <option value="">In line by</option>
          <option v-for="a in alignments" :key="a" :value="a">{{ alignWords[a] }}</option>
        </select>
        <button class="act" type="button" :disabled="chosen.length < 2 || !aligning" @click="align">
          Align
        </button>
        <button
          class="act px-2.5"
          type="button"
          :aria-pressed="snap"
          aria-label="Snap to edges, paths and the grid"
          title="Snap"
          @click="snap = !snap"
        >
          <Magnet :size="20" :class="snap ? '' : 'opacity-35'" aria-hidden="true" />
          <span class="text-sm">{{ snap ? 'Snap' : 'Free' }}</span>
        </button>
      </template>
      <button
        class="act px-2.5"
        type="button"
        :aria-pressed="measuring"
        aria-label="Measure"
        @click="((measuring = !measuring), (measured = []))"
      >
        <Ruler :size="20" aria-hidden="true" />
        <span class="text-sm">{{ measuring ? 'Measuring' : 'Measure' }}</span>
      </button>
      <PlanFiles :places="places" />
      <span class="text-muted ml-auto text-sm" role="status" data-testid="plan-said">
        <template v-if="span !== null"
          >{{ preferences.show(span, 'site', 2) }} between the two points</template
        >
        <template v-else-if="measuring">Click two points</template>
        <template v-else-if="said">{{ said }}</template>
        <template v-else-if="yard.saving">Saving …</template>
        <template v-else>{{
          chosen.length ? several(chosen.length, 'thing') + ' chosen' : 'Everything kept'
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
      aria-label="Chosen on the plan"
    >
      <p v-if="!places.length && !yard.elements.length">
        Nothing is drawn yet. Add the outline of the ground first, then what stands on it, then beds: a plan
        to scale shows what collides, where a barrow passes, and which beds lose their light.
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
        {{ several(extentOf(chosen).length, 'thing') }} chosen<template v-if="between !== null"
          >, {{ preferences.show(between, 'site', 2) }} clear between them</template
        >
      </p>
      <section v-if="may && chosen.length" aria-labelledby="set-out">
        <h2 id="set-out" class="text-lg">Set out in rows</h2>
        <div class="grid grid-cols-3 gap-2">
          <FormField v-model="array.columns" label="Columns" inputmode="numeric" />
          <FormField v-model="array.rows" label="Rows" inputmode="numeric" />
          <FormField v-model="array.path" label="Path" :unit="preferences.unit('site')" inputmode="decimal" />
        </div>
        <p v-if="arrayFault" class="text-wrong font-bold" role="alert">{{ arrayFault }}</p>
        <button class="act mt-2" type="button" @click="setOut">Set out copies</button>
      </section>
      <section aria-labelledby="plan-faults">
        <h2 id="plan-faults" class="text-lg">Checked</h2>
        <p v-if="!faults.length && !thin.length" class="text-muted">
          Nothing collides, and a barrow passes everywhere.
        </p>
        <ul class="space-y-1" data-testid="plan-faults">
          <li v-for="(f, i) in faults" :key="i">
            <button
              class="text-left underline underline-offset-4"
              type="button"
              @click="chosen = [...f.placeIds]"
            >
              {{ f.sentence }}
              <template v-if="f.kind === 'narrow'"
                >{{ preferences.show(f.clearM!, 'site', 2) }} wide.</template
              >
            </button>
          </li>
          <li v-for="p in thin" :key="p.id">
            {{ p.name }} is too narrow for {{ p.main ? 'a main path (0.9 m)' : 'a barrow (0.6 m)' }}.
          </li>
        </ul>
      </section>
      <SiteCapacity v-if="places.length" :places="places" />
      <p class="text-muted text-sm">
        Keys on a chosen thing: arrows move it by 0.1 m, with Shift by 1 m; R turns, D duplicates, Delete
        takes away, Ctrl Z undoes.
      </p>
    </aside>
  </div>
</template>
