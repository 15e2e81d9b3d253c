<script setup lang="ts">
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue';
import { computed, ref } from 'vue';
import { useRouter, type RouteLocationRaw } from 'vue-router';
import { kindWords } from '../stations/yard/placeWords';
import { useNursery } from '../stores/nursery';
import { useSeed } from '../stores/seed';
import { useSession } from '../stores/session';

interface Find {
  key: string;
  words: string;
  kind: string;
  to: RouteLocationRaw;
}

const nursery = useNursery();
const session = useSession();
const seed = useSeed();
const router = useRouter();
const text = ref('');

const all = computed<Find[]>(() => {
  const finds: Find[] = [];
  for (const lot of nursery.index.values()) {
    const species = nursery.lookup.species.get(lot.speciesId);
    finds.push({
      key: lot.id,
      words: `${lot.code} ${species?.common ?? ''}`,
      kind: 'lot',
      to: { name: 'grow', params: { lot: lot.id } },
    });
  }
  for (const { id, place } of nursery.catalogue!.places)
    finds.push({
      key: id,
      words: place.name,
      kind: kindWords[place.kind],
      to: { name: 'yard', params: { place: id } },
    });
  if (session.may('grower')) {
    finds.push({
      key: 'new-lot',
      words: 'Sow a new lot',
      kind: 'act',
      to: { name: 'grow', query: { new: '1' } },
    });
    finds.push({
      key: 'add-bed',
      words: 'Add a bed',
      kind: 'act',
      to: { name: 'yard', query: { add: 'bed' } },
    });
    finds.push({
      key: 'add-bench',
      words: 'Add a bench',
      kind: 'act',
      to: { name: 'yard', query: { add: 'bench' } },
    });
  }
  for (const lot of seed.room.lots)
    finds.push({
      key: lot.id,
      words: `${lot.code} ${nursery.lookup.species.get(lot.speciesId)?.common ?? ''}`,
      kind: 'seed',
      to: { name: 'seed', params: { seedLot: lot.id } },
    });
  for (const { code, common, latin } of nursery.catalogue!.species)
    finds.push({
      key: `species-${code}`,
      words: `${common} ${latin}`,
      kind: 'species',
      to: { name: 'seed-species', params: { species: code } },
    });
  for (const [name, words] of [
    ['seed', 'Seed store'],
    ['seed-clock', 'Dormancy: batches and when to begin'],
    ['seed-desk', 'Sowing desk: how many to sow'],
    ['seed-up', 'Coming up: emergence and treatments compared'],
    ['seed-cuttings', 'Cuttings and stock beds'],
    ['seed-layers', 'Air layers'],
    ['seed-labels', 'Labels, and a label that is lost'],
  ])
    finds.push({ key: name, words, kind: 'seed room', to: { name } });
  for (const [name, words] of [
    ['yard-site', 'Site plan'],
    ['yard-light', 'Light of the yard'],
    ['yard-weather', 'Weather: the season so far, stations, covers'],
    ['yard-water', 'Water: drip, zones, controller'],
    ['yard-build', 'Build sheets and prices'],
    ['yard-containers', 'Containers side by side'],
    ['yard-media', 'Media: recipes, batches, heaps'],
  ])
    finds.push({ key: name, words, kind: 'yard', to: { name } });
  finds.push({
    key: 'held',
    words: 'How well past forecasts held',
    kind: 'forecasts',
    to: { name: 'held' },
  });
  finds.push({
    key: 'learnt',
    words: 'What your own lots teach: values learnt',
    kind: 'forecasts',
    to: { name: 'learnt' },
  });
  finds.push({
    key: 'roots',
    words: 'Root bench: pull, judge, accept or reject',
    kind: 'station',
    to: { name: 'roots' },
  });
  finds.push({ key: 'weather', words: 'Weather: import and export', kind: 'act', to: { name: 'records' } });
  finds.push({
    key: 'measurements',
    words: 'Measurements: import and export',
    kind: 'act',
    to: { name: 'records' },
  });
  return finds;
});
const found = computed(() => {
  const words = text.value.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return [];
  return all.value
    .filter((find) => words.every((word) => find.words.toLowerCase().includes(word)))
    .slice(0, 8);
});
function go(find: Find | null) {
  if (!find) return;
  text.value = '';
  (document.activeElement as HTMLElement | null)?.blur();
  void router.push(find.to);
}
</script>

<template>
  <Combobox as="div" class="relative" :model-value="null" nullable @update:model-value="go">
    <ComboboxInput
      id="find"
      class="field"
      placeholder="Find a lot, place, species   /"
      aria-label="Find a lot, place, species or act"
      autocomplete="off"
      :display-value="() => text"
      @change="text = $event.target.value"
    />
    <ComboboxOptions v-if="text" class="panel absolute z-30 mt-1 w-full min-w-64 p-1 shadow-lg" static>
      <ComboboxOption v-for="find in found" :key="find.key" v-slot="{ active }" :value="find" as="template">
        <li
          class="flex min-h-11 cursor-pointer items-center justify-between rounded px-3"
          :class="{ 'bg-leaf-pale': active }"
        >
          <span>{{ find.words }}</span><span class="text-muted text-sm">{{ find.kind }}</span>
        </li>
      </ComboboxOption>
      <li v-if="!found.length" class="text-muted px-3 py-2">Nothing by that name.</li>
    </ComboboxOptions>
  </Combobox>
</template>
