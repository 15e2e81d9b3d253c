<script setup lang="ts">
import { isoOf, type HoldCause, type HoldCover, say } from '@kauri/core';
import { computed } from 'vue';
import EntryFields from '../../parts/EntryFields.vue';
import FormDialog from '../../parts/FormDialog.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { useDraft } from '../../parts/useDraft';
import type { ShownLot } from '../../parts/useLots';
import { useSaving } from '../../parts/useSaving';
import { useHolds } from '../../stores/holds';
import { useMessages } from '../../stores/messages';
import { useSeason } from '../../stores/season';
import { holdCauseWords, holdCoverWords } from '../../words/holds';
import { several } from '../../words/numbers';
import { optionsOf } from '../../words/planted';

/** Begins to hold a lot in humid air. */
const props = defineProps<{ lot: ShownLot }>();
const emit = defineEmits<{ close: [] }>();
const holds = useHolds();
const season = useSeason();
const messages = useMessages();
const { row } = props.lot;
const key = `hold.${row.id}`;
const { draft, clear } = useDraft(key, {
  on: '',
  note: '',
  cause: (row.origin === 'layer' ? 'severed layer' : 'dug in summer') as HoldCause,
  cover: 'bag' as HoldCover,
});
const { busy, save, sentence, wrong } = useSaving(key);
const on = computed({
  get: () => draft.value.on || isoOf(Math.min(season.view, season.today)),
  set: (day: string) => (draft.value.on = day),
});
async function begin() {
  const { cause, cover, note } = draft.value;
  const body = { on: on.value, cause, cover, note };
  let hold = '';
  const kept = await save(body, async (id) => {
    hold = id;
    await holds.begin(row.id, { id, ...body });
    return true;
  });
  if (kept === null) return;
  clear();
  messages.say(say`${row.code} is held in humid air.`, () => holds.takeBack(hold));
  emit('close');
}
</script>

<template>
  <FormDialog
    :title="say`Hold in humid air`"
    :subtitle="`${row.code}: ${several(row.held.standing, 'plant')}`"
    @close="emit('close')"
  >
    <form class="space-y-4" novalidate @submit.prevent="begin">
      <div class="grid gap-3 sm:grid-cols-2">
        <SelectField v-model="draft.cause" :label="say`Why`" :options="optionsOf(holdCauseWords)" />
        <SelectField v-model="draft.cover" :label="say`How`" :options="optionsOf(holdCoverWords)" />
      </div>
      <EntryFields
        v-model:on="on"
        v-model:note="draft.note"
        :hint="say`Where it stands, how it was packed`"
        :wrong="wrong"
      />
      <p class="border-ink text-muted border-l-4 pl-3 text-[0.95rem]">
        {{
          say`Wet what they stand in, shut the cover so that it beads inside, and stand it in shade: in sun a shut bag cooks what is in it within the hour. Take out what moulds.`
        }}
      </p>
      <SheetActs :act="say`Hold it`" :busy="busy" :sentence="sentence()" @save="begin" />
    </form>
  </FormDialog>
</template>
