<script setup lang="ts">
import { say } from '@kauri/core';
import type { Account } from '@kauri/core/contract';
import QRCode from 'qrcode';
import { ref } from 'vue';
import { call } from '../../api/client';
import { fieldFault, sentenceOf } from '../../api/problem';
import FormField from '../../parts/FormField.vue';

/** A second factor by an authenticator app: offered, put in force by a code of it, ended. */
const props = defineProps<{ account: Account }>();
const emit = defineEmits<{ changed: [] }>();
const password = ref('');
const code = ref('');
const offer = ref<{ secret: string; picture: string } | null>(null);
const codes = ref<string[] | null>(null);
const fault = ref<unknown>(null);
const busy = ref(false);

async function tried(work: () => Promise<void>) {
  busy.value = true;
  fault.value = null;
  try {
    await work();
  } catch (error) {
    fault.value = error;
  } finally {
    busy.value = false;
  }
}
const begin = () =>
  tried(async () => {
    const { secret, uri } = await call('offerSecondFactor', { body: { password: password.value } });
    const svg = await QRCode.toString(uri, { type: 'svg', margin: 2 });
    offer.value = { secret, picture: `data:image/svg+xml;utf8,${encodeURIComponent(svg)}` };
    password.value = '';
  });
const confirm = () =>
  tried(async () => {
    codes.value = (await call('confirmSecondFactor', { body: { code: code.value } })).codes;
    offer.value = null;
    code.value = '';
    emit('changed');
  });
const end = () =>
  tried(async () => {
    await call('dropSecondFactor', { body: { password: password.value } });
    password.value = '';
    codes.value = null;
    emit('changed');
  });
const wrong = (path: string) => fieldFault(fault.value, path);
</script>

<template>
  <section class="panel space-y-3 p-4" aria-labelledby="second-factor">
    <h2 id="second-factor" class="text-xl">{{ say`Second factor` }}</h2>
    <div v-if="codes" class="space-y-3">
      <p>
        {{
          say`It is in force. These codes let you in once each should the authenticator be lost. Write them down now: they are not shown again.`
        }}
      </p>
      <ul class="grid max-w-md grid-cols-2 gap-x-6 gap-y-1 font-mono" data-testid="recovery">
        <li v-for="c in codes" :key="c">{{ c }}</li>
      </ul>
      <button class="act-main" type="button" @click="codes = null">{{ say`They are written down` }}</button>
    </div>
    <form v-else-if="offer" class="flex flex-wrap gap-4" novalidate @submit.prevent="confirm">
      <img
        class="size-44 rounded bg-white"
        :src="offer.picture"
        :alt="say`The secret, to be read by an authenticator app`"
      />
      <div class="min-w-0 grow basis-64 space-y-3">
        <p>
          {{ say`Read the picture with an authenticator app, or type` }}
          <code class="break-all" data-testid="secret">{{ offer.secret }}</code>
          {{ say`into it. Then give a code it shows.` }}
        </p>
        <FormField
          v-model="code"
          :label="say`Code`"
          inputmode="numeric"
          autocomplete="one-time-code"
          :hint="say`Six digits`"
          :fault="wrong('code')"
        />
        <button class="act-main" type="submit" :disabled="busy">{{ say`Put it in force` }}</button>
      </div>
    </form>
    <form
      v-else
      class="max-w-md space-y-3"
      novalidate
      @submit.prevent="props.account.secondFactor ? end() : begin()"
    >
      <p v-if="account.secondFactor">
        {{
          say`A code of your authenticator is asked for when you sign in. ${account.recoveryLeft} recovery ${account.recoveryLeft === 1 ? say`code is` : say`codes are`} left.`
        }}
      </p>
      <p v-else>
        {{
          say`With an authenticator app (any that follows RFC 6238), a password that was seen over your shoulder is not enough to come in.`
        }}
      </p>
      <FormField
        v-model="password"
        :label="say`Your password`"
        type="password"
        autocomplete="current-password"
        :fault="wrong('password')"
      />
      <button :class="account.secondFactor ? 'act' : 'act-main'" type="submit" :disabled="busy">
        {{ account.secondFactor ? say`End the second factor` : say`Set up a second factor` }}
      </button>
    </form>
    <p v-if="fault && !wrong('password') && !wrong('code')" class="text-wrong font-bold" role="alert">
      {{ sentenceOf(fault) }}
    </p>
  </section>
</template>
