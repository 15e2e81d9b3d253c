<script setup lang="ts">
import { MEASURE_MARGIN as MARGIN, plantCv, plantsToMeasure, sampleSize, summarise, say } from '@kauri/core';
import { computed, nextTick, useTemplateRef } from 'vue';
import EntryFields from '../../parts/EntryFields.vue';
import FormDialog from '../../parts/FormDialog.vue';
import SheetActs from '../../parts/SheetActs.vue';
import type { ShownLot } from '../../parts/useLots';
import { useRecording } from '../../parts/useRecording';
import { usePreferences } from '../../stores/preferences';
import { percent, several } from '../../words/numbers';
import SamplePlan from './SamplePlan.vue';
import { useInstrument } from './useInstrument';
import { useMeasureRun, whatWords, type RunDraft, type What } from './useMeasureRun';

const props = defineProps<{ lot: ShownLot }>();
const emit = defineEmits<{ close: [] }>();
const preferences = usePreferences();

const { draft, on, record, busy, sentence, wrong, clear } = useRecording('measureLot', () => props.lot, {
  mode: 'height' as RunDraft['mode'],
  heightsCm: [] as number[],
  diametersMm: [] as number[],
});
const run = useMeasureRun(() => props.lot, draft);
const { typed, fault, waiting, asking, askWords, next, plant, valuesOf, take, shrank } = run;

const modes = [
  { mode: 'height', words: say`Heights` },
  { mode: 'diameter', words: say`Collars` },
  { mode: 'both', words: say`Both, plant by plant` },
] as const;

const input = useTemplateRef('input');
const toInput = () => void nextTick(() => input.value?.focus());
function fixLast() {
  run.fixLast();
  toInput();
}
function again() {
  run.again();
  toInput();
}
function keep() {
  run.keep();
  toInput();
}
function pasted(event: ClipboardEvent) {
  if (run.paste(event.clipboardData?.getData('text') ?? '')) event.preventDefault();
}
function backspace(event: KeyboardEvent) {
  if (typed.value !== '') return;
  event.preventDefault();
  fixLast();
}

const instrument = useInstrument((value) => {
  // One that is asked about waits for its answer; the tool's next reading does not push it aside.
  if (!asking.value) take(next.value, value);
});
function listen() {
  const what: What = next.value;
  const { state } = props.lot.view.forecast;
  const around = what === 'height' ? state.heightCm.p50 : state.diameterMm.p50;
  void instrument.listen(
    what === 'height' ? 'stick' : 'caliper',
    Math.max(0.5, around),
    plantCv(props.lot.facts),
    valuesOf(what).length + 1,
  );
}

const runs = computed(() =>
  (['height', 'diameter'] as const).flatMap((what) => {
    const values = valuesOf(what);
    if (values.length === 0) return [];
    const s = summarise(values);
    return [
      {
        what,
        values: values.map((v) => preferences.shown(v, what).toFixed(1)),
        mean: preferences.show(s.mean, what, 1),
        sd: preferences.show(s.sd, what, 1),
        margin: Number.isFinite(s.margin)
          ? `± ${percent(s.margin / s.mean)}`
          : say`one value says nothing of spread`,
        enough: s.margin <= MARGIN * s.mean,
        needed: s.n > 2 && s.sd > 0 ? sampleSize(s.sd / s.mean, MARGIN) : null,
      },
    ];
  }),
);
/** What the plants so far say together: how sturdy, and how many are to size. */
const together = computed(() => {
  const { heightsCm, diametersMm } = draft.value;
  const words: string[] = [];
  if (heightsCm.length && diametersMm.length) {
    const ratio = (summarise(heightsCm).mean * 10) / summarise(diametersMm).mean;
    words.push(say`Sturdiness ${Math.round(ratio)} : 1`);
  }
  const target = props.lot.facts.targetHeightCm;
  if (target !== null && heightsCm.length) {
    const share = heightsCm.filter((h) => h >= target).length / heightsCm.length;
    words.push(say`${percent(share)} at ${preferences.show(target, 'height')} or over`);
  }
  return words.join(' · ');
});
/** As Today asks. */
const advised = computed(() => plantsToMeasure(props.lot.facts, props.lot.row.held.standing));
const total = computed(() => Math.max(draft.value.heightsCm.length, draft.value.diametersMm.length));

async function save() {
  if (typed.value.trim() !== '') run.add();
  if (fault.value || asking.value) return;
  if (waiting.value.length) {
    fault.value = say`${several(waiting.value.length, 'value')} given together still wait: type the one before them anew, or leave them out.`;
    return;
  }
  instrument.quiet();
  const { heightsCm, diametersMm } = draft.value;
  const said = say`${several(total.value, 'plant')} of ${props.lot.row.code} measured.`;
  if (await record({ heightsCm, diametersMm }, said)) emit('close');
}
</script>

<template>
  <FormDialog
    :title="say`Measure`"
    :subtitle="`${lot.row.code} · ${lot.species}`"
    :initial-focus="input"
    @close="emit('close')"
  >
    <div class="mb-3 flex flex-wrap gap-2" role="radiogroup" :aria-label="say`What is measured`">
      <label
        v-for="m in modes"
        :key="m.mode"
        class="act has-checked:bg-ink has-checked:text-paper has-focus-visible:outline-3"
      >
        <input v-model="draft.mode" class="sr-only" type="radio" name="mode" :value="m.mode" />{{ m.words }}
      </label>
    </div>
    <p v-if="total === 0" class="text-muted mb-3">
      {{
        say`${advised} plants give the mean to a tenth. Take them where they are drawn, not by eye. Type a value, Enter, the next value; a caliper or stick that types its reading works the same, and so does a column pasted from a spreadsheet.`
      }}
    </p>
    <SamplePlan :lot="lot" :n="advised" :next="plant - 1" :seed="`${lot.row.id} ${on}`" />
    <form novalidate @submit.prevent="run.add">
      <label for="measured" class="mb-1 block font-bold">
        {{ say`${whatWords[next]} of plant ${plant}` }}
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
          @input="asking = null"
          @paste="pasted"
        />
        <button class="act" type="submit">{{ say`Enter` }}</button>
        <button class="act" type="button" :disabled="total === 0" @click="fixLast">
          {{ say`Fix last` }}
        </button>
      </div>
      <p id="measured-words" class="text-wrong mt-1 min-h-6 text-sm font-bold">{{ fault ?? '' }}</p>
      <div
        v-if="asking"
        class="border-ink mb-3 flex flex-wrap items-center gap-2 rounded border-2 p-2"
        role="alert"
        data-testid="asking"
      >
        <p class="mr-auto font-bold">{{ askWords }}</p>
        <button class="act" type="button" @click="keep">{{ say`It is right` }}</button>
        <button class="act" type="button" @click="again">{{ say`Type it anew` }}</button>
      </div>
      <p v-if="waiting.length" class="mb-3" role="status" data-testid="waiting">
        {{
          say`${several(waiting.length, 'value')} more ${waiting.length === 1 ? say`waits` : say`wait`} for this one.`
        }}
        <button class="quiet" type="button" @click="run.leaveOut">{{ say`Leave them out` }}</button>
      </p>
    </form>
    <p class="mb-3 flex flex-wrap items-center gap-2">
      <button v-if="!instrument.listening.value" class="quiet" type="button" @click="listen">
        {{ say`Listen to the ${next === 'height' ? say`height stick` : say`caliper`}` }}
      </button>
      <button v-else class="act" type="button" @click="instrument.quiet">{{ say`Listening: stop` }}</button>
      <span v-if="instrument.fault.value" class="text-wrong text-sm font-bold">{{
        instrument.fault.value
      }}</span>
    </p>
    <section v-for="r in runs" :key="r.what" class="panel mb-3 p-3" aria-live="polite">
      <div class="flex flex-wrap items-baseline justify-between gap-2">
        <p class="text-lg">
          <b>{{ whatWords[r.what] }} {{ r.mean }}</b>
          <span class="text-muted ml-1">{{ say`spread ${r.sd}, ${r.margin}` }}</span>
        </p>
        <p v-if="r.enough" class="border-ink rounded border-2 px-2 font-bold" data-testid="enough">
          {{ say`✓ Enough` }}
        </p>
        <p v-else-if="r.needed" class="text-muted">{{ say`about ${r.needed} needed` }}</p>
      </div>
      <p class="text-muted mt-1 break-words">{{ r.values.join('  ·  ') }}</p>
    </section>
    <p v-if="together" class="mb-3 font-bold" data-testid="together">{{ together }}</p>
    <p v-if="shrank" class="border-ink mb-3 rounded border-2 p-2 font-bold" role="alert">{{ shrank }}</p>
    <EntryFields v-model:on="on" v-model:note="draft.note" :wrong="wrong" />
    <SheetActs
      :act="total ? say`Keep ${several(total, 'plant')}` : say`Keep`"
      :busy="busy"
      :sentence="sentence()"
      :off="(total === 0 && typed === '') || asking !== null"
      @save="save"
    >
      <button v-if="total" class="quiet" type="button" @click="clear">{{ say`Begin anew` }}</button>
    </SheetActs>
  </FormDialog>
</template>
