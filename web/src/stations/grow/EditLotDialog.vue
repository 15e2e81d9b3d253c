<script setup lang="ts">
import { say } from '@kauri/core';
import type { LotRow } from '@kauri/core/contract';
import { call } from '../../api/client';
import FormDialog from '../../parts/FormDialog.vue';
import DateField from '../../parts/DateField.vue';
import FormField from '../../parts/FormField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { keptUnlessTyped, typedNumber } from '../../parts/typed';
import { useDraft } from '../../parts/useDraft';
import type { ShownLot } from '../../parts/useLots';
import { andTheirs, useEditing } from '../../parts/useEditing';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { dateWords } from '../../words/dates';

const props = defineProps<{ lot: ShownLot }>();
const emit = defineEmits<{ close: [] }>();
const nursery = useNursery();
const preferences = usePreferences();
const season = useSeason();
const messages = useMessages();
const row = props.lot.row;
const inTyped = (cm: number) => String(Number(preferences.shown(cm, 'height').toFixed(1)));
const { draft, clear } = useDraft(`edit.${row.id}.${row.version}`, {
  target: row.targetHeightCm === null ? '' : inTyped(row.targetHeightCm),
  leafFall: row.leafFallOn ?? '',
  extraWinters: String(row.extraWinters),
  note: row.note,
});
const edited = ({ version, targetHeightCm, leafFallOn, extraWinters, note }: LotRow) => ({
  version,
  body: { targetHeightCm, leafFallOn, extraWinters, note },
});
const {
  busy,
  save: send,
  theirs,
  sentence,
  wrong,
} = useEditing(`edit.${row.id}`, edited(row), (current) => edited(current as LotRow));

async function save() {
  const { target, leafFall, extraWinters, note } = draft.value;
  const mine = {
    targetHeightCm: keptUnlessTyped(target, row.targetHeightCm, inTyped, (value) =>
      preferences.typed(value, 'height'),
    ),
    leafFallOn: leafFall || null,
    extraWinters: typedNumber(extraWinters),
    note,
  };
  const kept = await send(mine, (_, version, body) =>
    call('editLot', { params: { ...nursery.params, lot: row.id }, body: { version, ...body } }),
  );
  if (!kept) return;
  nursery.takeLot(kept.answer);
  clear();
  messages.say(say`${row.code} changed${kept.together ? andTheirs() : ''}.`);
  emit('close');
}
</script>

<template>
  <FormDialog :title="say`Edit ${row.code}`" :subtitle="lot.species" @close="emit('close')">
    <form class="space-y-3" novalidate @submit.prevent="save">
      <FormField
        v-model="draft.target"
        :label="say`Height wanted`"
        :unit="preferences.unit('height')"
        inputmode="decimal"
        :hint="say`Leave blank for none.`"
        :fault="wrong('targetHeightCm')"
      />
      <DateField
        v-model="draft.leafFall"
        :label="say`Leaf fall seen on`"
        :max="season.todayIso"
        :hint="say`Opens the lifting window in place of modelled chilling.`"
        :fault="wrong('leafFallOn')"
      />
      <FormField
        v-if="row.held.sown > 0"
        v-model="draft.extraWinters"
        :label="say`Winters it lies beyond its kind`"
        inputmode="numeric"
        :hint="say`One more for seed kept on though nothing came up.`"
        :fault="wrong('extraWinters')"
      />
      <FormField v-model="draft.note" :label="say`Note`" :fault="wrong('note')" />
      <div v-if="theirs" class="panel p-3" data-testid="theirs">
        <p class="font-bold">{{ say`Saved meanwhile by someone else` }}</p>
        <p>
          {{
            say`Height wanted ${theirs.targetHeightCm === null ? say`none` : preferences.show(theirs.targetHeightCm, 'height')}; leaf fall ${theirs.leafFallOn ? dateWords(theirs.leafFallOn) : say`not seen`}; note “${theirs.note}”.`
          }}
        </p>
      </div>
      <SheetActs
        :act="theirs ? say`Save mine over it` : say`Save`"
        :busy="busy"
        :sentence="sentence()"
        @save="save"
      />
    </form>
  </FormDialog>
</template>
