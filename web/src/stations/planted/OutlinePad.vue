<script setup lang="ts">
import { cornersAt, outlineMetres, outlineMiddle, say, type Corner } from '@kauri/core';
import { useElementSize } from '@vueuse/core';
import interact from 'interactjs';
import { LocateFixed, Minus, Plus, Trash2 } from 'lucide-vue-next';
import { computed, nextTick, onBeforeUnmount, ref, useTemplateRef, watch } from 'vue';
import { useWhere } from '../../parts/useWhere';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';

/** An outline drawn: a corner where one taps, dragged or moved by the arrow keys; or taken where one stands. */
const corners = defineModel<Corner[]>({ required: true });
const nursery = useNursery();
const { show } = usePreferences();

interface At {
  east: number;
  north: number;
}
/** Ground the pad shows at first, and as far as it goes, m across. */
const USUAL_ACROSS_M = 100;
const ACROSS_M = [20, 50, 100, 200, 500, 1000, 2000] as const;
const LINES = 10;
/** The nursery, until a corner was taken elsewhere: what is drawn lies where it says, to a metre. */
const origin = ref(
  corners.value.length
    ? outlineMiddle(corners.value)
    : {
        latitudeDeg: nursery.catalogue!.nursery.latitudeDeg,
        longitudeDeg: nursery.catalogue!.nursery.longitudeDeg,
      },
);
const at = ref<At[]>(corners.value.length ? outlineMetres(corners.value) : []);
const reach = Math.max(0, ...at.value.flatMap(({ east, north }) => [Math.abs(east), Math.abs(north)]));
const across = ref<number>(ACROSS_M.find((m) => m >= 2.4 * reach && m >= USUAL_ACROSS_M) ?? ACROSS_M.at(-1)!);
const middle = ref<At>({ east: 0, north: 0 });
const step = computed(() => (across.value <= 100 ? 0.5 : 1));
const snap = (m: number) => Math.round(m / step.value) * step.value;

function put(next: At[]): void {
  at.value = next;
  corners.value = cornersAt(next, origin.value);
}
const frame = useTemplateRef<SVGSVGElement>('frame');
const { width } = useElementSize(frame);
const perPx = computed(() => (width.value > 0 ? across.value / width.value : 1));
const grid = computed(() => Array.from({ length: LINES + 1 }, (_, i) => (i / LINES - 0.5) * across.value));

/** Whether a drag just ended: the click that comes of it sets no corner. */
let dragged = false;
function tap(event: MouseEvent): void {
  if (dragged || !frame.value) return;
  const box = frame.value.getBoundingClientRect();
  put([
    ...at.value,
    {
      east: snap(middle.value.east + (event.clientX - box.left - box.width / 2) * perPx.value),
      north: snap(middle.value.north - (event.clientY - box.top - box.height / 2) * perPx.value),
    },
  ]);
}
let stop = () => {};
watch(
  frame,
  (svg) => {
    stop();
    if (!svg) return;
    let from: At | null = null;
    const thing = interact('[data-corner]', { context: svg })
      .styleCursor(false)
      .draggable({
        listeners: {
          start: ({ target }: { target: SVGElement }) => (from = at.value[Number(target.dataset.corner)]),
          move: (event: Interact.DragEvent & { clientX0: number; clientY0: number; target: SVGElement }) => {
            if (!from) return;
            const to = {
              east: snap(from.east + (event.clientX - event.clientX0) * perPx.value),
              north: snap(from.north - (event.clientY - event.clientY0) * perPx.value),
            };
            put(at.value.map((one, i) => (i === Number(event.target.dataset.corner) ? to : one)));
          },
          end: () => {
            dragged = true;
            requestAnimationFrame(() => (dragged = false));
          },
        },
      });
    stop = () => thing.unset();
  },
  { immediate: true },
);
onBeforeUnmount(() => stop());

const arrows: Readonly<Record<string, At>> = {
  ArrowUp: { east: 0, north: 1 },
  ArrowDown: { east: 0, north: -1 },
  ArrowRight: { east: 1, north: 0 },
  ArrowLeft: { east: -1, north: 0 },
};
function key(event: KeyboardEvent, i: number): void {
  if (event.key === 'Delete' || event.key === 'Backspace') {
    event.preventDefault();
    put(at.value.filter((_, k) => k !== i));
    return;
  }
  const way = arrows[event.key];
  if (!way) return;
  event.preventDefault();
  event.stopPropagation();
  const far = event.shiftKey ? 10 : 1;
  put(
    at.value.map((one, k) =>
      k === i ? { east: one.east + far * way.east, north: one.north + far * way.north } : one,
    ),
  );
}
/** A corner without a pointer: in the middle, to be moved by the arrows. */
async function add(): Promise<void> {
  put([...at.value, { ...middle.value }]);
  await nextTick();
  frame.value?.querySelector<SVGElement>(`[data-corner="${at.value.length - 1}"]`)?.focus();
}
/** How sure the device was of the last corner it took, m. */
const sure = ref<number | null>(null);
const where = useWhere((coords) => {
  const here = { latitudeDeg: coords.latitude, longitudeDeg: coords.longitude };
  sure.value = coords.accuracy;
  if (!at.value.length) origin.value = here;
  const next = [...corners.value, [here.longitudeDeg, here.latitudeDeg] as Corner];
  origin.value = outlineMiddle(next);
  at.value = outlineMetres(next);
  corners.value = next;
  middle.value = { east: 0, north: 0 };
  const farthest = Math.max(...at.value.flatMap(({ east, north }) => [Math.abs(east), Math.abs(north)]));
  across.value = ACROSS_M.find((m) => m >= 2.4 * farthest && m >= across.value) ?? across.value;
}, 0);
const { asking, trouble } = where;

/** Where a corner lies on the pad, as one would walk to it from its middle. */
function whereWords({ east, north }: At): string {
  const [x, y] = [Math.abs(east), Math.abs(north)].map((m) => show(m, 'site'));
  const across = east < 0 ? say`${x} west` : say`${x} east`;
  return north < 0 ? say`${across}, ${y} south` : say`${across}, ${y} north`;
}
function wider(way: 1 | -1): void {
  const now = ACROSS_M.findIndex((m) => m >= across.value);
  across.value = ACROSS_M[Math.min(ACROSS_M.length - 1, Math.max(0, now + way))];
}
const shape = computed(() => at.value.map(({ east, north }) => `${east},${-north}`).join(' '));
const sides = computed(() =>
  at.value.length < 2
    ? []
    : at.value.flatMap((a, i) => {
        const b = at.value[(i + 1) % at.value.length];
        if (i === at.value.length - 1 && at.value.length < 3) return [];
        return [
          {
            east: (a.east + b.east) / 2,
            north: (a.north + b.north) / 2,
            m: Math.hypot(b.east - a.east, b.north - a.north),
          },
        ];
      }),
);
const view = computed(() => {
  const half = across.value / 2;
  return `${middle.value.east - half} ${-middle.value.north - half} ${across.value} ${across.value}`;
});
</script>

<template>
  <div class="grid gap-x-4 gap-y-2 md:grid-cols-[28rem_1fr]" data-testid="outline-pad">
    <div class="relative">
      <svg
        ref="frame"
        class="border-muted bg-card aspect-square w-full cursor-crosshair touch-none rounded-md border"
        :viewBox="view"
        role="group"
        :aria-label="say`The ground, ${show(across, 'site', 0)} across, north up`"
        @click="tap"
      >
        <path
          class="stroke-rule"
          fill="none"
          :stroke-width="perPx"
          :d="
            grid
              .map(
                (g) =>
                  `M${middle.east + g} ${-middle.north - across / 2}v${across}M${middle.east - across / 2} ${-middle.north + g}h${across}`,
              )
              .join('')
          "
        />
        <polygon
          v-if="at.length > 1"
          class="fill-leaf-pale stroke-leaf"
          fill-opacity="0.7"
          :stroke-width="2 * perPx"
          :points="shape"
        />
        <text
          v-for="(side, i) in sides"
          :key="i"
          class="fill-ink stroke-card pointer-events-none"
          paint-order="stroke"
          :stroke-width="4 * perPx"
          text-anchor="middle"
          :font-size="13 * perPx"
          :x="side.east"
          :y="-side.north"
          aria-hidden="true"
        >
          {{ show(side.m, 'site', side.m < 20 ? 1 : 0) }}
        </text>
        <g
          v-for="(corner, i) in at"
          :key="`c${i}`"
          class="cursor-move"
          tabindex="0"
          role="button"
          :data-corner="i"
          :aria-label="say`Corner ${i + 1}: ${whereWords(corner)}; arrows move it, Delete takes it out`"
          @click.stop
          @keydown="key($event, i)"
        >
          <!-- As wide as a thumb. -->
          <circle class="fill-transparent" :cx="corner.east" :cy="-corner.north" :r="22 * perPx" />
          <circle
            class="fill-paper stroke-ink"
            :cx="corner.east"
            :cy="-corner.north"
            :r="9 * perPx"
            :stroke-width="2.5 * perPx"
          />
        </g>
      </svg>
      <span class="text-muted pointer-events-none absolute top-1 left-2 text-sm" aria-hidden="true">{{
        say`N ↑`
      }}</span>
      <span class="text-muted pointer-events-none absolute bottom-1 left-2 text-sm" aria-hidden="true">{{
        say`a square is ${show(across / LINES, 'site', across / LINES < 10 ? 1 : 0)}`
      }}</span>
      <div class="absolute top-2 right-2 flex flex-col gap-1">
        <button class="act px-3" type="button" :aria-label="say`Nearer`" @click="wider(-1)">
          <Plus :size="18" aria-hidden="true" />
        </button>
        <button class="act px-3" type="button" :aria-label="say`Farther`" @click="wider(1)">
          <Minus :size="18" aria-hidden="true" />
        </button>
      </div>
    </div>
    <div>
      <div class="flex flex-wrap content-start gap-2 md:flex-col md:items-start">
        <button v-if="where.has" class="act" type="button" :disabled="asking" @click="where.ask">
          <LocateFixed :size="18" aria-hidden="true" />
          {{ asking ? say`Asking the device …` : say`A corner where I stand` }}
        </button>
        <button class="act" type="button" @click="add">{{ say`Add a corner` }}</button>
        <button v-if="at.length" class="act" type="button" @click="put(at.slice(0, -1))">
          <Trash2 :size="18" aria-hidden="true" /> {{ say`Take the last out` }}
        </button>
      </div>
      <p v-if="trouble" class="mt-1 font-bold" role="status">{{ trouble }}</p>
      <p v-else-if="sure !== null" class="text-muted mt-1 text-sm">
        {{ say`The device knew its place to ${show(sure, 'site', 0)}: pace a side and see.` }}
      </p>
      <p v-else class="text-muted mt-1 text-sm">
        {{
          say`Tap corner after corner; drag one to move it. It lies about the nursery until a corner was taken where it is.`
        }}
      </p>
    </div>
  </div>
</template>
