<script setup lang="ts">
import { fibreWords, surfaceWords } from '../../words/roots';
import { say } from '@kauri/core';
import type { PhotoOf } from '@kauri/core';
import { transfer, type Remote } from 'comlink';
import { wrapSpeaking } from '../../workers/speaking';
import { computed, nextTick, onUnmounted, ref, shallowRef, useTemplateRef } from 'vue';
import { sentenceOf } from '../../api/problem';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import { typedNumber } from '../../parts/typed';
import { usePreferences } from '../../stores/preferences';
import { percent } from '../../words/numbers';
import type { PhotoMeasured, PhotoWorker } from '../../workers/photo.worker';
import { openSmall } from '../grow/smallPhoto';

/** Reads a photo of a plug or bare root, and suggests grades; whoever holds the plant decides. */
const props = defineProps<{ depthMm: number | null }>();
const emit = defineEmits<{
  close: [];
  use: [suggests: { top: number; middle: number; low: number; surface: number }];
}>();
const preferences = usePreferences();
const of = ref<PhotoOf>('plug');
const kinds = [
  { value: 'plug', words: say`Face of a plug` },
  { value: 'bare', words: say`Bare root` },
] as const;
/** Longest side kept, points: more than is measured or shown. */
const KEPT_SIDE = 1000;
const picture = shallowRef<ImageBitmap | null>(null);
const busy = ref(false);
const fault = ref<string | null>(null);
const read = shallowRef<Extract<PhotoMeasured, { fit: true }> | null>(null);
const canvas = useTemplateRef('canvas');

/** The scale: two points of the picture, and how far they lie apart. */
const ends = ref<{ x: number; y: number }[]>([]);
const apart = ref(props.depthMm === null ? '' : preferences.shown(props.depthMm, 'timber').toFixed(0));
const mmPerPoint = computed(() => {
  const mm = preferences.typed(typedNumber(apart.value), 'timber');
  if (!(mm > 0) || !picture.value || ends.value.length < 2) return null;
  const [a, b] = ends.value;
  const points = Math.hypot(a.x - b.x, a.y - b.y);
  return points > 5 ? mm / points : null;
});

let worker: Worker | null = null;
let remote: Remote<PhotoWorker> | null = null;
onUnmounted(() => {
  worker?.terminate();
  picture.value?.close();
});

async function choose(event: Event) {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (!file) return;
  busy.value = true;
  fault.value = null;
  read.value = null;
  try {
    const opened = await openSmall(file, KEPT_SIDE);
    picture.value?.close();
    picture.value = opened;
    ends.value = [];
    await measure();
  } catch (error) {
    fault.value = sentenceOf(error);
    busy.value = false;
  }
}
async function measure() {
  if (!picture.value) return;
  busy.value = true;
  fault.value = null;
  try {
    worker ??= new Worker(new URL('../../workers/photo.worker.ts', import.meta.url), { type: 'module' });
    remote ??= wrapSpeaking<PhotoWorker>(worker);
    const copy = await createImageBitmap(picture.value);
    const measured = await remote.measure(transfer(copy, [copy]), of.value, mmPerPoint.value);
    if (measured.fit) read.value = measured;
    else {
      read.value = null;
      fault.value = measured.why;
    }
  } catch (error) {
    fault.value = sentenceOf(error);
  } finally {
    busy.value = false;
    await nextTick(draw);
  }
}

/** The picture with what was taken for root laid over it, and the ends of the scale. */
function draw() {
  const sheet = canvas.value;
  if (!sheet || !picture.value) return;
  const shown = Math.min(1, 900 / Math.max(picture.value.width, picture.value.height));
  sheet.width = Math.round(picture.value.width * shown);
  sheet.height = Math.round(picture.value.height * shown);
  const pen = sheet.getContext('2d')!;
  pen.drawImage(picture.value, 0, 0, sheet.width, sheet.height);
  const style = getComputedStyle(document.documentElement);
  if (read.value) {
    const { width, height, value } = read.value;
    const over = new ImageData(width, height);
    for (let i = 0; i < value.parts.length; i++)
      if (value.parts[i] === 2) over.data.set([224, 161, 115, 255], 4 * i);
    const layer = document.createElement('canvas');
    layer.width = width;
    layer.height = height;
    layer.getContext('2d')!.putImageData(over, 0, 0);
    pen.drawImage(layer, 0, 0, sheet.width, sheet.height);
  }
  pen.strokeStyle = style.getPropertyValue('--water').trim();
  pen.fillStyle = pen.strokeStyle;
  pen.lineWidth = 4;
  ends.value.forEach(({ x, y }, i) => {
    pen.beginPath();
    pen.arc(x * shown, y * shown, 7, 0, 2 * Math.PI);
    pen.fill();
    if (i === 1) {
      pen.beginPath();
      pen.moveTo(ends.value[0].x * shown, ends.value[0].y * shown);
      pen.lineTo(x * shown, y * shown);
      pen.stroke();
    }
  });
}
function mark(event: MouseEvent) {
  const sheet = canvas.value!;
  const box = sheet.getBoundingClientRect();
  const point = {
    x: ((event.clientX - box.left) / box.width) * picture.value!.width,
    y: ((event.clientY - box.top) / box.height) * picture.value!.height,
  };
  ends.value = ends.value.length >= 2 ? [point] : [...ends.value, point];
  draw();
  if (ends.value.length === 2) void measure();
}
const rows = computed(() => {
  if (!read.value) return [];
  const { cover, down, across, baseOverMiddle, lengthM, heightMm, suggests } = read.value.value;
  const list = [
    { name: of.value === 'plug' ? say`Roots cover` : say`Roots fill of their frame`, value: percent(cover) },
    { name: say`Run down, across`, value: `${percent(down)}, ${percent(across)}` },
    {
      name: say`At the base, against the middle`,
      value: Number.isFinite(baseOverMiddle) ? `${baseOverMiddle.toFixed(1)} ×` : say`only at the base`,
    },
  ];
  if (lengthM !== null) list.push({ name: say`Length seen`, value: preferences.show(lengthM, 'site', 2) });
  if (heightMm !== null) list.push({ name: say`Height`, value: preferences.show(heightMm, 'timber') });
  list.push({
    name: say`Fibre, top to low`,
    value: [suggests.top, suggests.middle, suggests.low].map((g) => fibreWords[g]).join(', '),
  });
  list.push({ name: say`Long roots outside`, value: surfaceWords[suggests.surface] });
  return list;
});
async function bar() {
  const { makePdf, offerFile, PT_PER_MM } = await import('../../print/pdf');
  const length = 100 * PT_PER_MM;
  offerFile(
    'scale-bar.pdf',
    await makePdf({
      content: [
        { canvas: [{ type: 'rect', x: 0, y: 0, w: length, h: 8 * PT_PER_MM, color: '#000000' }] },
        {
          text: say`100 mm (3.94 in) from end to end. Print at full size; lay it beside the plug.`,
          margin: [0, 6],
        },
      ],
    }),
  );
}
</script>

<template>
  <FormDialog
    :title="say`Measure a photo`"
    :subtitle="
      say`One plant on a plain sheet, collar at the top, ground all round it. A suggestion: you decide.`
    "
    wide
    @close="emit('close')"
  >
    <div class="grid gap-5 md:grid-cols-[1fr_19rem]">
      <div>
        <label class="act has-focus-visible:outline-water has-focus-visible:outline-3">
          {{ picture ? say`Another photo` : say`Choose a photo` }}
          <input class="sr-only" type="file" accept="image/*" :disabled="busy" @change="choose" />
        </label>
        <canvas
          v-show="picture"
          ref="canvas"
          class="border-rule mt-3 max-h-[60vh] max-w-full cursor-crosshair rounded-md border"
          role="img"
          :aria-label="say`The photo, with what is taken for root marked`"
          @click="mark"
        />
      </div>
      <div class="space-y-3">
        <ChoiceRow
          v-model="of"
          :label="say`What it shows`"
          :options="kinds"
          @update:model-value="nextTick(measure)"
        />
        <FormField
          v-model="apart"
          :label="say`Two points apart by`"
          :unit="preferences.unit('timber')"
          inputmode="decimal"
          :hint="say`Click the ends of the plug, a ruler or a printed bar for lengths.`"
        />
        <button class="quiet" type="button" @click="bar">{{ say`Print a 100 mm bar` }}</button>
        <p v-if="busy" role="status">{{ say`Measuring …` }}</p>
        <p v-if="fault" class="text-wrong font-bold" role="alert" data-testid="unfit">{{ fault }}</p>
        <template v-if="read && !busy">
          <dl data-testid="photo-reading">
            <div
              v-for="row in rows"
              :key="row.name"
              class="border-rule flex justify-between gap-2 border-b py-1"
            >
              <dt class="text-muted">{{ row.name }}</dt>
              <dd class="text-right font-bold">{{ row.value }}</dd>
            </div>
          </dl>
          <p class="text-muted text-sm">
            {{ say`Orange is what it takes for root. If that is wrong, so are the figures.` }}
          </p>
          <button
            v-if="of === 'plug'"
            class="act-main"
            type="button"
            @click="emit('use', read.value.suggests)"
          >
            {{ say`Use these grades` }}
          </button>
          <ShowWorking :steps="read.working" />
        </template>
      </div>
    </div>
  </FormDialog>
</template>
