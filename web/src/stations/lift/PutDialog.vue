<script setup lang="ts">
import { say } from '@kauri/core';
import type { Parcel } from '@kauri/core/contract';
import { ref } from 'vue';
import { sentenceOf } from '../../api/problem';
import FormDialog from '../../parts/FormDialog.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { useMessages } from '../../stores/messages';
import { useParcels } from '../../stores/parcels';
import LyingPlace from './LyingPlace.vue';
import { useGradeWords } from './parcelWords';

/** Puts a parcel in another place. */
const props = defineProps<{ parcel: Parcel }>();
const emit = defineEmits<{ close: [] }>();
const gradeWords = useGradeWords();
const parcels = useParcels();
const messages = useMessages();
const place = ref(props.parcel.place);
const fault = ref<string | null>(null);
const busy = ref(false);

async function save() {
  const { parcel } = props;
  busy.value = true;
  try {
    await parcels.put(parcel, place.value);
    messages.say(say`${parcel.code} put in ${place.value || say`no place`}.`, () =>
      parcels.put(parcel, parcel.place),
    );
    emit('close');
  } catch (error) {
    fault.value = sentenceOf(error);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <FormDialog
    :title="say`Put elsewhere`"
    :subtitle="`${parcel.code}, ${gradeWords(parcel)}`"
    @close="emit('close')"
  >
    <form class="space-y-4" novalidate @submit.prevent="save">
      <LyingPlace
        v-model="place"
        :label="say`They lie in`"
        :trees="[{ count: parcel.held, fromCm: parcel.fromCm, toCm: parcel.toCm }]"
        :parcel="parcel.id"
      />
      <SheetActs :act="say`Keep it`" :busy="busy" :sentence="fault" @save="save" />
    </form>
  </FormDialog>
</template>
