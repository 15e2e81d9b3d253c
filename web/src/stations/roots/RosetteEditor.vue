<script setup lang="ts">
import { depthBands, rootPaths, type DepthBand, type LateralRoot, type RootPath, say } from '@kauri/core';
import { ref, useTemplateRef } from 'vue';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import { bandWords, pathWords } from '../../words/roots';
import RootRosette from './RootRosette.vue';
import { azimuthOf, SIDE } from './rosette';

/** Lays laterals round the collar, by pointer, touch or keys; the next one is like the last. */
const laterals = defineModel<LateralRoot[]>({ required: true });
const path = ref<RootPath>('straight');
const band = ref<DepthBand>('top');
const thickness = ref(1.5);
const needle = ref(0);
const chosen = ref<number | null>(null);
const drawing = useTemplateRef<SVGSVGElement>('drawing');

function add(azimuthDeg: number) {
  laterals.value.push({
    azimuthDeg,
    thicknessMm: thickness.value,
    band: band.value,
    path: path.value,
  });
  needle.value = azimuthDeg;
  chosen.value = null;
}
function pointed(event: PointerEvent) {
  const box = drawing.value!.getBoundingClientRect();
  const scale = SIDE / Math.min(box.width, box.height);
  const x = (event.clientX - box.left - box.width / 2) * scale + SIDE / 2;
  const y = (event.clientY - box.top - box.height / 2) * scale + SIDE / 2;
  add(azimuthOf(x, y));
}
const turn = (by: number) => (needle.value = (needle.value + by + 360) % 360);
const bandKeys: Record<string, DepthBand> = { t: 'top', m: 'middle', l: 'low' };
function key(event: KeyboardEvent) {
  const step = event.shiftKey ? 30 : 5;
  const { key: pressed } = event;
  if (pressed === 'ArrowRight') turn(step);
  else if (pressed === 'ArrowLeft') turn(-step);
  else if (pressed === 'Enter' || pressed === ' ') add(needle.value);
  else if (pressed === 'Backspace' || pressed === 'Delete') laterals.value.pop();
  else if (pressed === '+') thickness.value = Math.min(20, thickness.value + 0.5);
  else if (pressed === '-') thickness.value = Math.max(0.5, thickness.value - 0.5);
  else if (rootPaths[Number(pressed) - 1]) path.value = rootPaths[Number(pressed) - 1];
  else if (bandKeys[pressed.toLowerCase()]) band.value = bandKeys[pressed.toLowerCase()];
  else return;
  event.preventDefault();
}
const paths = rootPaths.map((value, i) => ({ value, words: pathWords[value], hint: say`Key ${i + 1}` }));
const bands = depthBands.map((value) => ({ value, words: bandWords[value] }));
const sizes = [0.5, 1, 1.5, 2.5, 4].map((value) => ({ value, words: `${value} mm` }));
</script>

<template>
  <div class="space-y-2">
    <svg
      ref="drawing"
      :viewBox="`0 0 ${SIDE} ${SIDE}`"
      class="bg-card border-rule mx-auto aspect-square w-full max-w-80 touch-none rounded-md border"
      tabindex="0"
      role="application"
      :aria-label="
        say`Rosette from above. Arrows turn the needle, Enter lays a root, 1 to 7 choose its path, T M L its depth, plus and minus its thickness, Backspace takes the last away.`
      "
      data-testid="rosette"
      @pointerdown="pointed"
      @keydown="key"
    >
      <RootRosette :laterals="laterals" :needle="needle" :chosen="chosen" />
    </svg>
    <p class="text-muted text-center text-sm" aria-live="polite">
      {{ say`Needle at ${needle}°. Tap where a root leaves, or turn with ← → and lay it with Enter.` }}
    </p>
    <ChoiceRow v-model="path" :label="say`The next root runs`" :options="paths" />
    <div class="grid gap-2 sm:grid-cols-2">
      <ChoiceRow v-model="band" :label="say`It leaves in the`" :options="bands" />
      <ChoiceRow v-model="thickness" :label="say`Thick`" :options="sizes" />
    </div>
    <ul v-if="laterals.length" class="flex flex-wrap gap-1.5" data-testid="laterals">
      <li v-for="(lateral, i) in laterals" :key="i">
        <button
          class="border-rule bg-card inline-flex min-h-11 items-center gap-1 rounded border px-2 text-sm"
          type="button"
          :aria-label="say`Take away the root at ${lateral.azimuthDeg}°, ${pathWords[lateral.path]}`"
          @mouseenter="chosen = i"
          @mouseleave="chosen = null"
          @focus="chosen = i"
          @blur="chosen = null"
          @click="laterals.splice(i, 1)"
        >
          {{ lateral.azimuthDeg }}° {{ pathWords[lateral.path] }} ×
        </button>
      </li>
    </ul>
  </div>
</template>
