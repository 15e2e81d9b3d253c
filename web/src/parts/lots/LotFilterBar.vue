<script setup lang="ts">
import { byNature, say } from '@kauri/core';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue';
import { Search, SlidersHorizontal } from 'lucide-vue-next';
import { computed } from 'vue';
import type { Status } from '@kauri/core';
import { statusWords } from '../../words/decision';
import SelectField from '../SelectField.vue';
import type { ShownLot } from '../useLots';
import { lotGroups, lotSorts, seasonOf, type LotFilter } from './lotFilter';

/** Looks through a list of lots: free words, what they are and where, and their order. */
const props = defineProps<{ lots: readonly ShownLot[]; filter: LotFilter; narrowed: boolean }>();
const emit = defineEmits<{ set: [part: Partial<LotFilter>]; clear: [] }>();

const all = { value: '', words: say`all` };
const choices = (of: (lot: ShownLot) => string) => [
  all,
  ...[...new Set(props.lots.map(of))]
    .filter(Boolean)
    .sort(byNature)
    .map((value) => ({ value, words: value })),
];
const species = computed(() => choices((lot) => lot.species));
const places = computed(() => choices((lot) => lot.place));
const seasons = computed(() => choices(seasonOf));
const states = computed(() => {
  const there = new Set(props.lots.map((lot) => lot.view.standing.status));
  return [
    all,
    ...(Object.keys(statusWords) as Status[])
      .filter((status) => there.has(status))
      .map((value) => ({ value, words: statusWords[value] })),
  ];
});
const pairs = (of: Record<string, string>) => Object.entries(of).map(([value, words]) => ({ value, words }));
const field = <K extends keyof LotFilter>(key: K) =>
  computed({
    get: () => props.filter[key] as string,
    set: (value: string) => emit('set', { [key]: value } as Partial<LotFilter>),
  });
const [chosenSpecies, place, status, season, sort, group] = (
  ['species', 'place', 'status', 'season', 'sort', 'group'] as const
).map(field);
</script>

<template>
  <div class="flex items-center gap-2">
    <label class="relative min-w-0 flex-1">
      <span class="sr-only">{{ say`Find a lot` }}</span>
      <Search class="text-muted pointer-events-none absolute top-3 left-2.5" :size="18" aria-hidden="true" />
      <input
        class="field w-full pl-9"
        type="search"
        :placeholder="say`Code, species, place`"
        :value="filter.words"
        @input="emit('set', { words: ($event.target as HTMLInputElement).value })"
      />
    </label>
    <Popover class="relative">
      <PopoverButton class="act px-3" :class="narrowed ? 'border-ink' : ''">
        <SlidersHorizontal :size="18" aria-hidden="true" />
        <span class="sr-only">{{ say`Filter, sort and group` }}</span>
      </PopoverButton>
      <PopoverPanel class="panel absolute right-0 z-30 mt-1 w-72 space-y-2 p-3 shadow-lg">
        <SelectField v-model="chosenSpecies" :label="say`Species`" :options="species" />
        <SelectField v-model="place" :label="say`Place`" :options="places" />
        <SelectField v-model="status" :label="say`State`" :options="states" />
        <SelectField v-model="season" :label="say`Sown in`" :options="seasons" />
        <SelectField v-model="sort" :label="say`Order`" :options="pairs(lotSorts)" />
        <SelectField v-model="group" :label="say`Group`" :options="pairs(lotGroups)" />
        <button v-if="narrowed" class="act w-full" type="button" @click="emit('clear')">
          {{ say`Show all lots` }}
        </button>
      </PopoverPanel>
    </Popover>
  </div>
</template>
