<script setup lang="ts">
import { careKinds, carriesNodules, nodulesRecipe, type CareDone, type CareKind, say } from '@kauri/core';
import { computed } from 'vue';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import EntryFields from '../../parts/EntryFields.vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import type { ShownLot } from '../../parts/useLots';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { careDoneWords, careSays, careWords } from '../../words/growing';
import { several } from '../../words/numbers';
import { useLotsTogether } from './useLotsTogether';

/** Work done to this lot, or to all that stands in its place, without moving it. */
const props = defineProps<{ lot: ShownLot; chosen?: readonly ShownLot[]; begin?: CareKind }>();
const emit = defineEmits<{ close: [] }>();
const nursery = useNursery();
const preferences = usePreferences();
const inCells = computed(() =>
  (props.chosen ?? [props.lot]).every((lot) => lot.facts.home.kind === 'container'),
);
const { draft, on, record, busy, sentence, wrong, together, place } = useLotsTogether(
  'recordCare',
  () => props.lot,
  {
    what: 'feed' as CareKind,
    amount: '',
    rated: 'rated' as 'rated' | 'none',
    months: '5',
    grams: '',
    source: 'nodules' as 'nodules' | 'mycorrhiza',
    apart: '2',
    stake: 'flexible' as 'flexible' | 'rigid',
    staked: String(props.lot.row.held.standing),
    how: 'pulled' as 'pulled' | 'cut' | 'mulched',
    height: '',
  },
);
if (props.begin && !props.chosen) draft.value.what = props.begin;
const kinds = computed(() =>
  careKinds
    .filter((kind) => inCells.value || (kind !== 'spread' && kind !== 'pack'))
    // A stake count or a height belongs to one lot.
    .filter((kind) => !props.chosen || (kind !== 'stake' && kind !== 'prune'))
    .map((value) => ({ value, words: careWords[value] })),
);
const latin = computed(() => nursery.lookup.species.get(props.lot.row.speciesId)?.latin ?? '');
const recipe = computed(() => {
  const thousands = props.lot.row.held.standing / 1000;
  return say`For ${several(props.lot.row.held.standing, 'seedling')}: about ${preferences.show(Math.max(1, Math.ceil(thousands * nodulesRecipe.gramsPerThousand)), 'seedMass')} of nodules in ${preferences.show(Math.max(1, Math.ceil(thousands * nodulesRecipe.litresPerThousand)), 'volume')}.`;
});
const optional = (text: string) => (text.trim() === '' ? null : typedNumber(text));
const doseOf = (text: string) => (text.trim() === '' ? null : preferences.typed(typedNumber(text), 'dose'));
const done = computed<CareDone>(() => {
  const d = draft.value;
  switch (d.what) {
    case 'water': {
      const typed = optional(d.amount);
      return { what: 'water', mm: typed === null ? null : preferences.typed(typed, 'rain') };
    }
    case 'feed':
      return {
        what: 'feed',
        ratedMonths: d.rated === 'rated' ? typedNumber(d.months) : null,
        gramsPerLitre: doseOf(d.grams),
      };
    case 'inoculum':
      return { what: 'inoculum', source: d.source };
    case 'spread':
      return { what: 'spread', apart: Number(d.apart) };
    case 'pack':
      return { what: 'pack' };
    case 'stake':
      return { what: 'stake', stake: d.stake, staked: typedNumber(d.staked) };
    case 'weed':
      return { what: 'weed', how: d.how };
    default:
      return { what: 'prune', toCm: preferences.typed(typedNumber(d.height), 'height') };
  }
});
/** A stake count or a height belongs to one lot. */
const mayBeWhole = computed(
  () =>
    !props.chosen && together.value.length > 1 && !['stake', 'prune', 'inoculum'].includes(draft.value.what),
);
async function save() {
  const whole = draft.value.whole && mayBeWhole.value;
  const lots = (props.chosen ?? (whole ? together.value : [props.lot])).map(({ row }) => ({ lotId: row.id }));
  const of = props.chosen ? several(props.chosen.length, 'lot') : whole ? place.value : props.lot.row.code;
  const said = `${of}: ${careDoneWords(done.value, preferences.show)}.`;
  if (await record({ done: done.value, lots }, said)) emit('close');
}
</script>

<template>
  <FormDialog
    :title="say`Work done`"
    :subtitle="
      chosen
        ? `${several(chosen.length, 'lot')}: ${chosen.map((l) => l.row.code).join(', ')}`
        : `${lot.row.code} · ${lot.species}, ${lot.where}`
    "
    @close="emit('close')"
  >
    <form class="space-y-3" novalidate @submit.prevent="save">
      <ChoiceRow v-model="draft.what" :label="say`What was done`" :options="kinds" />
      <FormField
        v-if="draft.what === 'water'"
        v-model="draft.amount"
        :label="say`How much`"
        :unit="preferences.unit('rain')"
        inputmode="decimal"
        :hint="say`Over the whole area; blank where nobody measured`"
        :fault="wrong('done.mm')"
      />
      <template v-else-if="draft.what === 'feed'">
        <ChoiceRow
          v-model="draft.rated"
          :label="say`Feed`"
          :options="[
            { value: 'rated', words: say`Rated prills` },
            { value: 'none', words: say`Liquid, compost, castings` },
          ]"
        />
        <div class="grid grid-cols-2 gap-3">
          <FormField
            v-if="draft.rated === 'rated'"
            v-model="draft.months"
            :label="say`Rated life`"
            :unit="say`months at ${preferences.show(21, 'temperature', 0)}`"
            inputmode="numeric"
            :fault="wrong('done.ratedMonths')"
          />
          <FormField
            v-model="draft.grams"
            :label="say`Dose`"
            :unit="say`${preferences.unit('dose')} of medium`"
            inputmode="decimal"
            :fault="wrong('done.gramsPerLitre')"
          />
        </div>
      </template>
      <template v-else-if="draft.what === 'inoculum'">
        <ChoiceRow
          v-model="draft.source"
          :label="say`Which`"
          :options="[
            { value: 'nodules', words: say`Root nodules` },
            { value: 'mycorrhiza', words: say`Mycorrhizal` },
          ]"
        />
        <p v-if="draft.source === 'nodules'" class="font-bold">
          {{ carriesNodules(latin) ? recipe : say`${latin} is not known to carry nodules.` }}
        </p>
      </template>
      <SelectField
        v-else-if="draft.what === 'spread'"
        v-model="draft.apart"
        :label="say`How far apart`"
        :options="[
          { value: '2', words: say`Every second cell: twice the room` },
          { value: '3', words: say`Every third: three times` },
          { value: '4', words: say`Every second cell of every second row: four times` },
        ]"
      />
      <template v-else-if="draft.what === 'stake'">
        <ChoiceRow
          v-model="draft.stake"
          :label="say`Stake`"
          :options="[
            { value: 'flexible', words: say`Flexible` },
            { value: 'rigid', words: say`Rigid` },
          ]"
        />
        <FormField
          v-model="draft.staked"
          :label="say`Trees staked`"
          inputmode="numeric"
          :fault="wrong('done.staked')"
        />
      </template>
      <ChoiceRow
        v-else-if="draft.what === 'weed'"
        v-model="draft.how"
        :label="say`How`"
        :options="[
          { value: 'pulled', words: say`Pulled` },
          { value: 'cut', words: say`Cut` },
          { value: 'mulched', words: say`Mulched` },
        ]"
      />
      <FormField
        v-else-if="draft.what === 'prune'"
        v-model="draft.height"
        :label="say`Height left`"
        :unit="preferences.unit('height')"
        inputmode="decimal"
        :fault="wrong('done.toCm')"
      />
      <p class="border-ink text-muted border-l-4 pl-3 text-sm" data-testid="care-says">
        {{ careSays[draft.what](preferences.show) }}
      </p>
      <label v-if="mayBeWhole" class="flex min-h-11 cursor-pointer items-center gap-2">
        <input v-model="draft.whole" class="accent-ink size-6" type="checkbox" />
        {{ say`All of ${place}: ${several(together.length, 'lot')}` }}
      </label>
      <EntryFields v-model:on="on" v-model:note="draft.note" :wrong="wrong" />
      <SheetActs :act="say`Write it down`" :busy="busy" :sentence="sentence()" @save="save" />
    </form>
  </FormDialog>
</template>
