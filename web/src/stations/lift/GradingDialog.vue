<script setup lang="ts">
import { say } from '@kauri/core';
import type { GradeScheme } from '@kauri/core/contract';
import { Plus, X } from 'lucide-vue-next';
import { computed, ref } from 'vue';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { useGrading } from '../../stores/grading';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { several } from '../../words/numbers';
import {
  blankGrade,
  blankScheme,
  fromTyped,
  toTyped,
  type GradeUnits,
  type TypedScheme,
} from './gradingDraft';
import { useGradingSheet } from './useGradingSheet';

/** By what trees are graded here: schemes of the nursery's own, one sheet for all of them. */
const props = defineProps<{ first: string | null }>();
const emit = defineEmits<{ close: [] }>();
const grading = useGrading();
const nursery = useNursery();
const messages = useMessages();
const { shown, typed, unit } = usePreferences();
const units: GradeUnits = {
  heightShown: (cm) => shown(cm, 'height'),
  heightTyped: (height) => typed(height, 'height'),
  collarShown: (mm) => shown(mm, 'diameter'),
  collarTyped: (collar) => typed(collar, 'diameter'),
};
const { busy, keep, sentence, wrong } = useGradingSheet('grading');
const schemes = ref<TypedScheme[]>(grading.schemes.map((scheme) => toTyped(scheme, units)));
if (!schemes.value.length) schemes.value.push(blankScheme());
const chosenId = ref(schemes.value.find(({ id }) => id === props.first)?.id ?? schemes.value[0].id);
const at = computed(() => schemes.value.findIndex(({ id }) => id === chosenId.value));
const chosen = computed(() => schemes.value[at.value]);
const options = computed(() =>
  schemes.value.map(({ id, name }) => ({ value: id, words: name || say`a scheme without a name` })),
);
const path = (rest: string) => `grading.schemes.${at.value}.${rest}`;
/** Faults of grades are of those sent: blank lines are not. */
const faultOf = (i: number) => {
  const sent = chosen.value.grades
    .slice(0, i)
    .filter(({ heights, collar, name }) => `${heights}${collar}${name}`.trim() !== '').length;
  return ['fromCm', 'toCm', 'collarMm', 'name']
    .map((of) => wrong(path(`grades.${sent}.${of}`)))
    .find(Boolean);
};

const speciesOptions = computed(() => [
  { value: '', words: say`Add a species …` },
  ...[...nursery.lookup.species.values()]
    .filter(({ id }) => !chosen.value.speciesIds.includes(id))
    .sort((a, b) => a.common.localeCompare(b.common))
    .map(({ id, common }) => ({ value: id, words: common })),
]);
const commonOf = (id: string) => nursery.lookup.species.get(id)?.common ?? say`a species that is gone`;

function another() {
  const scheme = blankScheme();
  schemes.value.push(scheme);
  chosenId.value = scheme.id;
}
function takeOut() {
  schemes.value.splice(at.value, 1);
  if (!schemes.value.length) schemes.value.push(blankScheme());
  chosenId.value = schemes.value[0].id;
}
async function write() {
  const written: GradeScheme[] = schemes.value
    .map((scheme) => fromTyped(scheme, units))
    .filter(({ name, grades }) => name.trim() !== '' || grades.length > 0);
  if (!(await keep({ schemes: written }))) return;
  messages.say(say`Kept: ${several(written.length, 'scheme')} to grade by.`);
  emit('close');
}
</script>

<template>
  <FormDialog :title="say`What trees are graded by`" wide @close="emit('close')">
    <form class="space-y-4" novalidate @submit.prevent="write">
      <p class="text-muted">
        {{
          say`A buyer’s sizes, a standard you work to, or your own. Each says what a bed will give before it is lifted, and is tallied by at the bed.`
        }}
      </p>
      <div class="flex flex-wrap items-end gap-3">
        <SelectField v-model="chosenId" class="min-w-56" :label="say`Scheme`" :options="options" />
        <button class="act" type="button" @click="another">
          <Plus :size="18" aria-hidden="true" /> {{ say`Another scheme` }}
        </button>
        <button class="quiet pb-2.5" type="button" @click="takeOut">{{ say`Take this one out` }}</button>
      </div>
      <FormField v-model="chosen.name" :label="say`Name`" :fault="wrong(path('name'))" />
      <div>
        <SelectField
          class="max-w-72"
          :label="say`Thought of first for`"
          model-value=""
          :options="speciesOptions"
          :hint="chosen.speciesIds.length ? undefined : say`None named: for every species`"
          @update:model-value="(id: string) => id && chosen.speciesIds.push(id)"
        />
        <ul
          v-if="chosen.speciesIds.length"
          class="mt-2 flex flex-wrap gap-2"
          :aria-label="say`Species it is for`"
        >
          <li v-for="id in chosen.speciesIds" :key="id">
            <button
              class="act"
              type="button"
              :aria-label="say`Not for ${commonOf(id)}`"
              @click="chosen.speciesIds = chosen.speciesIds.filter((one) => one !== id)"
            >
              {{ commonOf(id) }} <X :size="18" aria-hidden="true" />
            </button>
          </li>
        </ul>
      </div>
      <fieldset class="space-y-2">
        <legend class="mb-1 font-bold">{{ say`Grades` }}</legend>
        <p class="text-muted text-sm">
          {{ say`Heights as 40–60, 60+ or under 40. A collar or a name only where you go by one.` }}
        </p>
        <div
          v-for="(grade, i) in chosen.grades"
          :key="i"
          class="grid grid-cols-[1fr_1fr_auto] items-end gap-x-2 sm:grid-cols-[1fr_1fr_1.4fr_auto]"
        >
          <FormField
            v-model="grade.heights"
            :label="i === 0 ? say`Heights` : say`Heights ${i + 1}`"
            :label-hidden="i > 0"
            :unit="unit('height')"
            :fault="faultOf(i)"
          />
          <FormField
            v-model="grade.collar"
            :label="i === 0 ? say`Collar at least` : say`Collar at least ${i + 1}`"
            :label-hidden="i > 0"
            :unit="unit('diameter')"
            inputmode="decimal"
          />
          <FormField
            v-model="grade.name"
            class="max-sm:order-last max-sm:col-span-2"
            :label="i === 0 ? say`Called` : say`Called ${i + 1}`"
            :label-hidden="i > 0"
          />
          <button
            class="quiet pb-2"
            type="button"
            :aria-label="say`Take grade ${i + 1} out`"
            @click="chosen.grades.splice(i, 1)"
          >
            <X :size="20" aria-hidden="true" />
          </button>
        </div>
        <p v-if="wrong(path('grades'))" class="text-wrong text-sm font-bold">{{ wrong(path('grades')) }}</p>
        <button
          v-if="chosen.grades.length < 12"
          class="quiet"
          type="button"
          @click="chosen.grades.push(blankGrade())"
        >
          {{ say`Another grade` }}
        </button>
      </fieldset>
      <ChoiceRow
        v-if="chosen.grades.some(({ collar }) => collar.trim() !== '')"
        v-model="chosen.thinRule"
        :label="say`Too thin for its height`"
        :options="[
          { value: 'out', words: say`is culled` },
          { value: 'lower', words: say`goes to the next lower grade` },
        ]"
      />
      <SheetActs :act="say`Keep them`" :busy="busy" :sentence="sentence()" @save="write" />
    </form>
  </FormDialog>
</template>
