<script setup lang="ts">
import { ref } from 'vue';
import { sentenceOf } from '../api/problem';
import { useSession } from '../stores/session';

const props = defineProps<{ email?: string }>();
const session = useSession();
const email = ref(props.email ?? '');
const password = ref('');
const fault = ref<string | null>(null);
const busy = ref(false);

async function signIn(as?: { email: string; password: string }) {
  busy.value = true;
  fault.value = null;
  try {
    await session.signIn(as?.email ?? email.value, as?.password ?? password.value);
  } catch (error) {
    fault.value = sentenceOf(error);
  } finally {
    busy.value = false;
  }
}
defineExpose({ signIn });
</script>

<template>
  <form class="space-y-3" @submit.prevent="signIn()">
    <label class="block">
      <span class="mb-1 block font-bold">E-mail</span>
      <input v-model="email" class="field" type="email" autocomplete="username" required />
    </label>
    <label class="block">
      <span class="mb-1 block font-bold">Password</span>
      <input v-model="password" class="field" type="password" autocomplete="current-password" required />
    </label>
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <button class="act-main" type="submit" :disabled="busy">Sign in</button>
  </form>
</template>
