<script setup lang="ts">
import {
  DIAMETER_LIMIT_MM,
  HEIGHT_LIMIT_CM,
  plantCv,
  sampleSize,
  summarise,
  type Quantity,
} from '@kauri/core';
import { computed, nextTick, ref, useTemplateRef } from 'vue';
import EntryFields from '../../parts/EntryFields.vue';
import FormDialog from '../../parts/FormDialog.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import type { ShownLot } from '../../parts/useLots';
import { useRecording } from '../../parts/useRecording';
import { usePreferences } from '../../stores/preferences';
import { percent, several } from '../../words/numbers';

const props = defineProps<{ lot: ShownLot }>();
const emit = defineEmits<{ close: [] }>();
const preferences = usePreferences();

type What = 'height' | 'diameter';
const { draft, on, record, busy, sentence, wrong, clear } = useRecording('measureLot', () => props.lot, {
  mode: 'height' as What | 'both',
  heightsCm: [] as number[],
  diametersMm: [] as number[],
});

/** Enough once the mean is known to a tenth of itself, nine times in ten. */
const MARGIN = 0.1;
const names: Record<What, string> = { height: 'Height', diameter: 'Collar' };
const modes = [
  { mode: 'height', words: 'Heights' },
  { mode: 'diameter', words: 'Collars' },
  { mode: 'both', words: 'Both, plant by plant' },
] as const;

const valuesOf = (what: What) => (what === 'height' ? draft.value.heightsCm : draft.value.diametersMm);
const next = computed<What>(() =>
  draft.value.mode === 'both'
    ? draft.value.heightsCm.length > draft.value.diametersMm.length
      ? 'diameter'
      : 'height'
    : draft.value.mode,
);
const plant = computed(() => valuesOf(next.value).length + 1);
const typed = ref('');
const fault = ref<string | null>(null);
const input = useTemplateRef('input');

function add() {
  const what = next.value;
  const value = Math.round(preferences.typed(typedNumber(typed.value), what) * 100) / 100;
  const limit = what === 'height' ? HEIGHT_LIMIT_CM : DIAMETER_LIMIT_MM;
  if (!(value > 0 && value <= limit)) {
    fault.value = `${names[what]}: a number above 0, at most ${preferences.show(limit, what)}. “${typed.value}” was not taken.`;
    return;
  }
  fault.value = null;
  valuesOf(what).push(value);
  typed.value = '';
}

/** Puts the last value back into the field to be typed anew. */
function fixLast() {
  const last: What =
    draft.value.mode === 'both' ? (next.value === 'height' ? 'diameter' : 'height') : draft.value.mode;
  const value = valuesOf(last).pop();
  if (value !== undefined) typed.value = String(Number(preferences.shown(value, last).toFixed(2)));
  void nextTick(() => input.value?.focus());
}
function backspace(event: KeyboardEvent) {
  if (typed.value !== '') return;
  event.preventDefault();
  fixLast();
}

const runs = computed(() =>
  (['height', 'diameter'] as const).flatMap((what) => {
    const values = valuesOf(what);
    if (values.length === 0) return [];
    const s = summarise(values);
    const quantity: Quantity = what;
    return [
      {
        what,
        values: values.map((v) => preferences.shown(v, quantity).toFixed(1)),
        mean: preferences.show(s.mean, quantity, 1),
        sd: preferences.show(s.sd, quantity, 1),
        margin: Number.isFinite(s.margin)
          ? `± ${percent(s.margin / s.mean)}`
          : 'one value says nothing of spread',
        enough: s.margin <= MARGIN * s.mean,
        needed: s.n > 2 && s.sd > 0 ? sampleSize(s.sd / s.mean, MARGIN) : null,
      },
    ];
  }),
);
const advised = computed(() => sampleSize(plantCv(props.lot.facts), MARGIN));
const total = computed(() => Math.max(draft.value.heightsCm.length, draft.value.diametersMm.length));

async function save() {
  if (typed.value.trim() !== '') add();
  if (fault.value) return;
  const { heightsCm, diametersMm } = draft.value;
  const said = `${several(total.value, 'plant')} of ${props.lot.row.code} measured.`;
  if (await record({ heightsCm, diametersMm }, said)) emit('close');
}
</script>

<template>
  <FormDialog
    title="Measure"
    :subtitle="`${lot.row.code} · ${lot.species}`"
    :initial-focus="input"
    @close="emit('close')"
  >
    <div class="mb-3 flex flex-wrap gap-2" role="radiogroup" aria-label="What is measured">
      <label
        v-for="m in modes"
        :key="m.mode"
        class="act has-checked:bg-ink has-checked:text-paper has-focus-visible:outline-3"
      >
        <input v-model="draft.mode" class="sr-only" type="radio" name="mode" :value="m.mode" />{{ m.words }}
      </label>
    </div>
    <p v-if="total === 0" class="text-muted mb-3">
      About {{ advised }} plants, taken here and there, give the mean to a tenth. Type a value, Enter, the
      next value. A caliper or stick that types its reading works the same.
    </p>
    <form novalidate @submit.prevent="add">
      <label for="measured" class="mb-1 block font-bold">
        {{ names[next] }} of plant {{ plant }}
        <span class="text-muted font-normal">{{ preferences.unit(next) }}</span>
      </label>
      <div class="flex gap-2">
        <input
          id="measured"
          ref="input"
          v-model="typed"
          class="field text-xl"
          inputmode="decimal"
          autocomplete="off"
          :aria-invalid="fault ? true : undefined"
          aria-describedby="measured-words"
          @keydown.backspace="backspace"
        />
        <button class="act" type="submit">Enter</button>
        <button class="act" type="button" :disabled="total === 0" @click="fixLast">Fix last</button>
      </div>
      <p
        id="measured-words"
        class="mt-1 min-h-6 text-sm"
        :class="fault ? 'text-wrong font-bold' : 'text-muted'"
      >
        {{ fault ?? '' }}
      </p>
    </form>
    <section v-for="run in runs" :key="run.what" class="panel mb-3 p-3" aria-live="polite">
      <div class="flex flex-wrap items-baseline justify-between gap-2">
        <p class="text-lg">
          <b>{{ names[run.what] }} {{ run.mean }}</b>
          <span class="text-muted ml-1">spread {{ run.sd }}, {{ run.margin }}</span>
        </p>
        <p v-if="run.enough" class="border-ink rounded border-2 px-2 font-bold" data-testid="enough">
          ✓ Enough
        </p>
        <p v-else-if="run.needed" class="text-muted">about {{ run.needed }} needed</p>
      </div>
      <p class="text-muted mt-1 break-words">{{ run.values.join('  ·  ') }}</p>
    </section>
    <EntryFields v-model:on="on" v-model:note="draft.note" :wrong="wrong" />
    <SheetActs
      :act="total ? `Keep ${several(total, 'plant')}` : 'Keep'"
      :busy="busy"
      :sentence="sentence()"
      :off="total === 0 && typed === ''"
      @save="save"
    >
      <button v-if="total" class="quiet" type="button" @click="clear">Begin anew</button>
    </SheetActs>
  </FormDialog>
</template>
