<script setup lang="ts">
import { roleWords } from '../words/people';
import { say } from '@kauri/core';
import type { InviteSeen } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { onMounted, reactive, ref, useTemplateRef } from 'vue';
import { call } from '../api/client';
import { fieldFault, sentenceOf } from '../api/problem';
import FormField from '../parts/FormField.vue';
import { toFault } from '../parts/toFault';
import { useSession } from '../stores/session';
import DoorFrame from './DoorFrame.vue';
import SignInForm from './SignInForm.vue';
import { linkSecret } from './linkSecret';

/** Where somebody who was given an invitation comes in: as somebody new, or with the account they have. */
const session = useSession();
const secret = linkSecret();
const seen = ref<InviteSeen | null>(null);
const fault = ref<unknown>(null);
const busy = ref(false);
const hasAccount = ref(false);
const sheet = useTemplateRef('sheet');
const form = reactive({ id: newId(), name: '', email: '', password: '' });

onMounted(async () => {
  try {
    seen.value = await call('seeInvite', { body: { secret } });
    form.name = seen.value.name;
  } catch (error) {
    fault.value = error;
  }
});

async function join(asNew: boolean) {
  busy.value = true;
  fault.value = null;
  const before = new Set(session.me?.memberships.map((m) => m.nurseryId));
  try {
    const me = await call('join', { body: { secret, person: asNew ? { ...form } : null } });
    const joined = me.memberships.find((m) => !before.has(m.nurseryId)) ?? me.memberships[0];
    session.chooseNursery(joined.nurseryId);
  } catch (error) {
    fault.value = error;
    busy.value = false;
    void toFault(sheet.value);
  }
}
const wrong = (path: string) => fieldFault(fault.value, `person.${path}`);
</script>

<template>
  <DoorFrame>
    <template v-if="seen">
      <h1 class="mb-1 text-2xl">{{ say`Join ${seen.nurseryName}` }}</h1>
      <p class="text-muted mb-4">{{ say`${seen.by} invites ${seen.name} as ${roleWords[seen.role]}.` }}</p>
      <template v-if="session.me">
        <p class="mb-3">{{ say`You are signed in as ${session.me.person.name}.` }}</p>
        <button class="act-main" type="button" :disabled="busy" @click="join(false)">
          {{ say`Join as ${session.me.person.name}` }}
        </button>
        <button class="act mt-3" type="button" @click="session.signOut(false)">
          {{ say`That is not me: sign out` }}
        </button>
      </template>
      <template v-else-if="hasAccount">
        <SignInForm :act="say`Sign in and join`" @done="join(false)" />
        <button class="act mt-3" type="button" @click="hasAccount = false">
          {{ say`I have no account yet` }}
        </button>
      </template>
      <form v-else ref="sheet" class="space-y-3" novalidate @submit.prevent="join(true)">
        <FormField v-model="form.name" :label="say`Your name`" autocomplete="name" :fault="wrong('name')" />
        <FormField
          v-model="form.email"
          :label="say`E-mail`"
          type="email"
          autocomplete="username"
          :hint="say`You sign in with it; nothing is sent to it`"
          :fault="wrong('email')"
        />
        <FormField
          v-model="form.password"
          :label="say`Password`"
          type="password"
          autocomplete="new-password"
          :hint="say`10 characters or more`"
          :fault="wrong('password')"
        />
        <div class="flex flex-wrap gap-3">
          <button class="act-main" type="submit" :disabled="busy">{{ say`Join` }}</button>
          <button class="act" type="button" @click="hasAccount = true">
            {{ say`I have an account already` }}
          </button>
        </div>
      </form>
    </template>
    <h1 v-else class="mb-3 text-2xl">{{ say`An invitation` }}</h1>
    <p v-if="fault" class="text-wrong mt-3 font-bold" role="alert">{{ sentenceOf(fault) }}</p>
    <p v-else-if="!seen" role="status">{{ say`Looking the invitation up …` }}</p>
    <a v-if="!seen" class="act mt-4" href="/">{{ say`To the door` }}</a>
  </DoorFrame>
</template>
