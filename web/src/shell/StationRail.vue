<script setup lang="ts">
import { say } from '@kauri/core';
import { onMounted, onScopeDispose, watch } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import { useAgenda } from '../stores/agenda';
import { useDevice } from '../stores/device';
import { useNursery } from '../stores/nursery';
import { useOthers } from '../stores/others';
import { stations } from './stations';

const agenda = useAgenda();
const nursery = useNursery();
const device = useDevice();
const route = useRoute();
/** A station's own page, or a part of it such as «yard-site». */
const here = (name: string) => String(route.name).split('-')[0] === name;
onMounted(() => void agenda.load().catch(() => undefined));
// What was written, here or by others, changes what presses.
watch(() => nursery.facts, agenda.follow);
useOthers().follow(['today'], async () => agenda.follow());
// What waits for a network is known here alone.
watch(
  () => device.waiting.length > 0,
  (waits) => waits && (agenda.wanted = true),
  { immediate: true },
);
onScopeDispose(() => {
  agenda.stop();
  agenda.wanted = false;
});
</script>

<template>
  <nav class="bg-rail text-rail-ink hand:overflow-x-auto desk:flex-col flex" :aria-label="say`Stations`">
    <p class="font-head desk:block hidden py-4 text-center text-xl">Kauri</p>
    <RouterLink
      v-for="station in stations"
      :key="station.name"
      :to="{ name: station.name }"
      class="desk:flex-none desk:gap-1 desk:py-3 desk:text-sm hand:text-xs hand:min-w-11 relative flex min-h-14 flex-1 flex-col items-center justify-center gap-0.5 py-1 hover:bg-white/10"
      :class="here(station.name) ? 'rail-here' : ''"
      :aria-current="here(station.name) ? 'page' : undefined"
    >
      <component :is="station.icon" :size="22" aria-hidden="true" />
      {{ station.words }}
      <span
        v-if="station.name === 'today' && agenda.now"
        class="bg-tag text-tag-ink hand:top-0.5 hand:right-auto hand:left-1/2 hand:ml-0.5 absolute top-1 right-2 min-w-5 rounded px-1 text-center text-sm font-bold"
      >
        <span aria-hidden="true">{{ agenda.now > 99 ? '99+' : agenda.now }}</span><span class="sr-only">{{
          say`${agenda.now} to do now`
        }}</span>
      </span>
    </RouterLink>
  </nav>
</template>

<style scoped>
.rail-here,
.rail-here:hover {
  background: var(--paper);
  color: var(--ink);
  font-weight: 700;
}
</style>
