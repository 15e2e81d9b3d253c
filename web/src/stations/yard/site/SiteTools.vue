<script setup lang="ts">
import {
  alignments,
  elementKinds,
  spotAbout,
  type Alignment,
  type ElementKind,
  type Point,
  say,
} from '@kauri/core';
import type { PlaceBody } from '@kauri/core/contract';
import { Copy, Magnet, Redo2, RotateCw, Trash2, Undo2 } from 'lucide-vue-next';
import { computed, ref } from 'vue';
import SelectField from '../../../parts/SelectField.vue';
import { useNursery } from '../../../stores/nursery';
import { useYard } from '../../../stores/yard';
import { kindWords } from '../placeWords';
import { lookOf } from '../plan/elementLook';
import type { SiteEditing } from './useSiteEditing';

/** What changes the plan: adding, undoing, turning, copying, taking away, lining up, snapping. */
const props = defineProps<{ editing: SiteEditing; middle: () => Point }>();
const snap = defineModel<boolean>('snap', { required: true });
const nursery = useNursery();
const yard = useYard();
const { chosen } = props.editing;

const adding = ref('');
const toAdd = computed(() => [
  { value: '', words: say`What to add` },
  ...nursery.catalogue!.designs.map((d) => ({
    value: `design:${d.id}`,
    words: d.name,
    under: say`Beds, from a kept design`,
  })),
  ...(['bench', 'ground', 'bay'] as const).map((kind) => ({
    value: `place:${kind}`,
    words: kindWords[kind].replace(/^./, (c) => c.toUpperCase()),
    under: say`Other places`,
  })),
  ...elementKinds.map((kind) => ({
    value: `element:${kind}`,
    words: lookOf(kind).words,
    under: say`The site`,
  })),
]);
const soilless = computed(() => nursery.catalogue!.media.at(-1)!.id);
function add() {
  const what = adding.value;
  adding.value = '';
  if (!what) return;
  const middle = props.middle();
  const [kind, of] = what.split(':');
  if (kind === 'element') return void props.editing.addElement(of as ElementKind, middle);
  const round = (m: number) => Math.round(m * 10) / 10;
  const designed = nursery.catalogue!.designs.find((d) => d.id === of);
  const body = designed
    ? {
        kind: 'bed' as const,
        name: say`Bed 1`,
        mediumId: nursery.catalogue!.media[0].id,
        design: designed.design,
        builtFrom: { designId: designed.id, version: designed.version },
      }
    : {
        kind: of as 'bench',
        name: { bench: say`Bench 1`, ground: say`Standing-out 1`, bay: say`Heel-in bay 1` }[of]!,
        mediumId: soilless.value,
        design: {
          schema: 1 as const,
          lengthMm: { bench: 6000, ground: 6000, bay: 3600 }[of]!,
          widthMm: { bench: 1550, ground: 2400, bay: 1200 }[of]!,
        },
      };
  const spot = spotAbout(body as PlaceBody, middle, 0);
  void props.editing.addPlace({
    ...body,
    ...spot,
    eastM: round(spot.eastM),
    northM: round(spot.northM),
  } as PlaceBody);
}
const alignWords: Record<Alignment, string> = {
  west: say`West edges`,
  east: say`East edges`,
  south: say`South edges`,
  north: say`North edges`,
  'middle-east': say`Middles, west to east`,
  'middle-north': say`Middles, south to north`,
};
const aligning = ref('');
function align() {
  if (aligning.value) void props.editing.align(aligning.value as Alignment);
  aligning.value = '';
}

/** Acts with one button each; those on what is chosen wait until something is. */
const acts = computed(() => [
  { words: say`Undo`, key: 'Ctrl Z', icon: Undo2, on: yard.done.length > 0, act: () => yard.undo() },
  { words: say`Redo`, key: 'Ctrl Y', icon: Redo2, on: yard.undone.length > 0, act: () => yard.redo() },
  ...[
    { words: say`Turn a quarter`, key: 'R', icon: RotateCw, act: () => props.editing.rotate(90) },
    { words: say`Duplicate`, key: 'D', icon: Copy, act: () => props.editing.duplicate() },
    { words: say`Take away`, key: 'Delete', icon: Trash2, act: () => props.editing.remove() },
  ].map((act) => ({ ...act, on: chosen.value.length > 0 })),
]);
</script>

<template>
  <SelectField v-model="adding" class="w-44" label-hidden :label="say`Add to the plan`" :options="toAdd" />
  <button class="act" type="button" :disabled="!adding" @click="add">{{ say`Add` }}</button>
  <button
    v-for="a in acts"
    :key="a.words"
    class="act px-3"
    type="button"
    :disabled="!a.on"
    :aria-label="a.words"
    :title="`${a.words} (${a.key})`"
    @click="a.act()"
  >
    <component :is="a.icon" :size="20" aria-hidden="true" />
  </button>
  <SelectField
    v-model="aligning"
    class="w-40"
    label-hidden
    :label="say`Align`"
    :disabled="chosen.length < 2"
    :options="[
      { value: '', words: say`In line by` },
      ...alignments.map((value) => ({ value, words: alignWords[value] })),
    ]"
  />
  <button class="act" type="button" :disabled="chosen.length < 2 || !aligning" @click="align">
    {{ say`Align` }}
  </button>
  <button
    class="act px-3"
    type="button"
    :aria-pressed="snap"
    :aria-label="say`Snap to edges, paths and the grid`"
    :title="say`Snap`"
    @click="snap = !snap"
  >
    <Magnet :size="20" :class="snap ? '' : 'opacity-35'" aria-hidden="true" />
    <span class="text-sm">{{ snap ? say`Snap` : say`Free` }}</span>
  </button>
</template>
