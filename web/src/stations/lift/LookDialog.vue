<script setup lang="ts">
import { isoOf, storeSigns, type StoreSign, say } from '@kauri/core';
import { computed } from 'vue';
import EntryFields from '../../parts/EntryFields.vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import { useDraft } from '../../parts/useDraft';
import { useSaving } from '../../parts/useSaving';
import { useMessages } from '../../stores/messages';
import { useParcels } from '../../stores/parcels';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { signWords } from './lyingWords';

/** What was seen where lifted trees lie: signs by a tap, and how warm it is in a store. */
const props = defineProps<{ place: string }>();
const emit = defineEmits<{ close: [] }>();
const parcels = useParcels();
const season = useSeason();
const messages = useMessages();
const { unit, typed } = usePreferences();
const key = `look.${props.place}`;
const { draft, clear } = useDraft(key, { on: '', note: '', temp: '', seen: [] as StoreSign[] });
const { busy, save, sentence, wrong } = useSaving(key);
const on = computed({
  get: () => draft.value.on || isoOf(Math.min(season.view, season.today)),
  set: (day: string) => (draft.value.on = day),
});
const isStore = computed(() => parcels.stores.has(props.place));

async function write() {
  const { note, seen, temp } = draft.value;
  const tempC = temp.trim() ? typed(typedNumber(temp), 'temperature') : null;
  const body = { place: props.place, on: on.value, tempC, seen, note };
  let entry = '';
  const kept = await save(body, async (id) => {
    entry = id;
    await parcels.look({ id, ...body });
    return true;
  });
  if (kept === null) return;
  clear();
  messages.say(say`Looked at: Today asks again in two weeks, in one where something was seen.`, () =>
    parcels.takeBackLook(entry),
  );
  emit('close');
}
</script>

<template>
  <FormDialog :title="say`What was seen`" :subtitle="place || say`No place said`" @close="emit('close')">
    <form class="space-y-4" novalidate @submit.prevent="write">
      <fieldset>
        <legend class="mb-1 font-bold">{{ say`Seen there` }}</legend>
        <div class="flex flex-wrap gap-1.5">
          <label v-for="sign in storeSigns" :key="sign" class="pill">
            <input v-model="draft.seen" class="sr-only" type="checkbox" :value="sign" />
            {{ signWords[sign] }}
          </label>
        </div>
        <p class="text-muted mt-1">{{ say`None of them: roots moist, buds still, nothing mouldy.` }}</p>
      </fieldset>
      <FormField
        v-if="isStore"
        v-model="draft.temp"
        :label="say`Temperature in it`"
        :unit="unit('temperature')"
        inputmode="decimal"
        :fault="wrong('tempC')"
      />
      <EntryFields
        v-model:on="on"
        v-model:note="draft.note"
        :hint="say`What was done about it`"
        :wrong="wrong"
      />
      <SheetActs :act="say`Keep it`" :busy="busy" :sentence="sentence()" @save="write" />
    </form>
  </FormDialog>
</template>
