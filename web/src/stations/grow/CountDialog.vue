<script setup lang="ts">
import { outCauses, type OutCause } from '@kauri/core';
import { computed } from 'vue';
import EntryFields from '../../parts/EntryFields.vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import type { ShownLot } from '../../parts/useLots';
import { useRecording } from '../../parts/useRecording';
import { causeWords } from '../../words/causes';
import { count, percent } from '../../words/numbers';

const props = defineProps<{ lot: ShownLot }>();
const emit = defineEmits<{ close: [] }>();
const { draft, on, record, busy, sentence, wrong } = useRecording('countEmergence', () => props.lot, {
  counted: '',
  cause: 'died' as OutCause,
});

const held = computed(() => props.lot.row.held);
const counted = computed(() => typedNumber(draft.value.counted));
const fewer = computed(() => held.value.standing - counted.value);
const causes = outCauses
  .filter((c) => c !== 'not-emerged' && c !== 'sampled')
  .map((c) => ({ value: c, words: causeWords(c) }));

async function save() {
  const cause = fewer.value > 0 ? draft.value.cause : null;
  const said = `${count(counted.value)} of ${props.lot.row.code} counted.`;
  if (await record({ counted: counted.value, cause }, said)) emit('close');
}
</script>

<template>
  <FormDialog title="Count what stands" :subtitle="`${lot.row.code} · ${lot.species}`" @close="emit('close')">
    <form class="space-y-3" novalidate @submit.prevent="save">
      <p>
        {{ count(held.standing) }} stood at the last count; {{ count(held.sown) }} seeds are still in the
        ground.
      </p>
      <FormField
        v-model="draft.counted"
        label="Seedlings standing now"
        inputmode="numeric"
        :fault="wrong('counted')"
        :hint="
          counted >= 0
            ? fewer > 0
              ? `${count(fewer)} fewer than stood.`
              : `${count(-fewer)} newly up; ${percent(counted / lot.view.standing.tally.seeds)} of the seeds sown.`
            : 'Count the whole lot, or count a patch and multiply up by area.'
        "
      />
      <SelectField
        v-if="fewer > 0"
        v-model="draft.cause"
        label="What became of them"
        :options="causes"
        :fault="wrong('cause')"
      />
      <EntryFields v-model:on="on" v-model:note="draft.note" :wrong="wrong" />
      <SheetActs act="Keep the count" :busy="busy" :sentence="sentence()" @save="save" />
    </form>
  </FormDialog>
</template>
