<script setup lang="ts">
import { roleWords } from '../words/people';
import { PAST_AFTER_DAYS, say } from '@kauri/core';
import { useEventListener, useIntervalFn, useTimeoutFn } from '@vueuse/core';
import { computed, defineAsyncComponent, ref, useTemplateRef, watch } from 'vue';
import { RouterView, useRoute, useRouter } from 'vue-router';
import { sentenceOf } from '../api/problem';
import { useAgenda } from '../stores/agenda';
import { useDevice } from '../stores/device';
import { useForecasts } from '../stores/forecasts';
import { useMessages } from '../stores/messages';
import { useNursery } from '../stores/nursery';
import { useOthers } from '../stores/others';
import { useSeason } from '../stores/season';
import { useSession } from '../stores/session';
import { longDate, yearOf } from '../words/dates';
import MessageStack from './MessageStack.vue';
import SeasonRibbon from './SeasonRibbon.vue';
import SignInAgain from './SignInAgain.vue';
import StationRail from './StationRail.vue';
import TopBar from './TopBar.vue';
import { keepReady } from './keepReady';
import { stations } from './stations';
import { useDateInAddress } from './useDateInAddress';
import { useKeys } from './useKeys';
import { useTitles } from './useTitles';

// Fetched when it is first wanted, and the sheet it stands on with it.
const KeysDialog = defineAsyncComponent(() => import('./KeysDialog.vue'));
const UnsentSheet = defineAsyncComponent(() => import('./UnsentSheet.vue'));
// What was done without a network asks for it: where the device does not have it yet, it comes with the network.
const TRY_AGAIN_MS = 5_000;
const TodayKept = defineAsyncComponent({
  loader: () => import('./TodayKept.vue'),
  onError: (_, again) => void setTimeout(again, TRY_AGAIN_MS),
});

const agenda = useAgenda();
const forecasts = useForecasts();
const nursery = useNursery();
const season = useSeason();
const session = useSession();
const messages = useMessages();
const device = useDevice();
const router = useRouter();
const route = useRoute();
const keysShown = ref(false);
/** In the hand the ribbon is folded away until it is asked for. */
const ribbonOpen = ref(false);
/** What is kept on the device, shown for itself or before somebody leaves with something unsent. */
const unsentShown = ref(false);
const leaving = ref<'here' | 'everywhere' | null>(null);
const main = useTemplateRef('main');
const bar = useTemplateRef('bar');
// Another thing to look at begins at its top.
watch(
  () => router.currentRoute.value.path,
  () => {
    main.value?.scrollTo(0, 0);
    for (const part of main.value?.querySelectorAll('[data-station-scroll]') ?? []) part.scrollTo(0, 0);
  },
  { flush: 'post' },
);

/** Where both hands are at the trees, a phone’s screen is theirs. */
const atHand = computed(() => (route.meta.handsFull ? 'hand:hidden' : ''));
/** No station shows a list that is not whole; Today has the server’s meanwhile. */
const arriving = computed(() =>
  nursery.expected
    ? say`Fetching the lots: ${nursery.arrived} of ${nursery.expected}`
    : say`Fetching the lots …`,
);
forecasts.start();
useDateInAddress();
useTitles();
useKeys({
  '?': () => (keysShown.value = true),
  '[': () => season.look(season.view - 7),
  ']': () => season.look(season.view + 7),
  '.': () => season.look(season.today),
  '/': () => void bar.value?.find(),
  u: () => void messages.undoLast(),
  q: () => void router.push({ name: 'scan' }),
  n: () => {
    if (session.may('grower')) void router.push({ name: 'grow', query: { new: '1' } });
    else
      messages.say(say`A new lot needs the role of grower; yours is ${roleWords[session.membership!.role]}.`);
  },
  ...Object.fromEntries(stations.map((s) => [s.key, () => void goTo(s.name)])),
});
/** By keys somebody goes on in the station itself, not through rail and bar once more. */
async function goTo(station: string): Promise<void> {
  await router.push({ name: station });
  main.value?.focus({ preventScroll: true });
}
function leave(where: 'here' | 'everywhere'): void {
  if (device.acts.length) {
    [leaving.value, unsentShown.value] = [where, true];
    return;
  }
  session.signOut(where === 'everywhere').catch((error: unknown) => messages.say(sentenceOf(error)));
}
// A date so far back that lots of the past still stood then.
watch(
  () => nursery.whole && season.view < season.today - PAST_AFTER_DAYS,
  (isBack) => isBack && nursery.lookBack().catch((error: unknown) => messages.say(sentenceOf(error))),
  { immediate: true },
);
// What others record is taken in as it lands; what landed while nobody looked, on coming back.
useOthers().listen();
useEventListener(document, 'visibilitychange', () => {
  if (document.visibilityState === 'visible') device.tryNow();
});
useEventListener(window, 'online', () => device.tryNow());
/** How long the page is left to whoever opened it before the rest is fetched for later, ms. */
const READY_AFTER_MS = 20_000;
useTimeoutFn(() => void keepReady(nursery.nurseryId), READY_AFTER_MS);
// A page left open turns over by itself, and takes in what others recorded.
const TURN_MS = 60_000;
useIntervalFn(() => {
  if (document.visibilityState !== 'visible') return;
  nursery.catchUp().catch(() => undefined);
  agenda.follow();
}, TURN_MS);
</script>

<template>
  <div
    :data-nursery="nursery.whole && (forecasts.viewsOf !== null || !forecasts.allWanted) ? 'whole' : 'coming'"
    class="desk:grid-cols-[5.25rem_1fr] desk:grid-rows-[auto_1fr_auto] grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)_auto_auto]"
  >
    <a href="#main" class="bg-tag text-tag-ink sr-only z-50 p-3 font-bold focus:not-sr-only focus:absolute">{{
      say`To the station`
    }}</a>
    <StationRail class="desk:row-span-2 hand:row-start-4" />
    <TopBar
      ref="bar"
      :class="atHand"
      :ribbon="ribbonOpen"
      @ribbon="ribbonOpen = !ribbonOpen"
      @keys="keysShown = true"
      @unsent="unsentShown = true"
      @leave="leave"
    />
    <p class="print:block hidden border-b pb-1 text-sm">
      {{ say`${nursery.catalogue!.nursery.name}, as of ${longDate(season.view, yearOf(season.today))}` }}
    </p>
    <main id="main" ref="main" class="hand:row-start-2 relative min-h-0 overflow-y-auto" tabindex="-1">
      <p v-if="forecasts.failure" class="bg-tag text-tag-ink m-4 rounded p-3" role="alert">
        {{ say`The forecast could not be worked out: ${forecasts.failure}` }}
      </p>
      <div v-if="nursery.trouble" class="bg-tag text-tag-ink m-4 rounded p-3" role="alert">
        <p>{{ say`The lots could not be fetched: ${nursery.trouble}` }}</p>
        <button class="act mt-2" type="button" @click="nursery.fetchLots()">{{ say`Try again` }}</button>
      </div>
      <RouterView v-if="nursery.whole || route.name === 'today'" />
      <div v-else-if="!nursery.trouble" class="p-6" role="status">
        <p class="text-muted mb-3">{{ arriving }}</p>
        <div class="animate-pulse space-y-3" aria-hidden="true">
          <div v-for="i in 6" :key="i" class="bg-rule/50 h-16 rounded" />
        </div>
      </div>
    </main>
    <SeasonRibbon
      class="desk:col-span-2 hand:row-start-3"
      :class="[atHand, ribbonOpen ? '' : 'hand:hidden']"
    />
  </div>
  <TodayKept v-if="agenda.wanted" />
  <MessageStack />
  <KeysDialog v-if="keysShown" @close="keysShown = false" />
  <UnsentSheet v-if="unsentShown" :leaving="leaving" @close="[unsentShown, leaving] = [false, null]" />
  <SignInAgain v-if="session.signingInAgain" />
</template>
