<script setup lang="ts">
import { isoOf, type Guard, type Stake, say } from '@kauri/core';
import type { Parcel, Planting } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
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
import { usePlantings } from '../../stores/plantings';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { count, several } from '../../words/numbers';
import { guardWords, optionsOf, stakeWords } from '../../words/planted';
import { useGradeWords } from '../lift/parcelWords';
import { useExposure } from '../lift/useExposure';

/** Lifted trees go into the ground: which, how many, by whom, and what stands about them. */
const props = defineProps<{ planting: Planting }>();
const emit = defineEmits<{ close: [] }>();
const parcels = useParcels();
const plantings = usePlantings();
const nursery = useNursery();
const season = useSeason();
const messages = useMessages();
const gradeWords = useGradeWords();
const { show } = usePreferences();

const key = `plant.${props.planting.id}`;
const { draft, clear } = useDraft(key, {
  on: '',
  note: '',
  planter: '',
  guard: 'none' as Guard,
  stake: 'none' as Stake,
  counts: {} as Record<string, string>,
  /** Of the trees of each parcel: the same while it is typed, so that a lost answer is not written twice. */
  ids: {} as Record<string, string>,
});
const { busy, save, sentence, wrong } = useSaving(key);
const on = computed({
  get: () => draft.value.on || isoOf(Math.min(season.view, season.today)),
  set: (day: string) => (draft.value.on = day),
});
const exposure = useExposure(() => on.value);
const species = (id: string) => nursery.lookup.species.get(id)?.common ?? '';
const number = (text: string | undefined) => (!text?.trim() ? 0 : typedNumber(text));
const trees = computed(() => parcels.lying.reduce((sum, { id }) => sum + number(draft.value.counts[id]), 0));
const all = (parcel: Parcel) => (draft.value.counts[parcel.id] = String(parcel.held));

async function plant() {
  const { planter, guard, stake, note, counts, ids } = draft.value;
  const parts = parcels.lying
    .map(({ id }) => ({ id: (ids[id] ??= newId()), parcelId: id, count: number(counts[id]) }))
    .filter((part) => part.count !== 0);
  const body = { on: on.value, planter, guard, stake, note, parts };
  const said = say`${several(trees.value, 'tree')} planted in ${props.planting.name}.`;
  const kept = await save(body, async (id) => {
    await plantings.plant(props.planting.id, { id, ...body });
    return true;
  });
  if (kept === null) return;
  clear();
  messages.say(said, async () => {
    for (const { id } of parts) await plantings.takeBack(props.planting.id, id);
  });
  emit('close');
}
</script>

<template>
  <FormDialog :title="say`Plant trees`" :subtitle="planting.name" wide @close="emit('close')">
    <form class="space-y-4" novalidate @submit.prevent="plant">
      <p v-if="!parcels.lying.length">
        {{
          say`No lifted tree lies in the nursery. Trees are lifted first, also those in pots and trays: then they have a grade and a count.`
        }}
        <RouterLink class="quiet" :to="{ name: 'lift' }">{{ say`To lift` }}</RouterLink>
      </p>
      <ul v-else class="divide-rule border-rule divide-y border-y" data-testid="parts">
        <li v-for="one in parcels.lying" :key="one.id" class="flex flex-wrap items-end gap-x-4 gap-y-1 py-2">
          <span class="min-w-0 flex-1 basis-56 self-center">
            <b>{{ species(one.speciesId) }}</b>, {{ gradeWords(one) }}
            <span class="text-muted block text-[0.95rem]">
              {{ say`${one.code}, ${count(one.held)} in ${one.place || say`no place said`}` }}
            </span>
          </span>
          <FormField
            class="w-44"
            :model-value="draft.counts[one.id] ?? ''"
            :label="`${one.code}, ${gradeWords(one)}`"
            inputmode="numeric"
            @update:model-value="(text: string) => (draft.counts[one.id] = text)"
          />
          <button class="quiet pb-2" type="button" @click="all(one)">{{ say`All of them` }}</button>
        </li>
      </ul>
      <div class="grid gap-3 sm:grid-cols-3">
        <FormField v-model="draft.planter" :label="say`Planted by`" :hint="say`To compare by`" />
        <SelectField v-model="draft.guard" :label="say`About each tree`" :options="optionsOf(guardWords)" />
        <SelectField v-model="draft.stake" :label="say`Stake`" :options="optionsOf(stakeWords)" />
      </div>
      <EntryFields
        v-model:on="on"
        v-model:note="draft.note"
        :hint="say`Holes, weather, watering in`"
        :wrong="wrong"
      />
      <p v-if="exposure" class="text-muted" data-testid="exposure">
        {{
          say`At that day’s ${show(exposure.tempC, 'temperature')} bare fine roots stand ${exposure.isLong ? say`two hours or more` : say`some ${several(exposure.minutes, 'minute')}`} in still shade, a rule of thumb`
        }}<template v-if="exposure.isAssumed">{{ say`, humidity assumed` }}</template
        >{{ say`: carry them wet and covered.` }}
      </p>
      <p class="border-ink text-muted border-l-4 pl-3 text-[0.95rem]">
        {{
          say`Ask what lies in the ground before you dig; drive stakes with eyes covered and hands clear, and cap them where they stand at eye height. Near water, not alone.`
        }}
      </p>
      <p class="text-lg" aria-live="polite" data-testid="planting-now">
        <b>{{ Number.isNaN(trees) ? '–' : count(trees) }}</b> {{ say`go into the ground` }}
      </p>
      <SheetActs
        :act="say`Planted`"
        :busy="busy"
        :off="!parcels.lying.length"
        :sentence="sentence()"
        @save="plant"
      />
    </form>
  </FormDialog>
</template>
