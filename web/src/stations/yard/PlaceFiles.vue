<script setup lang="ts">
import { placeColumns, say } from '@kauri/core';
import { v7 as newId } from 'uuid';
import { computed, ref } from 'vue';
import FormDialog from '../../parts/FormDialog.vue';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useSession } from '../../stores/session';
import { useYard } from '../../stores/yard';
import { csvOf } from '../../tables/csv';
import { rowsOf } from '../../tables/rowsOf';
import RowsIn from '../../tables/RowsIn.vue';
import TableOut from '../../tables/TableOut.vue';
import { several } from '../../words/numbers';
import { toDesign, usualFields } from './bedForm';
import { placeLines, placesFrom, type PlacesRead } from './placeFiles';

/** Places out to a table, and in from one pasted or chosen; nothing is taken until it is confirmed. */
const nursery = useNursery();
const yard = useYard();
const session = useSession();
const messages = useMessages();
const preferences = usePreferences();
const open = ref(false);
const pasted = ref('');
const busy = ref(false);
const refused = ref<string | null>(null);

const table = () => csvOf(placeLines(nursery.catalogue!), placeColumns);
const read = computed<PlacesRead | null>(() => {
  const rows = rowsOf(pasted.value);
  const usual = (lengthMm: number, widthMm: number) =>
    toDesign(usualFields(preferences, lengthMm, widthMm), preferences);
  return rows && placesFrom(rows, { ...nursery.catalogue!, elements: yard.elements, usual });
});
async function take() {
  const added = read.value!.added.map((place) => ({ id: newId(), place }));
  const words = say`${several(added.length, 'place')} added.`;
  busy.value = true;
  const kept = await yard.make({ words, added });
  busy.value = false;
  refused.value = kept ? null : yard.fault;
  if (!kept) return;
  messages.say(words, async () => void (await yard.make({ words: say`Places taken back`, removed: added })));
  pasted.value = '';
  open.value = false;
}
</script>

<template>
  <button class="quiet" type="button" @click="open = true">{{ say`Tables in and out` }}</button>
  <FormDialog v-if="open" :title="say`Places in tables`" wide @close="open = false">
    <div class="space-y-4">
      <section v-if="nursery.catalogue!.places.length" class="space-y-2">
        <h3 class="text-lg">{{ say`Out` }}</h3>
        <TableOut :label="say`Every place`" name="places" :table="table" />
      </section>
      <RowsIn
        v-if="session.may('grower')"
        v-model="pasted"
        :label="say`Choose a table`"
        :hint="
          say`Headings: ${placeColumns.join(', ')}. Needed are name, length_m and width_m. A bed has an ordinary bed’s carpentry, or that of the bed or kept design named under like; a place without east_m and north_m is put on free ground.`
        "
        :read="
          read && { good: read.added.length, words: several(read.added.length, 'place'), faults: read.faults }
        "
        :busy="busy"
        :sentence="refused"
        @take="take"
      >
        <p v-if="read?.there.length">
          {{ say`Left as they are, for they stand already: ${read.there.join(', ')}.` }}
        </p>
      </RowsIn>
    </div>
  </FormDialog>
</template>
