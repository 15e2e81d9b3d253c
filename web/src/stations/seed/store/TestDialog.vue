<script setup lang="ts">
import { testKinds, type TestKind, say } from '@kauri/core';
import type { SeedLot } from '@kauri/core/contract';
import { computed } from 'vue';
import EntryFields from '../../../parts/EntryFields.vue';
import FormDialog from '../../../parts/FormDialog.vue';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import { typedNumber } from '../../../parts/typed';
import { useSeason } from '../../../stores/season';
import { percent } from '../../../words/numbers';
import { passedWords, testWords } from '../../../words/seed';
import { useSeedAct } from '../useSeedAct';

const props = defineProps<{ lot: SeedLot }>();
const emit = defineEmits<{ close: [] }>();
const season = useSeason();
const { draft, busy, sentence, wrong, send } = useSeedAct(
  'testSeed',
  { seedLot: props.lot.id },
  {
    kind: 'germination' as TestKind,
    n: '50',
    k: '',
    daysRun: '28',
    counts: [] as { day: string; germinated: string }[],
    on: season.todayIso,
    note: '',
  },
);
const counts = computed(() =>
  draft.value.kind === 'germination'
    ? draft.value.counts
        .filter((c) => c.day.trim() !== '' || c.germinated.trim() !== '')
        .map((c) => ({ day: typedNumber(c.day), germinated: typedNumber(c.germinated) }))
    : [],
);
/** Daily counts say the sum; typing it as well is not asked. */
const k = computed(() =>
  counts.value.length ? counts.value.reduce((t, c) => t + c.germinated, 0) : typedNumber(draft.value.k),
);
const n = computed(() => typedNumber(draft.value.n));
async function save() {
  const { kind, daysRun, on, note } = draft.value;
  const body = {
    kind,
    n: n.value,
    k: k.value,
    daysRun: kind === 'germination' ? typedNumber(daysRun) : null,
    counts: counts.value,
    on,
    note,
  };
  if (await send(body, say`${testWords[kind]} of ${props.lot.code} recorded.`, { undo: true })) emit('close');
}
const kinds = testKinds.map((value) => ({ value, words: testWords[value] }));
const hints: Record<TestKind, string> = {
  germination: say`Counts in full. Put seed through its treatment first, or dormant seed reads as dead.`,
  cut: say`A sound kernel may still be dead: counts for half.`,
  float: say`Sinking says little: counts for a fifth. Dry the seed again afterwards.`,
};
</script>

<template>
  <FormDialog :title="say`Test seed`" :subtitle="lot.code" @close="emit('close')">
    <form class="space-y-3" novalidate @submit.prevent="save">
      <SelectField v-model="draft.kind" :label="say`Test`" :options="kinds" :hint="hints[draft.kind]" />
      <div class="grid grid-cols-3 gap-3">
        <FormField v-model="draft.n" :label="say`Seeds tried`" inputmode="numeric" :fault="wrong('n')" />
        <FormField
          v-if="!counts.length"
          v-model="draft.k"
          :label="
            draft.kind === 'germination' ? say`Germinated` : draft.kind === 'cut' ? say`Sound` : say`Sank`
          "
          inputmode="numeric"
          :fault="wrong('k')"
        />
        <p v-else class="pt-7">
          <b>{{ k }}</b> {{ say`germinated` }}
        </p>
        <FormField
          v-if="draft.kind === 'germination'"
          v-model="draft.daysRun"
          :label="say`Days run`"
          inputmode="numeric"
          :fault="wrong('daysRun')"
        />
      </div>
      <fieldset v-if="draft.kind === 'germination'" class="panel p-3">
        <legend class="px-1 font-bold">{{ say`Counts by day, if you kept them` }}</legend>
        <div
          v-for="(c, i) in draft.counts"
          :key="i"
          class="mb-2 grid grid-cols-[1fr_1fr_auto] items-end gap-2"
        >
          <FormField v-model="c.day" :label="say`Day of count ${i + 1}`" inputmode="numeric" />
          <FormField v-model="c.germinated" :label="say`Newly germinated ${i + 1}`" inputmode="numeric" />
          <button class="act" type="button" @click="draft.counts.splice(i, 1)">{{ say`Remove` }}</button>
        </div>
        <button class="act" type="button" @click="draft.counts.push({ day: '', germinated: '' })">
          {{ say`Add a day’s count` }}
        </button>
      </fieldset>
      <EntryFields v-model:on="draft.on" v-model:note="draft.note" :wrong="wrong" />
      <p v-if="n > 0 && k >= 0 && k <= n" class="text-muted">
        {{ percent(k / n) }} {{ passedWords[draft.kind] }}.
        <template v-if="draft.kind !== 'float'">{{ say`The ${n} seeds leave the bag.` }}</template>
      </p>
      <SheetActs :act="say`Record the test`" :busy="busy" :sentence="sentence()" @save="save" />
    </form>
  </FormDialog>
</template>
