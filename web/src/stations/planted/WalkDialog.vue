<script setup lang="ts">
import { isoOf, Unfit, walkSize, type PlantingSeen, say } from '@kauri/core';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import FormDialog from '../../parts/FormDialog.vue';
import DateField from '../../parts/DateField.vue';
import FormField from '../../parts/FormField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import { typedNumber } from '../../parts/typed';
import { useDraft } from '../../parts/useDraft';
import { useSaving } from '../../parts/useSaving';
import { useMessages } from '../../stores/messages';
import { usePlantings } from '../../stores/plantings';
import { useSeason } from '../../stores/season';
import { dateWords } from '../../words/dates';
import { several } from '../../words/numbers';

/** Begins a walk: every tree, a sample large enough for what one wants to know, or the trees of an earlier one again. */
const props = defineProps<{ seen: PlantingSeen }>();
const emit = defineEmits<{ close: [] }>();
const plantings = usePlantings();
const messages = useMessages();
const season = useSeason();
const router = useRouter();

const { planting } = props.seen;
/** From here on a walk of every tree takes long. */
const MANY = 300;
const key = `walk.${planting.id}`;
const { draft, clear } = useDraft(key, {
  kind: (props.seen.trees > MANY ? 'sample' : 'every') as 'every' | 'sample' | 'again',
  margin: '5',
  on: '',
});
const { busy, save, sentence, wrong } = useSaving(key);
const on = computed({
  get: () => draft.value.on || isoOf(Math.min(season.view, season.today)),
  set: (day: string) => (draft.value.on = day),
});
const before = computed(() => props.seen.walks.find(({ kind }) => kind === 'sample') ?? null);
const options = computed(() => [
  { value: 'every' as const, words: say`every tree, ${several(props.seen.trees, 'tree')}` },
  { value: 'sample' as const, words: say`a sample` },
  ...(before.value
    ? [{ value: 'again' as const, words: say`the trees of ${dateWords(before.value.on)} again` }]
    : []),
]);
const sample = computed(() => {
  const { trees, living } = props.seen;
  const expected = living ? living.seenAlive / living.seen : 0.8;
  try {
    return walkSize({ trees, margin: typedNumber(draft.value.margin) / 100, level: 0.9, expected });
  } catch (error) {
    if (!(error instanceof Unfit)) throw error;
    return error.message;
  }
});
async function begin() {
  const { kind } = draft.value;
  const trees = kind === 'sample' && typeof sample.value !== 'string' ? sample.value.value : null;
  const body = {
    on: on.value,
    kind: kind === 'every' ? ('every' as const) : ('sample' as const),
    trees,
    again: kind === 'again' ? before.value!.id : null,
  };
  const id = await save(body, async (write) => {
    await plantings.beginWalk(planting.id, { id: write, ...body });
    return write;
  });
  if (id === null) return;
  clear();
  emit('close');
  // The walk is begun, whether or not the list of plantings follows at once.
  void plantings.load().catch((error: unknown) => messages.say(sentenceOf(error)));
  await router.push({ name: 'planted-walk', params: { walk: id } });
}
</script>

<template>
  <FormDialog :title="say`Walk it`" :subtitle="planting.name" @close="emit('close')">
    <form class="space-y-4" novalidate @submit.prevent="begin">
      <ChoiceRow v-model="draft.kind" :label="say`Look at`" :options="options" />
      <template v-if="draft.kind === 'sample'">
        <FormField
          v-model="draft.margin"
          class="max-w-56"
          :label="say`To know the share within`"
          unit="% either way"
          inputmode="decimal"
          :fault="typeof sample === 'string' ? sample : null"
        />
        <p v-if="typeof sample !== 'string'" data-testid="sample">
          <b>{{ several(sample.value, 'tree') }}</b>{{
            say`, drawn by lot over the whole planting: the share found lies within that nine times in ten.`
          }}
        </p>
        <ShowWorking v-if="typeof sample !== 'string'" :steps="sample.working" />
      </template>
      <DateField
        v-model="on"
        class="max-w-56"
        :label="say`Day`"
        :max="season.todayIso"
        :fault="wrong('on')"
      />
      <SheetActs
        :act="say`Begin`"
        :busy="busy"
        :off="draft.kind === 'sample' && typeof sample === 'string'"
        :sentence="sentence()"
        @save="begin"
      />
    </form>
  </FormDialog>
</template>
