<script setup lang="ts">
import { say } from '@kauri/core';
import { nextTick, onMounted, ref, useTemplateRef } from 'vue';
import { ProblemError, sentenceOf } from '../api/problem';
import { useSession } from '../stores/session';

const props = defineProps<{ email?: string; act?: string }>();
const emit = defineEmits<{ done: [] }>();
const session = useSession();
const email = ref(props.email ?? '');
const password = ref('');
const code = ref('');
/** The device is the yard's own: nobody is to sign in again with cold hands. */
const ofTheYard = ref(false);
const wantsCode = ref(false);
const fault = ref<string | null>(null);
const busy = ref(false);
const first = useTemplateRef('first');
const second = useTemplateRef('second');
const third = useTemplateRef('third');
onMounted(() => (email.value ? second : first).value?.focus());

async function signIn(as?: { email: string; password: string }) {
  busy.value = true;
  fault.value = null;
  try {
    await session.signIn({
      email: as?.email ?? email.value,
      password: as?.password ?? password.value,
      ...(wantsCode.value ? { code: code.value } : {}),
      device: ofTheYard.value ? 'yard' : 'desk',
    });
    emit('done');
  } catch (error) {
    const needsCode = error instanceof ProblemError && error.kind === 'code-needed';
    if (needsCode && !wantsCode.value) wantsCode.value = true;
    else fault.value = sentenceOf(error);
    busy.value = false;
    if (wantsCode.value) {
      await nextTick();
      third.value?.focus();
    }
  } finally {
    busy.value = false;
  }
}
defineExpose({ signIn });
</script>

<template>
  <form class="space-y-3" @submit.prevent="signIn()">
    <label class="block">
      <span class="mb-1 block font-bold">{{ say`E-mail` }}</span>
      <input ref="first" v-model="email" class="field" type="email" autocomplete="username" required />
    </label>
    <label class="block">
      <span class="mb-1 block font-bold">{{ say`Password` }}</span>
      <input
        ref="second"
        v-model="password"
        class="field"
        type="password"
        autocomplete="current-password"
        required
      />
    </label>
    <label v-if="wantsCode" class="block">
      <span class="mb-1 block font-bold">{{ say`Code of your authenticator` }}</span>
      <input ref="third" v-model="code" class="field" autocomplete="one-time-code" required />
      <span class="text-muted mt-1 block text-sm">{{ say`Six digits; or one of your recovery codes.` }}</span>
    </label>
    <label class="flex min-h-11 cursor-pointer items-center gap-2">
      <input v-model="ofTheYard" class="size-5" type="checkbox" />
      {{ say`This device is the yard’s own: stay signed in for 30 days ` }}
    </label>
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <button class="act-main" type="submit" :disabled="busy">{{ act ?? say`Sign in` }}</button>
    <details>
      <summary class="text-muted flex min-h-11 cursor-pointer items-center">
        {{ say`Password forgotten?` }}
      </summary>
      <p>
        {{ say`Ask an owner of your nursery: under` }} <em>{{ say`People` }}</em>
        {{
          say`they make a link by which you set a new one. An owner who is alone asks whoever runs the machine:`
        }}
        <code>{{ say`npm run password-link -- your e-mail address` }}</code>.
      </p>
    </details>
  </form>
</template>
