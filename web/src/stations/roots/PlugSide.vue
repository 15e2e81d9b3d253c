<script setup lang="ts">
import { depthBands, type PlugSeen, type TapForm, say } from '@kauri/core';
import { computed } from 'vue';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import { bandWords, tapWords, fibreWords, plugScoreWords, seenWords, surfaceWords } from '../../words/roots';

/** The plug or ball from the side: how dense its fibre is in each third, what lies on it, its tips and taproot. */
const props = defineProps<{ hasPlug: boolean; nodulates: boolean }>();
const plug = defineModel<PlugSeen>({ required: true });
const tap = defineModel<TapForm>('tap', { required: true });

const grades = fibreWords.map((words, value) => ({ value, words }));
const surfaces = surfaceWords.map((words, value) => ({ value, words }));
const scores = computed(() =>
  plugScoreWords.map((words, value) => ({ value: value as 0 | 1 | 2 | 3 | 4, words: `${value} ${words}` })),
);
const score = computed({
  get: () => plug.value.score ?? 2,
  set: (value) => (plug.value.score = value),
});
const tips = computed({ get: () => plug.value.tips ?? 'white', set: (v) => (plug.value.tips = v) });
const nodules = computed({ get: () => plug.value.nodules ?? 'none', set: (v) => (plug.value.nodules = v) });
const tipOptions = [
  { value: 'white', words: seenWords.white },
  { value: 'some', words: seenWords.some },
  { value: 'brown', words: seenWords.brown },
] as const;
const noduleOptions = ['none', 'few', 'many'].map((value) => ({
  value: value as 'none' | 'few' | 'many',
  words: seenWords[value as 'none' | 'few' | 'many'],
}));
const taps = (['straight', 'stopped', 'bent', 'none'] as const).map((value) => ({
  value,
  words: tapWords[value],
}));
/** Strokes of fibre in a third: the denser, the more. */
const fibres = computed(() =>
  depthBands.map((band, row) =>
    Array.from({ length: Math.round(plug.value.fibre[band] * 6) }, (_, i) => {
      const x = 14 + ((i * 37 + row * 17) % 72);
      const y = 24 + row * 30 + ((i * 11) % 26);
      return `M${x} ${y}q${(i % 2 ? 5 : -5) as number} 5 ${i % 3 ? 2 : -3} 9`;
    }).join(''),
  ),
);
const tapLine = computed(
  () =>
    ({
      straight: 'M50 14V122',
      stopped: 'M50 14V60M50 60l-9 14M50 60l9 14M50 60v12',
      bent: 'M50 14V70q0 22 18 14q10-6 4-18',
      none: '',
    })[tap.value],
);
</script>

<template>
  <div class="grid grid-cols-[5.5rem_1fr] gap-3">
    <svg viewBox="0 0 100 132" class="w-full self-start" role="img" :aria-label="say`The plug from the side`">
      <line x1="0" y1="14" x2="100" y2="14" stroke="var(--ink)" stroke-width="2" />
      <path d="M50 14V2" stroke="var(--leaf)" stroke-width="5" />
      <path
        :d="props.hasPlug ? 'M10 16h80l-8 96H18z' : 'M6 16h88v96H6z'"
        fill="var(--soil)"
        stroke="var(--soil-deep)"
        stroke-dasharray="4 3"
      />
      <g fill="none" stroke="var(--root-mid)" stroke-width="1.4" stroke-linecap="round">
        <path v-for="(d, i) in fibres" :key="i" :d="d" />
      </g>
      <path :d="tapLine" fill="none" stroke="var(--root)" stroke-width="4" stroke-linecap="round" />
      <path
        v-if="plug.surface > 0"
        :d="
          Array.from(
            { length: Math.round(plug.surface * 2) },
            (_, i) => `M${12 + i * 2} ${20 + i * 9}q-6 40 6 ${74 - i * 6}`,
          ).join('')
        "
        fill="none"
        stroke="var(--root)"
        stroke-width="1.8"
      />
    </svg>
    <div class="space-y-2">
      <ChoiceRow
        v-if="hasPlug"
        v-model="score"
        :label="say`Lifted by the stem, the plug is`"
        :options="scores"
      />
      <ChoiceRow
        v-for="b in depthBands"
        :key="b"
        v-model="plug.fibre[b]"
        :label="say`Fibre, ${bandWords[b]} third`"
        :options="grades"
      />
    </div>
    <div class="col-span-2 space-y-2">
      <ChoiceRow v-model="tap" :label="say`Taproot`" :options="taps" />
      <ChoiceRow v-model="plug.surface" :label="say`Long roots on the outside`" :options="surfaces" />
      <ChoiceRow v-model="tips" :label="say`Tips`" :options="tipOptions" />
      <ChoiceRow v-if="nodulates" v-model="nodules" :label="say`Nodules`" :options="noduleOptions" />
    </div>
  </div>
</template>
