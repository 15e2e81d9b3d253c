<script setup lang="ts">
import { say } from '@kauri/core';
import { onMounted, ref, useTemplateRef } from 'vue';
import { call } from '../api/client';
import { fieldFault, sentenceOf } from '../api/problem';
import FormField from '../parts/FormField.vue';
import { toFault } from '../parts/toFault';
import { useSession } from '../stores/session';
import DoorFrame from './DoorFrame.vue';
import { linkSecret } from './linkSecret';

/** Where a link for a forgotten password leads: a new one is set, and one signs in with it. */
const session = useSession();
const secret = linkSecret();
const whose = ref<{ name: string; email: string } | null>(null);
const password = ref('');
const fault = ref<unknown>(null);
const busy = ref(false);
const sheet = useTemplateRef('sheet');

onMounted(async () => {
  try {
    whose.value = await call('seePasswordLink', { body: { secret } });
  } catch (error) {
    fault.value = error;
  }
});
async function save() {
  busy.value = true;
  fault.value = null;
  try {
    await call('setPasswordByLink', { body: { secret, password: password.value } });
    await session.signIn({ email: whose.value!.email, password: password.value });
    location.assign('/');
  } catch (error) {
    fault.value = error;
    void toFault(sheet.value);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <DoorFrame>
    <h1 class="mb-1 text-2xl">{{ say`A new password` }}</h1>
    <form v-if="whose" ref="sheet" class="space-y-3" novalidate @submit.prevent="save">
      <p class="text-muted">
        {{
          say`For ${whose.name}, ${whose.email}. Every browser that was signed in is signed out, and a second factor ends; set it up again under`
        }}
        <em>{{ say`Your account` }}</em>.
      </p>
      <input
        class="sr-only"
        type="email"
        autocomplete="username"
        :value="whose.email"
        readonly
        tabindex="-1"
        aria-hidden="true"
      />
      <FormField
        v-model="password"
        :label="say`New password`"
        type="password"
        autocomplete="new-password"
        :hint="say`10 characters or more`"
        :fault="fieldFault(fault, 'password')"
      />
      <button class="act-main" type="submit" :disabled="busy">{{ say`Keep it and sign in` }}</button>
    </form>
    <p v-if="fault" class="text-wrong mt-3 font-bold" role="alert">{{ sentenceOf(fault) }}</p>
    <p v-else-if="!whose" role="status">{{ say`Looking the link up …` }}</p>
    <a v-if="!whose" class="act mt-4" href="/">{{ say`To the door` }}</a>
  </DoorFrame>
</template>
