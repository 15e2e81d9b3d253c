<script setup lang="ts">
import { speciesLibrary, startOf, type StartingSpecies, say } from '@kauri/core';
import type { Species } from '@kauri/core/contract';
import { computed, ref } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import FormField from '../../../parts/FormField.vue';
import { useNursery } from '../../../stores/nursery';
import { useSession } from '../../../stores/session';
import { count } from '../../../words/numbers';
import { storageWords, storageNames } from '../../../words/seed';
import SpeciesDetail from './SpeciesDetail.vue';
import SpeciesFiles from './SpeciesFiles.vue';
import { useSpeciesList } from './useSpeciesList';

const nursery = useNursery();
const session = useSession();
const route = useRoute();
const find = ref('');
const { add, fault, busy } = useSpeciesList();

const own = computed(() => nursery.catalogue!.species);
const codes = computed(() => new Set(own.value.map((s) => s.code)));
const matches = (s: { common: string; latin: string; code: string }) =>
  find.value
    .toLowerCase()
    .split(/\s+/)
    .filter(Boolean)
    .every((word) => `${s.common} ${s.latin} ${s.code}`.toLowerCase().includes(word));
const mine = computed(() => own.value.filter(matches));
const others = computed(() => speciesLibrary.filter((s) => !codes.value.has(s.code) && matches(s)));
const chosen = computed<Species | StartingSpecies | null>(
  () =>
    own.value.find((s) => s.code === route.params.species) ??
    speciesLibrary.find((s) => s.code === route.params.species) ??
    own.value[0] ??
    null,
);
function aboutOf(s: Species | StartingSpecies): string {
  const { storage, leafWords } = startOf(s);
  const leaf = leafWords ? say` Leaf: ${leafWords}.` : '';
  return say`Its seed is ${storageNames[storage]}: it ${storageWords[storage]}.${leaf}`;
}
const isOwn = (s: Species | StartingSpecies): s is Species => 'id' in s;
</script>

<template>
  <div class="grid min-h-full lg:grid-cols-[24rem_1fr]">
    <div class="border-rule lg:border-r" :class="route.params.species ? 'max-lg:hidden' : ''">
      <div class="space-y-1 px-4 py-3">
        <FormField v-model="find" :label="say`Find a species`" />
        <SpeciesFiles />
      </div>
      <h2 class="text-muted px-4 pb-1 font-bold">{{ say`Yours, ${count(mine.length)}` }}</h2>
      <ul class="divide-rule divide-y" data-testid="own-species">
        <li v-for="s in mine" :key="s.id">
          <RouterLink
            :to="{ name: 'seed-species', params: { species: s.code } }"
            class="flex min-h-11 items-center justify-between gap-2 border-l-4 px-3 py-1"
            :class="s.code === chosen?.code ? 'border-ink bg-card' : 'hover:bg-card border-transparent'"
            :aria-current="s.code === chosen?.code ? 'true' : undefined"
          >
            <span
              ><b>{{ s.common }}</b> <span class="text-muted italic">{{ s.latin }}</span></span
            >
          </RouterLink>
        </li>
      </ul>
      <h2 class="text-muted px-4 pt-4 pb-1 font-bold">
        {{ say`In the library, ${count(others.length)} more` }}
      </h2>
      <ul class="divide-rule divide-y" data-testid="library">
        <li v-for="s in others" :key="s.code" class="flex items-center">
          <RouterLink
            :to="{ name: 'seed-species', params: { species: s.code } }"
            class="flex min-h-11 flex-1 items-center gap-2 border-l-4 px-3 py-1"
            :class="s.code === chosen?.code ? 'border-ink bg-card' : 'hover:bg-card border-transparent'"
          >
            <span
              ><b>{{ s.common }}</b> <span class="text-muted italic">{{ s.latin }}</span></span
            >
          </RouterLink>
          <button
            v-if="session.may('grower')"
            class="quiet px-3"
            type="button"
            :disabled="busy"
            :aria-label="say`Take ${s.common} into your list`"
            @click="add([s])"
          >
            {{ say`Take in` }}
          </button>
        </li>
      </ul>
      <p v-if="fault" class="text-wrong px-4 py-2 font-bold" role="alert">{{ fault }}</p>
    </div>
    <div
      v-if="chosen"
      :key="chosen.code"
      class="space-y-4 p-4 md:p-5"
      :class="route.params.species ? '' : 'max-lg:hidden'"
    >
      <RouterLink class="quiet lg:hidden" :to="{ name: 'seed-species' }">{{ say`All species` }}</RouterLink>
      <div class="flex flex-wrap items-baseline gap-x-3">
        <h1 class="text-2xl">{{ chosen.common }}</h1>
        <p class="text-lg italic">{{ chosen.latin }}</p>
        <p class="text-muted">{{ chosen.code }}</p>
        <button
          v-if="!isOwn(chosen) && session.may('grower')"
          class="act-main ml-auto"
          type="button"
          :disabled="busy"
          @click="add([chosen])"
        >
          {{ say`Take it into your list` }}
        </button>
      </div>
      <p>{{ aboutOf(chosen) }}</p>
      <SpeciesDetail :species="chosen" :own="isOwn(chosen) ? chosen : null" />
    </div>
  </div>
</template>
