<script setup lang="ts">
import { say } from '@kauri/core';
/** The foot of a sheet: what is wrong, if anything, and the one act that saves. */
defineProps<{ act: string; busy: boolean; sentence: string | null; off?: boolean }>();
const emit = defineEmits<{ save: [] }>();
</script>

<template>
  <div class="mt-4">
    <p v-if="sentence" class="text-wrong mb-2 font-bold" role="alert">{{ sentence }}</p>
    <div class="flex flex-wrap items-center gap-3">
      <button class="act-main" type="submit" :disabled="busy || off" @click.prevent="emit('save')">
        {{ busy ? say`Saving …` : act }}
      </button>
      <slot />
    </div>
  </div>
</template>
