<script setup lang="ts">
import { causesByHand, isoOf, type OutCause, say } from '@kauri/core';
import type { Parcel } from '@kauri/core/contract';
import { computed, ref } from 'vue';
import EntryFields from '../../parts/EntryFields.vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import { useSaving } from '../../parts/useSaving';
import { useTakeBack } from '../../parts/useTakeBack';
import { useDevice } from '../../stores/device';
import { saidOf, useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useParcels } from '../../stores/parcels';
import { useSeason } from '../../stores/season';
import { causeWords } from '../../words/causes';
import { count, several } from '../../words/numbers';
import { useGradeWords } from './parcelWords';

/** Trees of a parcel that died where they lie, or left in another way than being sent. */
const props = defineProps<{ parcel: Parcel }>();
const emit = defineEmits<{ close: [] }>();
const gradeWords = useGradeWords();
const nursery = useNursery();
const parcels = useParcels();
const season = useSeason();
const messages = useMessages();
const device = useDevice();
const { takeBack } = useTakeBack();
const { busy, save, sentence, wrong } = useSaving(`lose.${props.parcel.id}`);

const aside = computed(() => parcels.asideOfParcel(props.parcel.id));
const gone = ref('');
const cause = ref<OutCause>('rot');
const on = ref(isoOf(Math.min(season.view, season.today)));
const note = ref('');
const trees = computed(() => typedNumber(gone.value));
const causes = causesByHand.map((value) => ({ value, words: causeWords(value) }));

async function write() {
  const { id: parcelId, lotId, code } = props.parcel;
  const params = { ...nursery.params, lot: lotId };
  const body = {
    from: 'lifted' as const,
    cause: cause.value,
    count: trees.value,
    parcelId,
    on: on.value,
    note: note.value,
  };
  let entry = '';
  const said = say`${several(trees.value, 'tree')} of ${code} taken out.`;
  const outcome = await save(body, (id) => {
    entry = id;
    return device.write('writeOff', params, { ...body, id }, said);
  });
  if (outcome === null) return;
  messages.say(saidOf(outcome, said), () => takeBack(lotId, entry, said));
  emit('close');
}
</script>

<template>
  <FormDialog
    :title="say`Take out`"
    :subtitle="`${parcel.code}, ${gradeWords(parcel)}`"
    @close="emit('close')"
  >
    <form class="space-y-3" novalidate @submit.prevent="write">
      <div class="grid gap-3 sm:grid-cols-2">
        <FormField
          v-model="gone"
          :label="say`How many are gone`"
          inputmode="numeric"
          :hint="say`${count(parcel.held)} lie there`"
          :fault="wrong('count')"
        />
        <SelectField v-model="cause" :label="say`Why`" :options="causes" />
      </div>
      <p v-if="aside" class="text-muted">
        {{
          say`${count(aside)} of them are set aside for orders: where fewer are left than that, those set aside last give way.`
        }}
      </p>
      <EntryFields v-model:on="on" v-model:note="note" :hint="say`What was seen`" :wrong="wrong" />
      <SheetActs :act="say`Take them out`" :busy="busy" :sentence="sentence()" @save="write" />
    </form>
  </FormDialog>
</template>
