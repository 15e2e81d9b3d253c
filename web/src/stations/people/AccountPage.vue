<script setup lang="ts">
import { say } from '@kauri/core';
import type { Account } from '@kauri/core/contract';
import { onMounted, ref } from 'vue';
import { call } from '../../api/client';
import { sentenceOf } from '../../api/problem';
import { useSession } from '../../stores/session';
import { browserWords, instantWords } from '../../words/people';
import PasswordForm from './PasswordForm.vue';
import SecondFactor from './SecondFactor.vue';

/** One's own account: password, second factor, and the browsers that are signed in. */
const session = useSession();
const account = ref<Account | null>(null);
const fault = ref<string | null>(null);
async function load() {
  try {
    account.value = await call('account');
    fault.value = null;
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
onMounted(load);
async function end(browser: string) {
  try {
    account.value = await call('endBrowser', { params: { browser }, body: {} });
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
</script>

<template>
  <div class="mx-auto max-w-3xl space-y-5 p-4 md:p-6">
    <div>
      <h1 class="text-2xl">{{ say`Your account` }}</h1>
      <p class="text-muted">{{ session.me!.person.name }} · {{ session.me!.person.email }}</p>
    </div>
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <p v-else-if="!account" class="text-muted" role="status">{{ say`Looking your account up …` }}</p>
    <template v-if="account">
      <section class="panel p-4" aria-labelledby="browsers">
        <h2 id="browsers" class="mb-2 text-xl">{{ say`Signed in` }}</h2>
        <ul data-testid="browsers">
          <li
            v-for="b in account.browsers"
            :key="b.id"
            class="border-rule flex min-h-14 flex-wrap items-center gap-3 border-b py-2 last:border-0"
          >
            <p class="mr-auto">
              {{ browserWords(b.agent) }}<strong v-if="b.here">{{ say`, this one` }}</strong>
              <span class="text-muted block text-sm">
                {{
                  say`${b.device === 'yard' ? say`The yard’s own: 30 days` : say`At a desk: 12 hours`} after its last use · last used ${instantWords(b.seenAt)}`
                }}
              </span>
            </p>
            <button v-if="!b.here" class="act" type="button" @click="end(b.id)">
              {{ say`Sign it out` }}
            </button>
          </li>
        </ul>
      </section>
      <PasswordForm @changed="load" />
      <SecondFactor :account="account" @changed="load" />
    </template>
  </div>
</template>
