<script setup lang="ts">
import { boxOf, shapeOfKind, type Point, type SiteElement, say } from '@kauri/core';
import type { PlaceBody } from '@kauri/core/contract';
import { computed, reactive, watch } from 'vue';
import { RouterLink } from 'vue-router';
import KeptField from '../../../parts/KeptField.vue';
import SelectField from '../../../parts/SelectField.vue';
import { typedNumber } from '../../../parts/typed';
import { usePreferences } from '../../../stores/preferences';
import { lookOf } from '../plan/elementLook';
import { sizeWords } from '../placeWords';

/** The one thing chosen on the plan, in figures. A figure changed is kept when the field is left or Enter pressed. */
const props = defineProps<{ id: string; place?: PlaceBody; element?: SiteElement }>();
const emit = defineEmits<{
  spot: [spot: { eastM: number; northM: number; angleDeg: number }];
  change: [change: Partial<SiteElement>];
}>();
const preferences = usePreferences();
const metres = (m: number) => String(Number(preferences.shown(m, 'site').toFixed(3)));
const share = (text: string) => typedNumber(text) / 100;
const toMetres = (text: string) => preferences.typed(typedNumber(text), 'site');

const form = reactive<Record<string, string>>({});
const faults = reactive<Record<string, string | null>>({});
// Only when its figures change: an answer that brings a new version alone leaves what is being typed.
watch(
  () =>
    JSON.stringify([
      props.place && [props.place.eastM, props.place.northM, props.place.angleDeg],
      props.element,
      preferences.units,
    ]),
  () => {
    for (const key of Object.keys(form)) delete form[key];
    for (const key of Object.keys(faults)) delete faults[key];
    const { place, element } = props;
    if (place) {
      form.east = metres(place.eastM);
      form.north = metres(place.northM);
      form.angle = String(Number(place.angleDeg.toFixed(2)));
    }
    if (element) {
      form.name = element.name;
      form.height = element.heightM === undefined ? '' : metres(element.heightM);
      form.inLeaf = element.passesInLeaf === undefined ? '' : String(Math.round(element.passesInLeaf * 100));
      form.bare = element.passesBare === undefined ? '' : String(Math.round(element.passesBare * 100));
      form.width = element.widthM === undefined ? '' : metres(element.widthM);
      form.flow = element.flowLpm === undefined ? '' : String(element.flowLpm);
      const box = boxOf(element.points);
      form.west = metres(box.west);
      form.south = metres(box.south);
      form.across = metres(box.east - box.west);
      form.upward = metres(box.north - box.south);
      element.points.forEach(([e, n], i) => {
        form[`e${i}`] = metres(e);
        form[`n${i}`] = metres(n);
      });
    }
  },
  { immediate: true },
);

/** A figure typed, within bounds in SI; its sentence gives them as they are typed. */
function number(key: string, low: number, most: number, read: (text: string) => number): number | null {
  const value = read(form[key]);
  const typed = (bound: number) => {
    const shown = read === share ? bound * 100 : read === toMetres ? preferences.shown(bound, 'site') : bound;
    return String(Number(shown.toFixed(1))).replace('-', '−');
  };
  faults[key] = value >= low && value <= most ? null : say`A number from ${typed(low)} to ${typed(most)}.`;
  return faults[key] ? null : value;
}
function keepSpot() {
  const eastM = number('east', -1000, 1000, toMetres);
  const northM = number('north', -1000, 1000, toMetres);
  const angle = number('angle', -360, 360, typedNumber);
  if (eastM === null || northM === null || angle === null || !props.place) return;
  const spot = { eastM, northM, angleDeg: ((angle % 360) + 360) % 360 };
  const { place } = props;
  if (
    Math.abs(spot.eastM - place.eastM) > 5e-4 ||
    Math.abs(spot.northM - place.northM) > 5e-4 ||
    Math.abs(spot.angleDeg - place.angleDeg) > 5e-3
  )
    emit('spot', spot);
}
function keepName() {
  const name = form.name.trim();
  faults.name = name ? null : say`A name is needed.`;
  if (name && name !== props.element!.name) emit('change', { name });
}
/** A figure that only some kinds have: where it is typed, how it is read, and within what. */
interface Figure {
  key: string;
  field: keyof SiteElement;
  label: string;
  unit: string;
  least: number;
  most: number;
  read: (text: string) => number;
}
const m = computed(() => preferences.unit('site'));
const figures = computed<Figure[]>(() => {
  const trees = has('trees');
  const all: (Figure & { of: string[] })[] = [
    {
      of: ['building', 'wall', 'trees', 'fence', 'tunnel', 'shade', 'cold-store'],
      ...{
        key: 'height',
        field: 'heightM',
        label: say`Height`,
        unit: m.value,
        least: 0,
        most: 100,
        read: toMetres,
      },
    },
    {
      of: ['trees', 'tunnel', 'shade'],
      ...{
        key: 'inLeaf',
        field: 'passesInLeaf',
        label: trees ? say`Sun through, in leaf` : say`Sun through`,
      },
      ...{ unit: '%', least: 0, most: 1, read: share },
    },
    {
      of: ['trees'],
      ...{
        key: 'bare',
        field: 'passesBare',
        label: say`Out of leaf`,
        unit: '%',
        least: 0,
        most: 1,
        read: share,
      },
    },
    {
      of: ['path'],
      ...{
        key: 'width',
        field: 'widthM',
        label: say`Width`,
        unit: m.value,
        least: 0.2,
        most: 20,
        read: toMetres,
      },
    },
    {
      of: ['standpipe'],
      ...{
        key: 'flow',
        field: 'flowLpm',
        label: say`Flow`,
        unit: 'L/min',
        least: 0.1,
        most: 1000,
        read: typedNumber,
      },
    },
  ];
  return all.filter((f) => has(...f.of));
});
function keepValue({ key, field, least: low, most, read }: Figure) {
  const value = number(key, low, most, read);
  if (value !== null && value !== props.element![field]) emit('change', { [field]: value });
}
function keepPoint(i: number) {
  const e = number(`e${i}`, -2000, 2000, toMetres);
  const n = number(`n${i}`, -2000, 2000, toMetres);
  if (e === null || n === null) return;
  const before = props.element!.points[i];
  if (Math.hypot(e - before[0], n - before[1]) < 5e-4) return;
  emit('change', { points: props.element!.points.map((p, k) => (k === i ? ([e, n] as Point) : p)) });
}
/** Moves and stretches the whole thing to the box typed; a line keeps to its own direction. */
function keepBox() {
  const { points } = props.element!;
  const box = boxOf(points);
  const [w, h] = [box.east - box.west, box.north - box.south];
  const west = number('west', -2000, 2000, toMetres);
  const south = number('south', -2000, 2000, toMetres);
  const across = w > 0 ? number('across', 0.1, 2000, toMetres) : 0;
  const upward = h > 0 ? number('upward', 0.1, 2000, toMetres) : 0;
  if (west === null || south === null || across === null || upward === null) return;
  const tidy = (m: number) => Math.round(m * 1000) / 1000;
  const next = points.map(
    ([e, n]) =>
      [
        tidy(west + (w > 0 ? ((e - box.west) / w) * across : 0)),
        tidy(south + (h > 0 ? ((n - box.south) / h) * upward : 0)),
      ] as Point,
  );
  if (next.some((p, i) => Math.hypot(p[0] - points[i][0], p[1] - points[i][1]) > 5e-4))
    emit('change', { points: next });
}
const extent = computed(() => {
  const box = boxOf(props.element!.points);
  return { w: box.east - box.west, h: box.north - box.south };
});
/** A corner more, half-way to the next one. */
function addCorner(i: number) {
  const points = props.element!.points;
  const next = points[(i + 1) % points.length];
  const here = points[i];
  const between: Point =
    i + 1 < points.length || shape.value === 'area'
      ? [(here[0] + next[0]) / 2, (here[1] + next[1]) / 2]
      : [here[0] + 2, here[1]];
  emit('change', { points: [...points.slice(0, i + 1), between, ...points.slice(i + 1)] });
}
function dropCorner(i: number) {
  emit('change', { points: props.element!.points.filter((_, k) => k !== i) });
}
const shape = computed(() => (props.element ? shapeOfKind[props.element.kind] : null));
const least = computed(() => ({ area: 3, line: 2, point: 1 })[shape.value ?? 'point']);
const has = (...kinds: string[]) => props.element && kinds.includes(props.element.kind);
const grounds = [
  ['paving', say`Paving`],
  ['gravel', say`Gravel`],
  ['soil', say`Soil`],
  ['weeds', say`Weeds`],
] as const;
</script>

<template>
  <section aria-labelledby="thing">
    <template v-if="place">
      <h2 id="thing" class="text-lg">{{ place.name }}</h2>
      <p class="text-muted mb-2">{{ sizeWords(place, preferences) }}</p>
      <div class="grid grid-cols-3 gap-2">
        <KeptField v-model="form.east" :label="say`East`" :unit="m" :fault="faults.east" @keep="keepSpot" />
        <KeptField
          v-model="form.north"
          :label="say`North`"
          :unit="m"
          :fault="faults.north"
          @keep="keepSpot"
        />
        <KeptField v-model="form.angle" :label="say`Angle`" unit="°" :fault="faults.angle" @keep="keepSpot" />
      </div>
      <RouterLink class="quiet mt-1" :to="{ name: 'yard', params: { place: id } }">{{
        say`What it holds`
      }}</RouterLink>
    </template>
    <template v-else-if="element">
      <h2 id="thing" class="text-lg">{{ lookOf(element.kind).words }}</h2>
      <div class="space-y-2">
        <KeptField v-model="form.name" :label="say`Name`" text :fault="faults.name" @keep="keepName" />
        <div class="grid grid-cols-2 gap-2">
          <KeptField
            v-model="form.west"
            :label="say`West edge`"
            :unit="m"
            :fault="faults.west"
            @keep="keepBox"
          />
          <KeptField
            v-model="form.south"
            :label="say`South edge`"
            :unit="m"
            :fault="faults.south"
            @keep="keepBox"
          />
          <KeptField
            v-if="extent.w > 0"
            v-model="form.across"
            :label="say`West to east`"
            :unit="m"
            :fault="faults.across"
            @keep="keepBox"
          />
          <KeptField
            v-if="extent.h > 0"
            v-model="form.upward"
            :label="say`South to north`"
            :unit="m"
            :fault="faults.upward"
            @keep="keepBox"
          />
        </div>
        <SelectField
          v-if="has('surface')"
          :model-value="element.ground!"
          :label="say`Ground`"
          :options="grounds.map(([value, words]) => ({ value, words }))"
          @update:model-value="(ground) => emit('change', { ground })"
        />
        <div class="grid grid-cols-2 items-end gap-2">
          <KeptField
            v-for="f in figures"
            :key="f.key"
            v-model="form[f.key]"
            :label="f.label"
            :unit="f.unit"
            :fault="faults[f.key]"
            @keep="keepValue(f)"
          />
        </div>
        <label v-if="has('path')" class="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            class="size-5"
            :checked="element.main"
            @change="emit('change', { main: ($event.target as HTMLInputElement).checked })"
          />
          {{ say`Main path: 0.9 m or more ` }}
        </label>
        <details>
          <summary class="quiet">{{ say`Corners in figures` }}</summary>
          <div v-for="(_, i) in element.points" :key="`${id}.${i}`" class="mb-2 flex items-end gap-1">
            <KeptField
              v-model="form[`e${i}`]"
              :label="say`East ${i + 1}`"
              :fault="faults[`e${i}`]"
              @keep="keepPoint(i)"
            />
            <KeptField
              v-model="form[`n${i}`]"
              :label="say`North ${i + 1}`"
              :fault="faults[`n${i}`]"
              @keep="keepPoint(i)"
            />
            <button
              v-if="shape !== 'point'"
              class="act px-2"
              type="button"
              :aria-label="say`A corner after ${i + 1}`"
              @click="addCorner(i)"
            >
              +
            </button>
            <button
              v-if="element.points.length > least"
              class="act px-2"
              type="button"
              :aria-label="say`Take corner ${i + 1} away`"
              @click="dropCorner(i)"
            >
              −
            </button>
          </div>
        </details>
      </div>
    </template>
  </section>
</template>
