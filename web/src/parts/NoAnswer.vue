<script setup lang="ts">
import { say } from '@kauri/core';

/** The server could not be asked for what the whole page needs. */
defineProps<{ trouble: string }>();
const emit = defineEmits<{ again: [] }>();
</script>

<template>
  <main class="grid h-full place-items-center p-6">
    <div class="max-w-md">
      <h1 class="mb-2 text-2xl">{{ say`Kauri does not answer` }}</h1>
      <p role="alert">{{ trouble }}</p>
      <button class="act-main mt-4" type="button" @click="emit('again')">{{ say`Try again` }}</button>
    </div>
  </main>
</template>
