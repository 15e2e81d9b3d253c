<script setup lang="ts">
import { say } from '@kauri/core';
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
/** Bags are found as well; fetched when somebody begins to look. */
const looking = ref(true);
async function look() {
  await seed.load().catch(() => undefined);
  looking.value = false;
}

const all = computed<Find[]>(() => {
  const finds: Find[] = [];
  for (const lot of nursery.index.values()) {
    const species = nursery.lookup.species.get(lot.speciesId);
    finds.push({
      key: lot.id,
      words: `${lot.code} ${species?.common ?? ''}`,
      kind: say`lot`,
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
      words: say`Sow a new lot`,
      kind: say`act`,
      to: { name: 'grow', query: { new: '1' } },
    });
    finds.push({
      key: 'add-bed',
      words: say`Add a bed`,
      kind: say`act`,
      to: { name: 'yard', query: { add: 'bed' } },
    });
    finds.push({
      key: 'add-bench',
      words: say`Add a bench`,
      kind: say`act`,
      to: { name: 'yard', query: { add: 'bench' } },
    });
  }
  for (const lot of seed.room.lots)
    finds.push({
      key: lot.id,
      words: `${lot.code} ${nursery.lookup.species.get(lot.speciesId)?.common ?? ''}`,
      kind: say`seed`,
      to: { name: 'seed', params: { seedLot: lot.id } },
    });
  for (const { code, common, latin } of nursery.catalogue!.species)
    finds.push({
      key: `species-${code}`,
      words: `${common} ${latin}`,
      kind: say`species`,
      to: { name: 'seed-species', params: { species: code } },
    });
  for (const [name, words] of [
    ['seed', say`Seed store`],
    ['seed-clock', say`Dormancy: batches and when to begin`],
    ['seed-desk', say`Sowing desk: how many to sow`],
    ['seed-up', say`Coming up: emergence and treatments compared`],
    ['seed-cuttings', say`Cuttings and stock beds`],
    ['seed-layers', say`Air layers`],
    ['seed-labels', say`Labels, and a label that is lost`],
  ])
    finds.push({ key: name, words, kind: say`seed room`, to: { name } });
  for (const [name, words] of [
    ['yard-site', say`Site plan`],
    ['yard-light', say`Light of the yard`],
    ['yard-weather', say`Weather: the season so far, stations, covers`],
    ['yard-water', say`Water: drip, zones, controller`],
    ['yard-build', say`Build sheets and prices`],
    ['yard-containers', say`Containers side by side`],
    ['yard-media', say`Media: recipes, batches, heaps`],
  ])
    finds.push({ key: name, words, kind: say`yard`, to: { name } });
  finds.push({
    key: 'held',
    words: say`How well past forecasts held`,
    kind: say`forecasts`,
    to: { name: 'held' },
  });
  finds.push({
    key: 'learnt',
    words: say`What your own lots teach: values learnt`,
    kind: say`forecasts`,
    to: { name: 'learnt' },
  });
  finds.push({
    key: 'roots',
    words: say`Root bench: pull, judge, accept or reject`,
    kind: say`station`,
    to: { name: 'roots' },
  });
  finds.push({
    key: 'weather',
    words: say`Weather: import and export`,
    kind: say`act`,
    to: { name: 'records' },
  });
  finds.push({
    key: 'measurements',
    words: say`Measurements: import and export`,
    kind: say`act`,
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
/** Whether an arrow moves the choice: it has moved with the next frame, and Enter before that would choose nothing. */
let moving = false;
function hold(event: KeyboardEvent) {
  if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
    moving = true;
    requestAnimationFrame(() => (moving = false));
  } else if (event.key === 'Enter' && moving) {
    const { currentTarget: field } = event;
    event.preventDefault();
    event.stopImmediatePropagation();
    requestAnimationFrame(() =>
      field!.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true })),
    );
  }
}
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
      :placeholder="say`Find a lot, place, species   /`"
      :aria-label="say`Find a lot, place, species or act`"
      autocomplete="off"
      :display-value="() => text"
      @focus="look"
      @keydown.capture="hold"
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
      <li v-if="looking || !found.length" class="text-muted px-3 py-2">
        {{ looking ? say`Looking …` : say`Nothing by that name.` }}
      </li>
    </ComboboxOptions>
  </Combobox>
</template>
