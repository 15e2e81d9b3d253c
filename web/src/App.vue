<script setup lang="ts">
import { say } from '@kauri/core';
import { computed, defineAsyncComponent, onMounted, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { sentenceOf } from './api/problem';
import AppShell from './shell/AppShell.vue';
import { useNursery } from './stores/nursery';
import { usePreferences } from './stores/preferences';
import { useSession } from './stores/session';

const ArchiveIn = defineAsyncComponent(() => import('./parts/ArchiveIn.vue'));
const SignIn = defineAsyncComponent(() => import('./door/SignIn.vue'));
const SetUpNursery = defineAsyncComponent(() => import('./door/SetUpNursery.vue'));

usePreferences();
const route = useRoute();
const router = useRouter();
const session = useSession();
const nursery = useNursery();
const trouble = ref<string | null>(null);
const ready = ref(false);
/** Signed in without a nursery, and setting one up after all. */
const settingUp = ref(false);
/** Signed in, but the nursery's rows are still on their way. */
const opening = computed(() => session.nurseryId !== null && nursery.catalogue === null && !route.meta.door);

async function open() {
  trouble.value = null;
  try {
    await router.isReady();
    if (!session.me && !session.door) await session.open();
    if (session.nurseryId && !nursery.catalogue && !route.meta.door) await nursery.load();
    ready.value = true;
  } catch (error) {
    trouble.value = sentenceOf(error);
  }
}
onMounted(open);
// Somebody has come in by the door.
watch(
  () => session.nurseryId,
  () => ready.value && open(),
);
</script>

<template>
  <main v-if="trouble" class="grid h-full place-items-center p-6">
    <div class="max-w-md">
      <h1 class="mb-2 text-2xl">{{ say`Kauri does not answer` }}</h1>
      <p role="alert">{{ trouble }}</p>
      <button class="act-main mt-4" type="button" @click="open">{{ say`Try again` }}</button>
    </div>
  </main>
  <p v-else-if="!ready || opening" class="grid h-full place-items-center" role="status">
    {{ say`Opening the yard …` }}
  </p>
  <RouterView v-else-if="route.meta.door" />
  <AppShell v-else-if="session.me && session.nurseryId" />
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
