<script setup lang="ts">
import { isoOf, say } from '@kauri/core';
import type { Hold } from '@kauri/core/contract';
import { computed } from 'vue';
import EntryFields from '../../parts/EntryFields.vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import { useDraft } from '../../parts/useDraft';
import { useSaving } from '../../parts/useSaving';
import { useHolds } from '../../stores/holds';
import { useMessages } from '../../stores/messages';
import { useSeason } from '../../stores/season';
import { count, several } from '../../words/numbers';

/** Ends a hold with how many came through; the others leave the lot. */
const props = defineProps<{ hold: Hold; standing: number }>();
const emit = defineEmits<{ close: [] }>();
const holds = useHolds();
const season = useSeason();
const messages = useMessages();
const key = `end-hold.${props.hold.id}`;
const { draft, clear } = useDraft(key, { on: '', note: '', alive: '' });
const { busy, save, sentence, wrong } = useSaving(key);
const on = computed({
  get: () => draft.value.on || isoOf(Math.min(season.view, season.today)),
  set: (day: string) => (draft.value.on = day),
});
const alive = computed(() => typedNumber(draft.value.alive));
const gone = computed(() => props.standing - alive.value);
async function end() {
  const body = { on: on.value, note: draft.value.note, alive: alive.value };
  const kept = await save(body, async (id) => {
    await holds.end(props.hold.id, { id, ...body });
    return true;
  });
  if (kept === null) return;
  clear();
  messages.say(say`${several(body.alive, 'plant')} of ${props.hold.code} came through.`, () =>
    holds.takeBack(props.hold.id),
  );
  emit('close');
}
</script>

<template>
  <FormDialog :title="say`End the hold`" :subtitle="hold.code" @close="emit('close')">
    <form class="space-y-4" novalidate @submit.prevent="end">
      <FormField
        v-model="draft.alive"
        :label="say`Alive`"
        inputmode="numeric"
        :hint="gone > 0 ? say`${count(gone)} leave the lot as dead` : say`Of ${count(standing)} that stood`"
        :fault="wrong('alive')"
      />
      <EntryFields v-model:on="on" v-model:note="draft.note" :wrong="wrong" />
      <SheetActs :act="say`Keep it`" :busy="busy" :sentence="sentence()" @save="end" />
    </form>
  </FormDialog>
</template>
