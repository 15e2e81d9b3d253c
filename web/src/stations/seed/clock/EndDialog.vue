<script setup lang="ts">
import { say } from '@kauri/core';
import type { Treatment } from '@kauri/core/contract';
import EntryFields from '../../../parts/EntryFields.vue';
import FormDialog from '../../../parts/FormDialog.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import { useMass } from '../../../parts/useMass';
import { useSeason } from '../../../stores/season';
import { useSeedAct } from '../useSeedAct';

const props = defineProps<{ batch: Treatment }>();
const emit = defineEmits<{ close: [] }>();
const season = useSeason();
const mass = useMass();
const { draft, busy, sentence, wrong, send, versionNow } = useSeedAct(
  'endTreatment',
  { treatment: props.batch.id },
  { endedOn: season.todayIso, note: props.batch.note },
);
async function save() {
  const body = { ...draft.value, version: versionNow(props.batch.version) };
  if (await send(body, say`${props.batch.name} ended.`)) emit('close');
}
</script>

<template>
  <FormDialog :title="say`End without sowing`" :subtitle="batch.name" @close="emit('close')">
    <form class="space-y-3" novalidate @submit.prevent="save">
      <p>
        {{
          say`${mass(batch.grams)} of seed go out with it. They do not go back to the bag: treated seed does not keep.`
        }}
      </p>
      <EntryFields
        v-model:on="draft.endedOn"
        v-model:note="draft.note"
        :wrong="wrong"
        :hint="say`Why: mould, mice, dead`"
      />
      <SheetActs :act="say`End it`" :busy="busy" :sentence="sentence()" @save="save" />
    </form>
  </FormDialog>
</template>
