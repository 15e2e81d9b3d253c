<script setup lang="ts">
import { cullReasons, say } from '@kauri/core';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import { RouterLink } from 'vue-router';
import EntryFields from '../../parts/EntryFields.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import type { ShownLot } from '../../parts/useLots';
import { usePreferences } from '../../stores/preferences';
import { cullWords, heightsWritten } from '../../words/grades';
import { count, several } from '../../words/numbers';
import { blankRow, numberIn, type LiftRow } from './liftDraft';
import LyingPlace from './LyingPlace.vue';
import { bundleOptions } from './parcelWords';
import { useExposure } from './useExposure';
import { useLift } from './useLift';

/** What is lifted of a lot, grade by grade, and where it is put. */
const props = defineProps<{ lot: ShownLot }>();
const emit = defineEmits<{ done: [] }>();
const { show, unit } = usePreferences();
const lift = useLift(() => props.lot);
const {
  ready,
  draft,
  on,
  busy,
  sentence,
  wrong,
  isBed,
  bundle,
  schemes,
  schemeId,
  units,
  standing,
  left,
  heeled,
} = lift;

const exposure = useExposure(() => on.value);
const schemeOptions = computed(() => [
  ...schemes.value.map(({ id, name }) => ({ value: id, words: name })),
  { value: '', words: say`words of my own, or not at all` },
]);
/** What a row is called above its count, where a scheme says it. */
const calledBy = ({ grade, sized }: LiftRow) => {
  if (!sized) return null;
  const heights = heightsWritten(sized, units.height);
  return grade === heights ? `${heights} ${unit('height')}` : `${heights} ${unit('height')}, ${grade}`;
};
const form = useTemplateRef('form');
// Where the grades came late, the keys go on in the first field of the sheet all the same.
watch(ready, async () => {
  await nextTick();
  if (form.value?.closest('[role=dialog]')?.contains(document.activeElement))
    form.value.querySelector('input')?.focus();
});
const saysWhy = ref(cullReasons.some((why) => draft.value.culls[why] !== ''));

function allThatStand() {
  const [first, ...others] = draft.value.rows;
  const elsewhere = others.reduce((sum, row) => sum + numberIn(row.count), 0);
  first.count = String(Math.max(0, standing.value - (lift.culled.value || 0) - (elsewhere || 0)));
}
async function save() {
  if (await lift.save()) emit('done');
}
</script>

<template>
  <p v-if="!ready" class="text-muted" role="status">{{ say`Fetching the grades …` }}</p>
  <form v-else ref="form" class="space-y-3" novalidate @submit.prevent="save">
    <div
      v-for="(row, i) in draft.rows"
      :key="row.id"
      class="grid grid-cols-2 items-end gap-3"
      :class="draft.rows.length > 1 && !row.sized ? 'border-rule border-b pb-3' : ''"
    >
      <FormField
        v-model="row.count"
        :label="calledBy(row) ?? say`Lifted, good`"
        inputmode="numeric"
        :fault="i === 0 ? (wrong('lifted') ?? wrong('parcels')) : null"
      />
      <SelectField v-model="row.bundle" :label="say`Bundles of`" :options="bundleOptions" />
      <FormField
        v-if="!row.sized"
        v-model="row.grade"
        class="col-span-2"
        :label="draft.rows.length > 1 ? say`Grade ${i + 1}` : say`Grade`"
        :unit="unit('height')"
        :hint="
          i === 0
            ? say`40–60, 60+, under 40, or words of your own; empty where they are not graded`
            : undefined
        "
      />
    </div>
    <button class="quiet" type="button" @click="draft.rows.push(blankRow(bundle))">
      {{ say`Another grade` }}
    </button>
    <button v-if="draft.rows.length > 1" class="quiet ml-4" type="button" @click="draft.rows.pop()">
      {{ say`One grade fewer` }}
    </button>
    <div v-if="schemes.length" class="flex flex-wrap items-end gap-3">
      <SelectField
        v-model="schemeId"
        class="min-w-48 flex-1"
        :label="say`Graded by`"
        :options="schemeOptions"
      />
      <RouterLink class="act" :to="{ name: 'lift-tally', params: { lot: lot.row.id } }">{{
        say`Tally at the bed`
      }}</RouterLink>
    </div>
    <RouterLink v-else class="act" :to="{ name: 'lift-tally', params: { lot: lot.row.id } }">{{
      say`Tally at the bed`
    }}</RouterLink>
    <div class="grid grid-cols-2 gap-3">
      <FormField
        v-model="draft.culled"
        :label="saysWhy ? say`Culled, not said why` : say`Culled`"
        inputmode="numeric"
        :fault="wrong('culled')"
      />
      <LyingPlace v-model="draft.place" :trees="heeled" />
    </div>
    <button v-if="!saysWhy" class="quiet" type="button" @click="saysWhy = true">
      {{ say`Say why they are culled` }}
    </button>
    <fieldset v-else class="grid grid-cols-3 gap-3">
      <legend class="mb-1 font-bold">{{ say`Culled for` }}</legend>
      <FormField
        v-for="why in cullReasons"
        :key="why"
        v-model="draft.culls[why]"
        :label="cullWords(why)"
        inputmode="numeric"
      />
    </fieldset>
    <div class="flex flex-wrap items-center justify-between gap-x-3">
      <p class="text-lg" aria-live="polite" data-testid="left">
        <b>{{ Number.isNaN(left) ? '–' : count(Math.max(0, left)) }}</b>
        {{ say`left standing of ${count(standing)}` }}
        <span v-if="left < 0" class="text-wrong font-bold">{{ say`: ${count(-left)} more than stand` }}</span>
      </p>
      <button class="quiet" type="button" @click="allThatStand">{{ say`All that stand` }}</button>
    </div>
    <EntryFields v-model:on="on" v-model:note="draft.note" :hint="say`How roots looked`" :wrong="wrong" />
    <p class="border-ink text-muted border-l-4 pl-3 text-[0.95rem]">
      <template v-if="isBed">
        {{
          say` Not while the medium is frozen. Fork under a block, tease apart, never pull. Fine roots die in minutes in sun and wind: shade, wet cover, small batches. Wet medium is heavier than it looks; loads above ${show(25, 'mass')} are for two people or a machine.`
        }}
        <span v-if="exposure" data-testid="exposure">
          {{ say` At that day’s ${show(exposure.tempC, 'temperature')} bare fine roots stand` }}
          <b>{{
            exposure.isLong ? say`two hours or more` : say`some ${several(exposure.minutes, 'minute')}`
          }}</b>
          {{ say`in still shade, a rule of thumb`
          }}<template v-if="exposure.isAssumed">{{
            say`; how dry the air is is assumed from the night’s low`
          }}</template
          >.
        </span>
      </template>
      <template v-else>{{
        say`Wet racks are heavier than they look; above ${show(25, 'mass')} they are for two people or a trolley. Pack just before it travels.`
      }}</template>
    </p>
    <SheetActs :act="say`Keep the lift`" :busy="busy" :sentence="sentence()" @save="save" />
  </form>
</template>
