<script setup lang="ts">
import { occupancyOf, occupantOf, Unfit, say } from '@kauri/core';
import { computed } from 'vue';
import EntryFields from '../../parts/EntryFields.vue';
import FormDialog from '../../parts/FormDialog.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import type { ShownLot } from '../../parts/useLots';
import { useNursery } from '../../stores/nursery';
import { useSeason } from '../../stores/season';
import { count, several } from '../../words/numbers';
import { usePlaces } from '../yard/usePlaces';
import { useLotsTogether } from './useLotsTogether';

/** Several lots carried to another place in the trays they stand in. What stands in a bed is left out, and said. */
const props = defineProps<{ lots: readonly ShownLot[] }>();
const emit = defineEmits<{ close: [] }>();
const nursery = useNursery();
const season = useSeason();
const { places } = usePlaces();
const inTrays = computed(() =>
  props.lots.filter(({ row }) => row.stage.containerTypeId !== null && row.held.standing > 0),
);
const { draft, on, record, busy, sentence, wrong } = useLotsTogether('carryLots', () => props.lots[0], {
  placeId: '',
});
const options = computed(() => [
  { value: '', words: say`Choose a place` },
  ...places.value
    .filter(({ place }) => place.place.kind !== 'bed' && place.place.kind !== 'bay')
    .map(({ place }) => ({ value: place.id, words: place.place.name })),
]);
/** Lots that are not there already. */
const going = computed(() => inTrays.value.filter(({ row }) => row.stage.placeId !== draft.value.placeId));
const trays = computed(() => going.value.reduce((sum, { row }) => sum + (row.stage.trays ?? 0), 0));
/** Whether they fit beside what stands where they go, each taking what it takes now. */
const room = computed(() => {
  const there = places.value.find(({ place }) => place.id === draft.value.placeId);
  if (!there) return null;
  const occupants = [...there.lots, ...going.value].map((lot) => occupantOf(lot, season.view));
  try {
    const taken = occupancyOf(there.place, occupants, nursery.lookup);
    return taken.kind === 'bench' && taken.layout.freeLengthMm < 0
      ? say`That is more than fits in the room left there; it is kept, but check what still stands there.`
      : say`${several(trays.value, 'tray')} go there.`;
  } catch (error) {
    if (error instanceof Unfit) return error.message;
    throw error;
  }
});
const leftOut = computed(() => {
  const beds = props.lots.length - inTrays.value.length;
  const there = inTrays.value.length - going.value.length;
  return [
    beds && say`${several(beds, 'lot')} in beds stay: they are lifted, not carried.`,
    draft.value.placeId && there && say`${several(there, 'lot')} stand there already.`,
  ].filter(Boolean);
});
async function save() {
  const taken = await record(
    { placeId: draft.value.placeId, lots: going.value.map(({ row }) => ({ lotId: row.id })) },
    say`${several(going.value.length, 'lot')} carried to ${nursery.lookup.places.get(draft.value.placeId)?.place.name}.`,
  );
  if (taken) emit('close');
}
const trees = computed(() => going.value.reduce((sum, { row }) => sum + row.held.standing, 0));
</script>

<template>
  <FormDialog
    :title="say`Carry ${several(going.length, 'lot')}`"
    :subtitle="say`${count(trees)} trees, in the trays they stand in.`"
    @close="emit('close')"
  >
    <form class="space-y-3" novalidate @submit.prevent="save">
      <SelectField
        v-model="draft.placeId"
        :label="say`To`"
        :options="options"
        :fault="wrong('placeId')"
        :hint="room ?? undefined"
      />
      <p v-for="words in leftOut" :key="String(words)" class="text-muted">{{ words }}</p>
      <EntryFields v-model:on="on" v-model:note="draft.note" :wrong="wrong" />
      <SheetActs
        :act="say`Carry them`"
        :busy="busy || going.length === 0 || !draft.placeId"
        :sentence="sentence()"
        @save="save"
      />
    </form>
  </FormDialog>
</template>
