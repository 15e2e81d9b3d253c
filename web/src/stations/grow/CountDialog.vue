<script setup lang="ts">
import { causesByHand, type OutCause, say } from '@kauri/core';
import { useMediaQuery } from '@vueuse/core';
import { computed, useTemplateRef } from 'vue';
import EntryFields from '../../parts/EntryFields.vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import TapCounter from '../../parts/TapCounter.vue';
import { typedNumber } from '../../parts/typed';
import type { ShownLot } from '../../parts/useLots';
import { useRecording } from '../../parts/useRecording';
import { causeWords } from '../../words/causes';
import { count, percent } from '../../words/numbers';
import PatchCounts, { type TypedPatch } from './PatchCounts.vue';

const props = defineProps<{ lot: ShownLot }>();
const emit = defineEmits<{ close: [] }>();
const { draft, on, record, busy, sentence, wrong } = useRecording('countEmergence', () => props.lot, {
  counted: '',
  cause: 'died' as OutCause,
  multi: '',
  damaged: '',
  patches: [] as TypedPatch[],
});

/** With a keyboard one types the count at once; in the hand no keys rise over the steppers. */
const atDesk = useMediaQuery('(pointer: fine)');
const counter = useTemplateRef('counter');

const held = computed(() => props.lot.row.held);
const inPatches = computed(() => draft.value.patches.length > 0);
const patches = computed(() =>
  draft.value.patches.map(({ name, counted }, i) => ({
    name: name.trim() || say`Patch ${i + 1}`,
    counted: typedNumber(counted),
  })),
);
const counted = computed(() =>
  inPatches.value ? patches.value.reduce((t, p) => t + p.counted, 0) : typedNumber(draft.value.counted),
);
const hint = computed(() => {
  if (!(counted.value >= 0)) return inPatches.value ? say`Count every patch; 0 where nothing stands.` : whole;
  return fewer.value > 0
    ? say`${count(fewer.value)} fewer than stood.`
    : say`${count(-fewer.value)} newly up; ${percent(counted.value / props.lot.view.standing.tally.seeds)} of the seeds sown.`;
});
const whole = say`Count the whole lot, or part by part.`;
const fewer = computed(() => held.value.standing - counted.value);
const causes = causesByHand.map((c) => ({ value: c, words: causeWords(c) }));

/** What is counted so far becomes the first patch. */
function split() {
  draft.value.patches = [
    { name: '', counted: draft.value.counted },
    { name: '', counted: '' },
  ];
}
async function save() {
  const cause = fewer.value > 0 ? draft.value.cause : null;
  const said = say`${count(counted.value)} of ${props.lot.row.code} counted.`;
  const { multi, damaged } = draft.value;
  const looked = (text: string) => (text.trim() === '' ? null : typedNumber(text));
  const body = {
    counted: counted.value,
    cause,
    multi: looked(multi),
    damaged: looked(damaged),
    patches: patches.value,
  };
  if (await record(body, said)) emit('close');
}
</script>

<template>
  <FormDialog
    :title="say`Count what stands`"
    :subtitle="`${lot.row.code} · ${lot.species}`"
    :initial-focus="atDesk ? counter?.input : null"
    @close="emit('close')"
  >
    <form class="space-y-3" novalidate @submit.prevent="save">
      <p>
        {{
          say`${count(held.standing)} stood at the last count; ${count(held.sown)} seeds are still in the ground.`
        }}
      </p>
      <template v-if="inPatches">
        <PatchCounts v-model="draft.patches" :wrong="wrong" />
        <p data-testid="patch-total">
          <template v-if="counted >= 0"
            >{{ say`In all` }} <b>{{ count(counted) }}</b>: </template
          >{{ hint }}
        </p>
        <p v-if="wrong('counted')" class="text-wrong font-bold" role="alert">{{ wrong('counted') }}</p>
      </template>
      <template v-else>
        <TapCounter
          ref="counter"
          v-model="draft.counted"
          :label="say`Seedlings standing now`"
          :before="held.standing"
          :fault="wrong('counted')"
          :hint="hint"
        />
        <button class="quiet" type="button" @click="split">{{ say`Count it in patches` }}</button>
      </template>
      <SelectField
        v-if="fewer > 0"
        v-model="draft.cause"
        :label="say`What became of them`"
        :options="causes"
        :fault="wrong('cause')"
      />
      <div class="grid grid-cols-2 gap-3">
        <FormField
          v-model="draft.multi"
          :label="say`Of them with several stems`"
          inputmode="numeric"
          :hint="say`Blank: not looked at`"
          :fault="wrong('multi')"
        />
        <FormField
          v-model="draft.damaged"
          :label="say`Damaged`"
          inputmode="numeric"
          :fault="wrong('damaged')"
        />
      </div>
      <EntryFields v-model:on="on" v-model:note="draft.note" :wrong="wrong" />
      <SheetActs :act="say`Keep the count`" :busy="busy" :sentence="sentence()" @save="save" />
    </form>
  </FormDialog>
</template>
