<script setup lang="ts">
import { growingLosses, isoOf, say, type OutCause } from '@kauri/core';
import type { Sending } from '@kauri/core/contract';
import { computed, ref } from 'vue';
import EntryFields from '../../parts/EntryFields.vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import { useDraft } from '../../parts/useDraft';
import { useSaving } from '../../parts/useSaving';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useParcels } from '../../stores/parcels';
import { useSeason } from '../../stores/season';
import { causeWords } from '../../words/causes';
import { count, several } from '../../words/numbers';
import LyingPlace from './LyingPlace.vue';
import { useGradeWords } from './parcelWords';
import { stillOut } from './returnWords';

/** Trees of a sending that came back: how many of which, how many of them dead, and whether as many are wanted again. */
const props = defineProps<{ sending: Sending; receiver: string }>();
const emit = defineEmits<{ close: [] }>();
const parcels = useParcels();
const nursery = useNursery();
const messages = useMessages();
const season = useSeason();
const gradeWords = useGradeWords();

const key = `return.${props.sending.id}`;
const { draft, clear } = useDraft(key, {
  came: {} as Record<string, string>,
  dead: {} as Record<string, string>,
  place: '',
  cause: 'drought' as OutCause,
  again: 'yes' as 'yes' | 'no',
  note: '',
});
const on = ref(isoOf(Math.min(season.view, season.today)));
const { busy, save, sentence, wrong } = useSaving(key);

const offered = computed(() =>
  props.sending.parts
    .map((part) => {
      const parcel = parcels.all.find(({ id }) => id === part.parcelId);
      const code = parcel?.code ?? nursery.lots.get(part.lotId)?.code ?? say`a lot`;
      const species = parcel ? (nursery.lookup.species.get(parcel.speciesId)?.common ?? '') : '';
      const grade = parcel ? gradeWords(parcel) : '';
      return { ...part, code, species, grade, out: stillOut(props.sending, part.parcelId) };
    })
    .filter(({ out }) => out > 0),
);
const number = (text: string | undefined) => (!text?.trim() ? 0 : typedNumber(text));
const sum = (of: Record<string, string>) =>
  offered.value.reduce((total, { parcelId }) => total + number(of[parcelId]), 0);
const came = computed(() => sum(draft.value.came));
const dead = computed(() => sum(draft.value.dead));
const causes = growingLosses.map((value) => ({ value, words: causeWords(value) }));
const againOptions = [
  { value: 'yes' as const, words: say`Yes: the line wants as many again` },
  { value: 'no' as const, words: say`No: it wants so many fewer` },
];

async function write() {
  const parts = offered.value
    .map(({ parcelId }) => ({
      parcelId,
      count: number(draft.value.came[parcelId]),
      dead: number(draft.value.dead[parcelId]),
    }))
    .filter((part) => part.count !== 0 || part.dead !== 0);
  const { place, note, cause, again } = draft.value;
  const body = { on: on.value, place, note, cause, wantedAgain: again === 'yes', parts };
  const said = say`${several(came.value, 'tree')} of ${props.receiver} came back.`;
  let entry = '';
  const kept = await save(body, async (id) => {
    entry = id;
    await parcels.bringBack(props.sending.id, { ...body, id });
    return true;
  });
  if (kept === null) return;
  clear();
  messages.say(said, () => parcels.takeBackReturn(props.sending.id, entry));
  emit('close');
}
</script>

<template>
  <FormDialog :title="say`Came back`" :subtitle="receiver" wide @close="emit('close')">
    <form class="space-y-4" novalidate @submit.prevent="write">
      <ul class="divide-rule border-rule divide-y border-y" data-testid="return-parts">
        <li
          v-for="(one, i) in offered"
          :key="one.parcelId"
          class="flex flex-wrap items-end gap-x-4 gap-y-1 py-2"
        >
          <span class="min-w-0 flex-1 basis-56 self-center">
            <b>{{ one.species }}</b><template v-if="one.grade">, {{ one.grade }}</template>
            <span class="text-muted block text-[0.95rem]">{{ say`${one.code}, ${count(one.out)} out` }}</span>
          </span>
          <FormField
            v-model="draft.came[one.parcelId]"
            class="w-32"
            :label="say`Came back`"
            inputmode="numeric"
            :fault="wrong(`parts.${i}.count`)"
          />
          <FormField
            v-model="draft.dead[one.parcelId]"
            class="w-32"
            :label="say`Dead of them`"
            inputmode="numeric"
            :fault="wrong(`parts.${i}.dead`)"
          />
        </li>
      </ul>
      <div class="grid gap-3 sm:grid-cols-2">
        <LyingPlace v-model="draft.place" :label="say`The living lie in`" />
        <SelectField v-if="dead > 0" v-model="draft.cause" :label="say`The dead died of`" :options="causes" />
        <SelectField
          v-if="sending.lineId"
          v-model="draft.again"
          :label="say`Wanted again`"
          :options="againOptions"
        />
      </div>
      <p class="text-lg" aria-live="polite" data-testid="came-back">
        <b>{{ Number.isNaN(came - dead) ? '–' : count(Math.max(0, came - dead)) }}</b>
        {{
          say`lie here again, as a parcel of their own: look at their roots before they go to anybody else.`
        }}
      </p>
      <EntryFields
        v-model:on="on"
        v-model:note="draft.note"
        :hint="say`Why, and how they look`"
        :wrong="wrong"
      />
      <SheetActs :act="say`Write it down`" :busy="busy" :sentence="sentence()" @save="write" />
    </form>
  </FormDialog>
</template>
