<script setup lang="ts">
import { say } from '@kauri/core';
import { defineAsyncComponent, onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { sentenceOf } from './api/problem';
import NoAnswer from './parts/NoAnswer.vue';
import { usePreferences } from './stores/preferences';
import { useSession } from './stores/session';

// What is behind the door is fetched with the door only by whoever was in here last.
const inside = () => import('./shell/OpenYard.vue');
const OpenYard = defineAsyncComponent(inside);
/** Fetched ahead of being shown: where it cannot be, it is fetched again, and said, when it is. */
const fetchInside = () => void inside().catch(() => undefined);
const ArchiveIn = defineAsyncComponent(() => import('./parts/ArchiveIn.vue'));
const SignIn = defineAsyncComponent(() => import('./door/SignIn.vue'));
const SetUpNursery = defineAsyncComponent(() => import('./door/SetUpNursery.vue'));

usePreferences();
const route = useRoute();
const router = useRouter();
const session = useSession();
const trouble = ref<string | null>(null);
const ready = ref(false);
/** Signed in without a nursery, and setting one up after all. */
const settingUp = ref(false);
async function open() {
  trouble.value = null;
  try {
    // Where somebody stands who came by a link is known once its page is; the page of a station waits until they are in.
    const isLink = router.resolve(location.pathname).meta.door;
    if (!session.me && !session.door) await Promise.all([session.open(), isLink && router.isReady()]);
    ready.value = true;
    if (!session.me) requestIdleCallback(fetchInside);
  } catch (error) {
    trouble.value = sentenceOf(error);
  }
}
onMounted(open);
if (session.wasHere()) fetchInside();
</script>

<template>
  <NoAnswer v-if="trouble" :trouble="trouble" @again="open" />
  <p v-else-if="!ready" class="grid h-full place-items-center" role="status">
    {{ say`Opening the yard …` }}
  </p>
  <RouterView v-else-if="route.meta.door" />
  <OpenYard v-else-if="session.me && session.nurseryId" />
  <SetUpNursery v-else-if="session.me && settingUp" />
  <main v-else-if="session.me" class="grid h-full place-items-center p-6">
    <div class="max-w-md">
      <h1 class="mb-2 text-2xl">{{ say`No nursery yet` }}</h1>
      <p class="mb-4">
        {{
          say`You are signed in, but belong to no nursery. Ask an owner for an invitation; or, if Kauri was set up for it, bring a nursery in from its archive.`
        }}
      </p>
      <ArchiveIn />
      <button class="act mt-4 mr-3" type="button" @click="settingUp = true">
        {{ say`Set up a new nursery` }}
      </button>
      <button class="act mt-4" type="button" @click="session.signOut(false)">{{ say`Sign out` }}</button>
    </div>
  </main>
  <SetUpNursery v-else-if="session.door?.needsSetup" />
  <SignIn v-else />
</template>
