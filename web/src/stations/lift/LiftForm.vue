<script setup lang="ts">
import { readGrade } from '@kauri/core';
import { v7 as newId } from 'uuid';
import { computed } from 'vue';
import EntryFields from '../../parts/EntryFields.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import type { ShownLot } from '../../parts/useLots';
import { useRecording } from '../../parts/useRecording';
import { usePreferences } from '../../stores/preferences';
import { count, several } from '../../words/numbers';
import LyingPlace from './LyingPlace.vue';
import { bundleOptions, type Bundle } from './parcelWords';
import { useExposure } from './useExposure';

/** What is lifted of a lot, grade by grade, and where it is put. */
const props = defineProps<{ lot: ShownLot }>();
const emit = defineEmits<{ done: [] }>();
const { show, typed, unit } = usePreferences();

interface Row {
  /** Of the parcel: the same while it is typed, so that an answer lost on the way is not written twice. */
  id: string;
  grade: string;
  count: string;
  bundle: Bundle;
}
const bed = computed(() => props.lot.facts.home.kind === 'bed');
const blank = (): Row => ({ id: newId(), grade: '', count: '', bundle: bed.value ? '25' : '' });
const { draft, on, record, busy, sentence, wrong } = useRecording('liftLot', () => props.lot, {
  rows: [blank()],
  culled: '',
  place: '',
});

const exposure = useExposure(() => on.value);
const standing = computed(() => props.lot.row.held.standing);
const number = (text: string) => (text.trim() === '' ? 0 : typedNumber(text));
const lifted = computed(() => draft.value.rows.reduce((sum, row) => sum + number(row.count), 0));
const culled = computed(() => number(draft.value.culled));
const left = computed(() => standing.value - lifted.value - culled.value);
/** Heights that a grade's words say, cm. */
const sizeOf = ({ grade }: Row) => {
  const { from, to } = readGrade(grade);
  const cm = (shown: number | null) => (shown === null ? null : typed(shown, 'height'));
  return { fromCm: cm(from), toCm: cm(to) };
};

function allThatStand() {
  const [first, ...others] = draft.value.rows;
  const elsewhere = others.reduce((sum, row) => sum + number(row.count), 0);
  first.count = String(Math.max(0, standing.value - (culled.value || 0) - (elsewhere || 0)));
}
async function save() {
  const said = `${several(lifted.value, 'tree')} of ${props.lot.row.code} lifted${culled.value ? `, ${count(culled.value)} culled` : ''}.`;
  const parcels = draft.value.rows
    .filter((row) => number(row.count) !== 0)
    .map((row) => ({
      id: row.id,
      grade: row.grade,
      ...sizeOf(row),
      count: number(row.count),
      bundleOf: row.bundle === '' ? null : Number(row.bundle),
      place: draft.value.place,
    }));
  if (!(await record({ lifted: lifted.value, culled: culled.value, parcels }, said))) return;
  draft.value.rows = [blank()];
  emit('done');
}
</script>

<template>
  <form class="space-y-3" novalidate @submit.prevent="save">
    <div
      v-for="(row, i) in draft.rows"
      :key="row.id"
      class="grid grid-cols-2 items-end gap-3"
      :class="draft.rows.length > 1 ? 'border-rule border-b pb-3' : ''"
    >
      <FormField
        v-model="row.count"
        label="Lifted, good"
        inputmode="numeric"
        :fault="i === 0 ? wrong('lifted') : null"
      />
      <SelectField v-model="row.bundle" label="Bundles of" :options="bundleOptions" />
      <FormField
        v-model="row.grade"
        class="col-span-2"
        :label="draft.rows.length > 1 ? `Grade ${i + 1}` : 'Grade'"
        :unit="unit('height')"
        :hint="
          i === 0 ? '40–60, 60+, under 40, or words of your own; empty where they are not graded' : undefined
        "
        :fault="i === 0 ? wrong('parcels') : null"
      />
    </div>
    <button class="quiet" type="button" @click="draft.rows.push(blank())">Another grade</button>
    <button v-if="draft.rows.length > 1" class="quiet ml-4" type="button" @click="draft.rows.pop()">
      One grade fewer
    </button>
    <div class="grid grid-cols-2 gap-3">
      <FormField v-model="draft.culled" label="Culled" inputmode="numeric" :fault="wrong('culled')" />
      <LyingPlace v-model="draft.place" />
    </div>
    <div class="flex flex-wrap items-center justify-between gap-x-3">
      <p class="text-lg" aria-live="polite" data-testid="left">
        <b>{{ Number.isNaN(left) ? '–' : count(Math.max(0, left)) }}</b> left standing of
        {{ count(standing) }}
        <span v-if="left < 0" class="text-wrong font-bold">: {{ count(-left) }} more than stand</span>
      </p>
      <button class="quiet" type="button" @click="allThatStand">All that stand</button>
    </div>
    <EntryFields v-model:on="on" v-model:note="draft.note" hint="How roots looked" :wrong="wrong" />
    <p class="border-ink text-muted border-l-4 pl-3 text-[0.95rem]">
      <template v-if="bed">
        Not while the medium is frozen. Fork under a block, tease apart, never pull. Fine roots die in minutes
        in sun and wind: shade, wet cover, small batches. Wet medium is heavier than it looks; loads above
        {{ show(25, 'mass') }} are for two people or a machine.
        <span v-if="exposure" data-testid="exposure">
          At that day’s {{ show(exposure.tempC, 'temperature') }} bare fine roots stand
          <b>{{ exposure.isLong ? 'two hours or more' : `some ${several(exposure.minutes, 'minute')}` }}</b>
          in still shade, a rule of thumb<template v-if="exposure.isAssumed"
            >; how dry the air is is assumed from the night’s low</template
          >.
        </span>
      </template>
      <template v-else
        >Wet racks are heavier than they look; above {{ show(25, 'mass') }} they are for two people or a
        trolley. Pack just before it travels.</template
      >
    </p>
    <SheetActs act="Keep the lift" :busy="busy" :sentence="sentence()" @save="save" />
  </form>
</template>
