<script setup lang="ts">
import { say } from '@kauri/core';
import { ref } from 'vue';
import { call } from '../../api/client';
import { fieldFault, sentenceOf } from '../../api/problem';
import FormField from '../../parts/FormField.vue';
import { useMessages } from '../../stores/messages';

const emit = defineEmits<{ changed: [] }>();
const messages = useMessages();
const current = ref('');
const next = ref('');
const fault = ref<unknown>(null);
const busy = ref(false);

async function save() {
  busy.value = true;
  fault.value = null;
  try {
    await call('changePassword', { body: { current: current.value, next: next.value } });
    [current.value, next.value] = ['', ''];
    messages.say(say`Your password is changed. Other browsers are signed out.`);
    emit('changed');
  } catch (error) {
    fault.value = error;
  } finally {
    busy.value = false;
  }
}
const wrong = (path: string) => fieldFault(fault.value, path);
</script>

<template>
  <section class="panel p-4" aria-labelledby="password">
    <h2 id="password" class="mb-3 text-xl">{{ say`Password` }}</h2>
    <form class="max-w-md space-y-3" novalidate @submit.prevent="save">
      <FormField
        v-model="current"
        :label="say`The password now`"
        type="password"
        autocomplete="current-password"
        :fault="wrong('current')"
      />
      <FormField
        v-model="next"
        :label="say`The new one`"
        type="password"
        autocomplete="new-password"
        :hint="say`10 characters or more; a few words that do not belong together are good`"
        :fault="wrong('next')"
      />
      <p v-if="fault && !wrong('current') && !wrong('next')" class="text-wrong font-bold" role="alert">
        {{ sentenceOf(fault) }}
      </p>
      <button class="act-main" type="submit" :disabled="busy">{{ say`Change it` }}</button>
    </form>
  </section>
</template>
