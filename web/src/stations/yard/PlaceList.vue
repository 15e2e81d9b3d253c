<script setup lang="ts">
import { say } from '@kauri/core';
import { RouterLink, useRouter } from 'vue-router';
import { usePreferences } from '../../stores/preferences';
import { several } from '../../words/numbers';
import PlaceBar from './PlaceBar.vue';
import { roomWords, sizeWords } from './placeWords';
import type { ShownPlace } from './usePlaces';

const props = defineProps<{ places: readonly ShownPlace[]; chosenId: string | null }>();
const preferences = usePreferences();
const router = useRouter();

function step(by: number) {
  const at = props.places.findIndex((p) => p.place.id === props.chosenId);
  const next = props.places[Math.max(0, Math.min(props.places.length - 1, at + by))];
  if (next) void router.replace({ name: 'yard', params: { place: next.place.id } });
}
</script>

<template>
  <div>
    <div class="border-rule flex min-h-15 flex-wrap items-center justify-between gap-2 border-b px-4 py-2">
      <h1 class="sr-only">{{ say`Yard` }}</h1>
      <p class="text-muted font-bold">{{ several(places.length, 'place') }}</p>
      <div class="flex gap-2"><slot /></div>
    </div>
    <ul
      class="divide-rule divide-y"
      data-testid="places"
      @keydown.down.prevent="step(1)"
      @keydown.up.prevent="step(-1)"
    >
      <li v-for="shown in places" :key="shown.place.id">
        <RouterLink
          :to="{ name: 'yard', params: { place: shown.place.id } }"
          class="block border-l-4 px-4 py-2"
          :class="shown.place.id === chosenId ? 'border-ink bg-card' : 'hover:bg-card border-transparent'"
          :aria-current="shown.place.id === chosenId ? 'true' : undefined"
        >
          <span class="flex justify-between gap-2">
            <span class="font-bold">{{ shown.place.place.name }}</span>
            <span class="whitespace-nowrap">{{ roomWords(shown.occupancy, preferences) }}</span>
          </span>
          <span class="text-muted flex justify-between gap-2 text-[0.93rem]">
            <span class="truncate">{{ sizeWords(shown.place.place, preferences) }}</span>
            <span class="whitespace-nowrap">{{ several(shown.lots.length, 'lot') }}</span>
          </span>
          <PlaceBar class="mt-1" :shown="shown" />
        </RouterLink>
      </li>
    </ul>
  </div>
</template>
