<script setup lang="ts">
import {
  boxAround,
  boxOf,
  cornersOf,
  middleOf,
  middleOfPlace,
  shapeOfKind,
  sizeOf,
  type Box,
  type Point,
  type SiteElement,
  say,
} from '@kauri/core';
import { Maximize } from 'lucide-vue-next';
import { computed, useTemplateRef } from 'vue';
import { usePreferences } from '../../../stores/preferences';
import { roomWords } from '../placeWords';
import type { ShownPlace } from '../usePlaces';
import { elementWords, lookOf, surfaceShade } from './elementLook';
import { planParts } from './planParts';
import { useView } from './useView';

/** The yard from above, to scale, north up. In `edit`, things can be taken hold of; else places are chosen. */
const props = defineProps<{
  places: readonly ShownPlace[];
  elements: readonly SiteElement[];
  chosen: readonly string[];
  edit?: boolean;
  /** Places that something is wrong with. */
  faulty?: ReadonlySet<string>;
  /** Quadrilaterals of shade on the ground. */
  shade?: readonly (readonly Point[])[];
  /** A few words under a place's name. */
  notes?: ReadonlyMap<string, string>;
  marks?: readonly { point: Point; words: string }[];
}>();
const emit = defineEmits<{
  choose: [id: string, more: boolean];
  act: [event: KeyboardEvent, id: string];
  ground: [point: Point];
}>();
const preferences = usePreferences();
const frame = useTemplateRef('frame');

const extent = computed<Box>(() => {
  const boxes = [
    ...props.places.map((p) => boxOf(cornersOf(p.place.place))),
    ...props.elements.map((e) => boxOf(e.points)),
  ];
  return boxes.length ? boxAround(boxes) : { west: 0, east: 20, south: 0, north: 15 };
});
const view = useView(frame, extent, () => (preferences.units === 'us' ? 0.3048 : 1));
const { width, height, scale, transform, bar } = view;

const areas = computed(() => props.elements.filter((e) => shapeOfKind[e.kind] === 'area'));
const lines = computed(() => props.elements.filter((e) => shapeOfKind[e.kind] === 'line'));
const points = computed(() => props.elements.filter((e) => shapeOfKind[e.kind] === 'point'));
const order = ['surface', 'outline', 'shade', 'tunnel', 'building', 'cold-store'];
const drawnAreas = computed(() =>
  [...areas.value].sort((a, b) => order.indexOf(a.kind) - order.indexOf(b.kind)),
);
const ring = (p: readonly Point[]) => p.map((q) => q.join(' ')).join('L');
const pathOf = (e: SiteElement) => `M${ring(e.points)}${shapeOfKind[e.kind] === 'area' ? 'Z' : ''}`;

const drawn = computed(() =>
  props.places.map((shown) => {
    const body = shown.place.place;
    const { lengthM: l, widthM: w } = sizeOf(body);
    const [e, n] = middleOfPlace(body);
    return {
      id: shown.place.id,
      kind: body.kind,
      name: body.name,
      words: `${body.name}, ${roomWords(shown.occupancy, preferences)}`,
      at: `translate(${e} ${n}) rotate(${body.angleDeg})`,
      middle: [e, n] as Point,
      corner: [boxOf(cornersOf(body)).west, boxOf(cornersOf(body)).north] as Point,
      upright: Math.abs(Math.sin((body.angleDeg * Math.PI) / 180)) > 0.7,
      l,
      w,
      parts: planParts(shown, { x: -l / 2, y: -w / 2, w: l, h: w }),
    };
  }),
);
const fills: Record<string, string> = {
  bed: 'var(--soil)',
  bench: 'var(--card)',
  ground: 'var(--card)',
  bay: 'var(--frost)',
};
const dashes: Record<string, string | undefined> = { bench: '6 3', ground: '2 3', bay: '10 2' };
/** Covers are named under their south edge, where no place stands. */
const under = (e: SiteElement) => e.kind === 'tunnel' || e.kind === 'shade';
function labelAt(e: SiteElement): Point {
  const [east, north] = middleOf(e.points);
  return under(e) ? [east, boxOf(e.points).south] : [east, north];
}
const isChosen = (id: string) => props.chosen.includes(id);
/** A place's note, where it has room beside the name. */
function noteOf(d: (typeof drawn.value)[number]): string {
  const note = props.notes?.get(d.id);
  if (!note) return '';
  const room = (d.upright ? d.w : d.l) * scale.value + 14;
  return isChosen(d.id) || room > (d.name.length + note.length) * 6.6 ? ` ${note}` : '';
}
/** The one place or thing the Tab key reaches; arrows go on from it when choosing. */
const tabId = computed(() => props.chosen[0] ?? drawn.value[0]?.id);

function step(event: KeyboardEvent, id: string) {
  if (props.edit) return emit('act', event, id);
  const by = { ArrowRight: [1, 0], ArrowLeft: [-1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
  if (!by) return;
  event.preventDefault();
  const here = drawn.value.find((d) => d.id === id)!;
  let best: { id: string; far: number } | null = null;
  for (const other of drawn.value) {
    const [dx, dy] = [other.middle[0] - here.middle[0], other.middle[1] - here.middle[1]];
    const ahead = dx * by[0] + dy * by[1];
    const aside = Math.abs(dx * by[1]) + Math.abs(dy * by[0]);
    if (other.id === id || ahead <= 0.2) continue;
    const far = ahead + 2 * aside;
    if (!best || far < best.far) best = { id: other.id, far };
  }
  if (!best) return;
  emit('choose', best.id, false);
  focus(best.id);
}
function focus(id: string) {
  frame.value?.querySelector<SVGElement>(`[data-id="${id}"]`)?.focus();
}
function onWheel(event: WheelEvent) {
  const box = frame.value!.getBoundingClientRect();
  view.zoom(event.deltaY < 0 ? 1.15 : 1 / 1.15, event.clientX - box.left, event.clientY - box.top);
}

/** Panning by the ground: only where no thing was taken hold of. */
let from: { x: number; y: number; moved: boolean; id: number } | null = null;
function onDown(event: PointerEvent) {
  if ((event.target as Element).closest('[data-id], [data-handle]')) return;
  from = { x: event.clientX, y: event.clientY, moved: false, id: event.pointerId };
  frame.value!.setPointerCapture(event.pointerId);
}
function onMove(event: PointerEvent) {
  if (!from || from.id !== event.pointerId) return;
  const [dx, dy] = [event.clientX - from.x, event.clientY - from.y];
  if (!from.moved && Math.hypot(dx, dy) < 4) return;
  from = { x: event.clientX, y: event.clientY, moved: true, id: from.id };
  view.pan(dx, dy);
}
function onUp(event: PointerEvent) {
  if (from && !from.moved) {
    const box = frame.value!.getBoundingClientRect();
    emit('ground', view.toPlan(event.clientX - box.left, event.clientY - box.top));
  }
  from = null;
}
defineExpose({ view, frame, focus });
</script>

<template>
  <div class="relative overflow-hidden">
    <svg
      ref="frame"
      class="block h-full w-full touch-none"
      role="group"
      :aria-label="say`Plan of the yard, to scale, north up`"
      data-testid="plan"
      @wheel.prevent="onWheel"
      @pointerdown="onDown"
      @pointermove="onMove"
      @pointerup="onUp"
      @pointercancel="from = null"
    >
      <defs>
        <pattern id="hatch" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="scale(0.05)">
          <rect width="8" height="8" fill="var(--card)" />
          <path d="M0 8L8 0" stroke="var(--muted)" stroke-width="1.4" />
        </pattern>
        <pattern id="grid" width="1" height="1" patternUnits="userSpaceOnUse">
          <path d="M1 0H0V1" fill="none" stroke="var(--rule)" stroke-width="0.02" />
        </pattern>
      </defs>
      <g :transform="transform" vector-effect="non-scaling-stroke">
        <rect
          v-if="edit"
          :x="extent.west - 40"
          :y="extent.south - 40"
          :width="extent.east - extent.west + 80"
          :height="extent.north - extent.south + 80"
          fill="url(#grid)"
          aria-hidden="true"
        />
        <g v-for="e in drawnAreas" :key="e.id">
          <path
            :d="pathOf(e)"
            :fill="lookOf(e.kind).fill"
            :fill-opacity="e.kind === 'surface' ? surfaceShade(e) : 1"
            :stroke="isChosen(e.id) ? 'var(--ink)' : lookOf(e.kind).stroke"
            :stroke-width="isChosen(e.id) ? 4 : (lookOf(e.kind).px ?? 1)"
            :stroke-dasharray="lookOf(e.kind).dash"
            vector-effect="non-scaling-stroke"
            :data-id="edit ? e.id : undefined"
            :role="edit ? 'button' : undefined"
            :tabindex="edit ? 0 : undefined"
            :aria-label="edit ? elementWords(e, (m) => preferences.show(m, 'site')) : undefined"
            :aria-pressed="edit ? isChosen(e.id) : undefined"
            :aria-hidden="edit ? undefined : true"
            class="thing"
            :class="e.kind === 'outline' ? 'ring' : ''"
            @click="edit && emit('choose', e.id, $event.shiftKey)"
            @keydown="edit && emit('act', $event, e.id)"
          />
        </g>
        <g v-for="e in lines" :key="e.id">
          <path
            :d="pathOf(e)"
            fill="none"
            :stroke="lookOf(e.kind).stroke"
            :stroke-width="e.kind === 'path' ? (e.widthM ?? 0.6) : lookOf(e.kind).px"
            :stroke-dasharray="lookOf(e.kind).dash"
            stroke-linecap="round"
            stroke-linejoin="round"
            :vector-effect="e.kind === 'path' ? undefined : 'non-scaling-stroke'"
            pointer-events="none"
            :data-id="edit ? e.id : undefined"
            aria-hidden="true"
          />
          <path
            v-if="edit"
            :d="pathOf(e)"
            fill="none"
            stroke="var(--water)"
            stroke-opacity="0"
            stroke-width="18"
            stroke-linecap="round"
            vector-effect="non-scaling-stroke"
            pointer-events="stroke"
            :data-id="e.id"
            role="button"
            tabindex="0"
            :aria-label="elementWords(e, (m) => preferences.show(m, 'site'))"
            :aria-pressed="isChosen(e.id)"
            class="thing line"
            @click="emit('choose', e.id, $event.shiftKey)"
            @keydown="emit('act', $event, e.id)"
          />
          <path
            v-if="isChosen(e.id)"
            :d="pathOf(e)"
            fill="none"
            stroke="var(--ink)"
            stroke-width="2"
            vector-effect="non-scaling-stroke"
            pointer-events="none"
          />
        </g>
        <g v-if="shade" aria-hidden="true" opacity="0.32" data-testid="shade">
          <path v-for="(quad, i) in shade" :key="i" :d="`M${ring(quad)}Z`" fill="var(--ink)" />
        </g>
        <g
          v-for="d in drawn"
          :key="d.id"
          role="button"
          :tabindex="edit || d.id === tabId ? 0 : -1"
          :aria-label="d.words"
          :aria-pressed="isChosen(d.id)"
          :data-id="d.id"
          :data-place="d.id"
          :transform="d.at"
          class="plan-place cursor-pointer"
          @click="emit('choose', d.id, $event.shiftKey)"
          @keydown.enter.prevent="emit('choose', d.id, $event.shiftKey)"
          @keydown.space.prevent="emit('choose', d.id, $event.shiftKey)"
          @keydown="step($event, d.id)"
        >
          <rect :x="-d.l / 2" :y="-d.w / 2" :width="d.l" :height="d.w" :fill="fills[d.kind]" />
          <rect
            v-for="(p, i) in d.parts"
            :key="i"
            :x="p.x"
            :y="p.y"
            :width="p.w"
            :height="p.h"
            fill="var(--soil-deep)"
            :opacity="d.kind === 'bed' ? 0.75 : 0.55"
            stroke="var(--card)"
            stroke-width="0.8"
            vector-effect="non-scaling-stroke"
          />
          <rect
            class="edge"
            :x="-d.l / 2"
            :y="-d.w / 2"
            :width="d.l"
            :height="d.w"
            fill="none"
            :stroke="faulty?.has(d.id) ? 'var(--wrong)' : 'var(--ink)'"
            :stroke-width="isChosen(d.id) ? 3.5 : faulty?.has(d.id) ? 2.5 : 1.4"
            :stroke-dasharray="dashes[d.kind]"
            vector-effect="non-scaling-stroke"
          />
        </g>
        <g v-for="e in points" :key="e.id" :transform="`translate(${e.points[0][0]} ${e.points[0][1]})`">
          <circle
            :r="7 / scale"
            :fill="lookOf(e.kind).fill"
            :stroke="isChosen(e.id) ? 'var(--ink)' : 'var(--card)'"
            stroke-width="2"
            vector-effect="non-scaling-stroke"
            :data-id="edit ? e.id : undefined"
            :role="edit ? 'button' : undefined"
            :tabindex="edit ? 0 : undefined"
            :aria-label="edit ? elementWords(e, (m) => preferences.show(m, 'site')) : undefined"
            :aria-pressed="edit ? isChosen(e.id) : undefined"
            class="thing"
            @click="edit && emit('choose', e.id, $event.shiftKey)"
            @keydown="edit && emit('act', $event, e.id)"
          />
        </g>
        <g aria-hidden="true" pointer-events="none">
          <g
            v-for="e in [...drawnAreas, ...lines, ...points].filter(
              (x) => !['surface', 'outline', 'fence', 'path'].includes(x.kind),
            )"
            :key="e.id"
            :transform="`translate(${labelAt(e)[0]} ${labelAt(e)[1]}) scale(${1 / scale} ${-1 / scale})`"
          >
            <text
              class="halo"
              font-size="12"
              text-anchor="middle"
              :y="e.kind === 'standpipe' ? 22 : under(e) ? 15 : 4"
              fill="var(--muted)"
            >
              {{ e.name }}
            </text>
          </g>
          <g
            v-for="d in drawn"
            :key="d.id"
            :transform="`translate(${d.corner[0]} ${d.corner[1]}) scale(${1 / scale} ${-1 / scale})`"
          >
            <text
              v-if="isChosen(d.id) || (scale > 8.5 && (d.upright ? d.w : d.l) * scale > d.name.length * 4.6)"
              class="halo"
              font-size="13"
              y="-4"
              :font-weight="isChosen(d.id) ? 700 : 400"
              fill="var(--ink)"
            >
              {{ d.name }}{{ noteOf(d) }}
            </text>
          </g>
          <g
            v-for="(mark, i) in marks"
            :key="i"
            :transform="`translate(${mark.point[0]} ${mark.point[1]}) scale(${1 / scale} ${-1 / scale})`"
          >
            <path d="M-7 0L0 -7L7 0L0 7Z" fill="var(--tag)" stroke="var(--ink)" stroke-width="1.5" />
            <text class="halo" x="11" y="4" font-size="12" fill="var(--ink)">{{ mark.words }}</text>
          </g>
        </g>
        <slot :scale="scale" />
      </g>
      <g :transform="`translate(${width - 34} ${height - 16})`" aria-hidden="true">
        <path :d="`M${-bar.px} 0H0M${-bar.px} -4v8M0 -4v8`" stroke="var(--ink)" stroke-width="1.5" />
        <text :x="-bar.px - 6" y="4" class="halo" font-size="13" text-anchor="end" fill="var(--ink)">
          {{ preferences.show(bar.metres, 'site', bar.metres < 0.4 ? 1 : 0) }}
        </text>
        <path d="M16 4V-12M16 -18l-5 9h10z" stroke="var(--ink)" fill="var(--ink)" />
        <text x="16" y="-21" font-size="12" text-anchor="middle" fill="var(--ink)">N</text>
      </g>
    </svg>
    <div class="absolute bottom-2 left-2 flex gap-1">
      <button class="act px-3" type="button" :aria-label="say`Closer`" @click="view.zoom(1.4)">+</button>
      <button class="act px-3" type="button" :aria-label="say`Farther`" @click="view.zoom(1 / 1.4)">−</button>
      <button
        class="act px-3"
        type="button"
        :aria-label="say`Whole plan`"
        :title="say`Whole plan`"
        @click="view.fit()"
      >
        <Maximize :size="20" aria-hidden="true" />
      </button>
    </div>
  </div>
</template>

<style scoped>
.plan-place:focus,
.thing:focus {
  outline: none;
}
.plan-place:focus-visible .edge {
  stroke: var(--water);
  stroke-width: 5;
}
.thing:focus-visible {
  stroke: var(--water);
  stroke-width: 5;
}
.line:focus-visible {
  stroke-opacity: 0.6;
}
.plan-place:hover .edge {
  stroke-width: 3;
}
.ring {
  pointer-events: stroke;
}
.halo {
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
  stroke-linejoin: round;
}
</style>
