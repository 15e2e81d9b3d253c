<script setup lang="ts">
import { say } from '@kauri/core';
import type { Treatment } from '@kauri/core/contract';
import EntryFields from '../../../parts/EntryFields.vue';
import FormDialog from '../../../parts/FormDialog.vue';
import FormField from '../../../parts/FormField.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import TapCounter from '../../../parts/TapCounter.vue';
import { typedNumber } from '../../../parts/typed';
import { useSeason } from '../../../stores/season';
import { useSeedAct } from '../useSeedAct';

const props = defineProps<{ batch: Treatment }>();
const emit = defineEmits<{ close: [] }>();
const season = useSeason();
const { draft, busy, sentence, wrong, send } = useSeedAct(
  'checkTreatment',
  { treatment: props.batch.id },
  { n: '50', radicles: '0', on: season.todayIso, note: '' },
);
async function save() {
  const { n, radicles, on, note } = draft.value;
  const body = { n: typedNumber(n), radicles: typedNumber(radicles), on, note };
  if (await send(body, say`${props.batch.name}: look recorded.`, { undo: true })) emit('close');
}
</script>

<template>
  <FormDialog :title="say`Look for radicles`" :subtitle="batch.name" @close="emit('close')">
    <form class="space-y-3" novalidate @submit.prevent="save">
      <FormField v-model="draft.n" :label="say`Seeds looked at`" inputmode="numeric" :fault="wrong('n')" />
      <TapCounter v-model="draft.radicles" :label="say`Radicles seen`" :fault="wrong('radicles')" />
      <EntryFields v-model:on="draft.on" v-model:note="draft.note" :wrong="wrong" />
      <SheetActs :act="say`Record the look`" :busy="busy" :sentence="sentence()" @save="save" />
    </form>
  </FormDialog>
</template>
