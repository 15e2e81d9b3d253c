<script setup lang="ts">
import { causesByHand, type OutCause, say } from '@kauri/core';
import { computed, ref, watch } from 'vue';
import EntryFields from '../../parts/EntryFields.vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import type { ShownLot } from '../../parts/useLots';
import { useRecording } from '../../parts/useRecording';
import { causeWords } from '../../words/causes';
import { count, several } from '../../words/numbers';

const props = defineProps<{ lot: ShownLot }>();
const emit = defineEmits<{ close: [] }>();
type From = 'sown' | 'standing' | 'lifted';
const held = computed(() => props.lot.row.held);
const { draft, on, record, busy, sentence, wrong } = useRecording('writeOff', () => props.lot, {
  from: (held.value.standing > 0 ? 'standing' : held.value.sown > 0 ? 'sown' : 'lifted') as From,
  cause: 'died' as OutCause,
  count: '',
});

const froms = computed(() =>
  (
    [
      ['standing', say`trees standing`],
      ['sown', say`seeds in the ground`],
      ['lifted', say`trees lifted`],
    ] as const
  ).map(([value, words]) => ({ value, words: `${count(held.value[value])} ${words}` })),
);
const causes = computed(() =>
  [...(draft.value.from === 'sown' ? (['not-emerged'] as const) : []), ...causesByHand].map((c) => ({
    value: c,
    words: causeWords(c),
  })),
);
watch(
  () => draft.value.from,
  (from) => {
    if (from === 'sown') draft.value.cause = 'not-emerged';
    else if (draft.value.cause === 'not-emerged') draft.value.cause = 'died';
  },
  { immediate: true },
);
const number = computed(() => typedNumber(draft.value.count));
const gone = computed(() => several(number.value, draft.value.from === 'sown' ? 'seed' : 'tree'));

/** Trees leave the books for good here, so it is asked once more. */
const asking = ref(false);
async function save() {
  if (!asking.value && number.value > 0) {
    asking.value = true;
    return;
  }
  const { from, cause } = draft.value;
  if (
    await record(
      { from, cause, count: number.value },
      say`${gone.value} of ${props.lot.row.code} written off.`,
    )
  )
    emit('close');
  else asking.value = false;
}
watch(
  () => [draft.value.count, draft.value.from, draft.value.cause],
  () => (asking.value = false),
);
</script>

<template>
  <FormDialog :title="say`Write off`" :subtitle="`${lot.row.code} · ${lot.species}`" @close="emit('close')">
    <form class="space-y-3" novalidate @submit.prevent="save">
      <SelectField v-model="draft.from" :label="say`Of which`" :options="froms" />
      <div class="grid gap-3 sm:grid-cols-2">
        <FormField
          v-model="draft.count"
          :label="say`How many are gone`"
          inputmode="numeric"
          :fault="wrong('count')"
        />
        <SelectField
          v-model="draft.cause"
          :label="say`What became of them`"
          :options="causes"
          :fault="wrong('cause')"
        />
      </div>
      <button class="quiet" type="button" @click="draft.count = String(held[draft.from])">
        {{ say`All ${count(held[draft.from])}` }}
      </button>
      <EntryFields v-model:on="on" v-model:note="draft.note" :wrong="wrong" />
      <p v-if="asking" class="border-ink rounded border-2 p-3 font-bold" role="alert">
        {{
          say`${gone} leave the count: ${causeWords(draft.cause)}. Write ${number === 1 ? say`it` : say`them`} off?`
        }}
      </p>
      <SheetActs
        :act="asking ? say`Yes, write off ${gone}` : say`Write off`"
        :busy="busy"
        :sentence="sentence()"
        @save="save"
      >
        <button v-if="asking" class="act" type="button" @click="asking = false">{{ say`Keep them` }}</button>
      </SheetActs>
    </form>
  </FormDialog>
</template>
