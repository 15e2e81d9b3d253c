<script setup lang="ts">
import { useEventListener, useIntervalFn } from '@vueuse/core';
import { defineAsyncComponent, ref, useTemplateRef, watch } from 'vue';
import { RouterView, useRouter } from 'vue-router';
import { useForecasts } from '../stores/forecasts';
import { useMessages } from '../stores/messages';
import { useNursery } from '../stores/nursery';
import { useSeason } from '../stores/season';
import { useSession } from '../stores/session';
import MessageStack from './MessageStack.vue';
import SeasonRibbon from './SeasonRibbon.vue';
import SignInAgain from './SignInAgain.vue';
import StationRail from './StationRail.vue';
import TopBar from './TopBar.vue';
import { stations } from './stations';
import { useKeys } from './useKeys';

// Fetched when it is first wanted, and the sheet it stands on with it.
const KeysDialog = defineAsyncComponent(() => import('./KeysDialog.vue'));

const forecasts = useForecasts();
const nursery = useNursery();
const season = useSeason();
const session = useSession();
const messages = useMessages();
const router = useRouter();
const keysShown = ref(false);
const main = useTemplateRef('main');
// Another thing to look at begins at its top.
watch(
  () => router.currentRoute.value.path,
  () => main.value?.scrollTo(0, 0),
  { flush: 'post' },
);

forecasts.start();
useKeys({
  '?': () => (keysShown.value = true),
  '[': () => season.look(season.view - 7),
  ']': () => season.look(season.view + 7),
  '.': () => season.look(season.today),
  '/': () => document.getElementById('find')?.focus(),
  n: () => {
    if (session.may('grower')) void router.push({ name: 'grow', query: { new: '1' } });
    else messages.say(`A new lot needs the role of grower; yours is ${session.membership?.role}.`);
  },
  ...Object.fromEntries(stations.map((s) => [s.key, () => void router.push({ name: s.name })])),
});
// Coming back to a tab left open: take in what others recorded meanwhile.
useEventListener(document, 'visibilitychange', () => {
  if (document.visibilityState !== 'visible') return;
  nursery.turnDay().catch(() => undefined);
  nursery.loadLots().catch(() => undefined);
});
// A page left open turns over by itself.
const TURN_MS = 60_000;
useIntervalFn(() => {
  if (document.visibilityState === 'visible') nursery.turnDay().catch(() => undefined);
}, TURN_MS);
</script>

<template>
  <div
    class="grid h-full grid-rows-[auto_auto_1fr_auto] md:grid-cols-[5.25rem_1fr] md:grid-rows-[auto_1fr_auto]"
  >
    <a href="#main" class="bg-tag text-tag-ink sr-only z-50 p-3 font-bold focus:not-sr-only focus:absolute"
      >To the station</a
    >
    <StationRail class="md:row-span-2" />
    <TopBar @keys="keysShown = true" />
    <main id="main" ref="main" class="relative min-h-0 overflow-y-auto" tabindex="-1">
      <p v-if="forecasts.failure" class="bg-tag text-tag-ink m-4 rounded p-3" role="alert">
        The forecast could not be worked out: {{ forecasts.failure }}
      </p>
      <RouterView />
    </main>
    <SeasonRibbon class="md:col-span-2" />
  </div>
  <MessageStack />
  <KeysDialog v-if="keysShown" @close="keysShown = false" />
  <SignInAgain v-if="session.signingInAgain" />
</template>
