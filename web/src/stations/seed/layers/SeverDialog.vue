<script setup lang="ts">
import type { Layer } from '@kauri/core/contract';
import EntryFields from '../../../parts/EntryFields.vue';
import FormDialog from '../../../parts/FormDialog.vue';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import { typedNumber } from '../../../parts/typed';
import { usePreferences } from '../../../stores/preferences';
import { useSeason } from '../../../stores/season';
import { useSeedAct } from '../useSeedAct';

const props = defineProps<{ layer: Layer; potL: number | null }>();
const emit = defineEmits<{ close: [] }>();
const season = useSeason();
const { unit, shown, typed } = usePreferences();
const { draft, busy, sentence, wrong, send, versionNow } = useSeedAct(
  'severLayer',
  { layer: props.layer.id },
  {
    outcome: 'rooted' as 'rooted' | 'failed',
    pot: props.potL === null ? '' : String(Number(shown(props.potL, 'volume').toFixed(1))),
    severedOn: season.todayIso,
    note: props.layer.note,
  },
);
async function save() {
  const { outcome, pot, severedOn, note } = draft.value;
  const body = {
    version: versionNow(props.layer.version),
    outcome,
    severedOn,
    note,
    potL: outcome === 'failed' || pot.trim() === '' ? null : typed(typedNumber(pot), 'volume'),
  };
  if (await send(body, `${props.layer.tree}: ${outcome === 'rooted' ? 'severed and potted' : 'given up'}.`))
    emit('close');
}
const outcomes = [
  { value: 'rooted', words: 'Rooted: severed and potted' },
  { value: 'failed', words: 'Failed: healed over, dried or rotted' },
] as const;
</script>

<template>
  <FormDialog title="Sever, or give up" :subtitle="layer.tree" @close="emit('close')">
    <form class="space-y-3" novalidate @submit.prevent="save">
      <SelectField v-model="draft.outcome" label="What became of it" :options="outcomes" />
      <FormField
        v-if="draft.outcome === 'rooted'"
        v-model="draft.pot"
        label="Pot"
        :unit="unit('volume')"
        inputmode="decimal"
        :fault="wrong('potL')"
      />
      <EntryFields v-model:on="draft.severedOn" v-model:note="draft.note" :wrong="wrong" />
      <p class="border-ink text-muted border-l-4 pl-3 text-sm">
        Cut below the roots with a sharp saw, away from the hand; hold the branch, not the ball. Soak, pot
        without teasing, stake, and keep in shade and humid air for two weeks.
      </p>
      <SheetActs act="Write it down" :busy="busy" :sentence="sentence()" @save="save" />
    </form>
  </FormDialog>
</template>
