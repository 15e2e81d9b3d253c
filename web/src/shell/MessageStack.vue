<script setup lang="ts">
import { say } from '@kauri/core';
import { useMessages } from '../stores/messages';

const store = useMessages();
</script>

<template>
  <div
    class="print:hidden hand:bottom-16 pointer-events-none fixed right-4 bottom-32 z-30 flex w-80 max-w-[calc(100vw-2rem)] flex-col gap-2"
    role="status"
    aria-live="polite"
  >
    <div
      v-for="message in store.messages"
      :key="message.id"
      class="bg-ink text-paper pointer-events-auto flex items-center justify-between gap-3 rounded-md px-4 py-2 shadow-lg"
    >
      <span>{{ message.text }}</span>
      <button
        v-if="message.undo"
        class="min-h-11 cursor-pointer px-2 font-bold underline underline-offset-4"
        type="button"
        @click="store.undo(message)"
      >
        {{ say`Undo` }}
      </button>
    </div>
  </div>
</template>
