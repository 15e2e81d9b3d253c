<script setup lang="ts">
import { causeOfEvent, eventKinds, shareOverLots, type EventKind, say } from '@kauri/core';
import { computed } from 'vue';
import EntryFields from '../../parts/EntryFields.vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import type { ShownLot } from '../../parts/useLots';
import { eventWords } from '../../words/growing';
import { count, several } from '../../words/numbers';
import PhotoField from './PhotoField.vue';
import { useLotsTogether } from './useLotsTogether';

/** Something that befell this lot, part of it, or all that stands in its place. */
const props = defineProps<{ lot: ShownLot }>();
const emit = defineEmits<{ close: [] }>();
const { draft, on, record, busy, sentence, wrong, together, place } = useLotsTogether(
  'recordEvent',
  () => props.lot,
  { what: 'browsing' as EventKind, hit: '', dead: '', patch: '', photos: [] as string[] },
);
const kinds = eventKinds.map((value) => ({ value, words: eventWords[value] }));
const kills = computed(() => causeOfEvent[draft.value.what] !== null);
const here = computed(() => (draft.value.whole ? together.value : [props.lot]));
const standing = computed(() => here.value.reduce((t, { row }) => t + row.held.standing, 0));
const numbers = computed(() => ({
  hit: typedNumber(draft.value.hit),
  dead: !kills.value || draft.value.dead.trim() === '' ? 0 : typedNumber(draft.value.dead),
}));
/** How the count falls on the lots of the place; null while it does not add up. */
const shares = computed(() => {
  const { hit, dead } = numbers.value;
  if (!(hit >= 0 && dead >= 0)) return null;
  try {
    return shareOverLots(
      here.value.map(({ row }) => ({ lotId: row.id, standing: row.held.standing })),
      hit,
      dead,
    );
  } catch {
    return null;
  }
});
const codeOf = (lotId: string) => here.value.find(({ row }) => row.id === lotId)!.row.code;

async function save() {
  const { what, patch, photos } = draft.value;
  const { hit, dead } = numbers.value;
  // What does not add up goes to the server as typed, whose sentence says what is wrong.
  const lots = (shares.value ?? [{ lotId: props.lot.row.id, hit, dead }]).filter(
    (share, i) => i === 0 || share.hit > 0,
  );
  const said = say`${eventWords[what]}: ${count(hit)} of ${draft.value.whole ? place.value : props.lot.row.code}${dead ? say`, ${several(dead, 'tree')} dead` : ''}.`;
  if (await record({ what, patch, photos, lots }, said)) emit('close');
}
</script>

<template>
  <FormDialog
    :title="say`What happened`"
    :subtitle="`${lot.row.code} · ${lot.species}, ${lot.where}`"
    @close="emit('close')"
  >
    <form class="space-y-3" novalidate @submit.prevent="save">
      <SelectField v-model="draft.what" :label="say`What`" :options="kinds" />
      <label v-if="together.length > 1" class="flex min-h-11 cursor-pointer items-center gap-2">
        <input v-model="draft.whole" class="accent-ink size-6" type="checkbox" />
        {{ say`All of ${place}: ${several(together.length, 'lot')}` }}
      </label>
      <div class="grid grid-cols-2 gap-3">
        <FormField
          v-model="draft.hit"
          :label="kills ? say`Trees hit` : say`Trees recovered`"
          inputmode="numeric"
          :hint="say`${count(standing)} stand`"
          :fault="wrong('lots.0.hit')"
        />
        <FormField
          v-if="kills"
          v-model="draft.dead"
          :label="say`Of these dead`"
          inputmode="numeric"
          :hint="say`They leave the count`"
          :fault="wrong('lots.0.dead')"
        />
      </div>
      <p v-if="draft.whole && shares && numbers.hit > 0" class="text-muted text-sm" data-testid="shares">
        {{
          say`By what stands in each: ${shares
            .map((s) => `${codeOf(s.lotId)} ${count(s.hit)}${s.dead ? say` (${count(s.dead)} dead)` : ''}`)
            .join(', ')}`
        }}
      </p>
      <FormField
        v-model="draft.patch"
        :label="say`Where, if not all over`"
        :hint="say`North end, edge rows, tray 4`"
        :fault="wrong('patch')"
      />
      <PhotoField v-model="draft.photos" />
      <EntryFields v-model:on="on" v-model:note="draft.note" :wrong="wrong" />
      <SheetActs
        :act="say`Write it down`"
        :busy="busy"
        :sentence="sentence()"
        :off="draft.hit.trim() === ''"
        @save="save"
      />
    </form>
  </FormDialog>
</template>
