<script setup lang="ts">
import { say } from '@kauri/core';
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue';
import { X } from 'lucide-vue-next';
import { onUnmounted } from 'vue';

/** A sheet over the screen for one record. What is typed in it is kept as a draft until it is saved. */
defineProps<{ title: string; subtitle?: string; wide?: boolean; initialFocus?: HTMLElement | null }>();
const emit = defineEmits<{ close: [] }>();

// The keys go on from where the sheet was opened. The page behind is inert until the sheet is quite gone.
const opener = document.activeElement;
onUnmounted(() =>
  requestAnimationFrame(() => {
    if (document.activeElement === document.body && opener instanceof HTMLElement && opener.isConnected)
      opener.focus({ preventScroll: true });
  }),
);
</script>

<template>
  <Dialog :open="true" class="relative z-40" :initial-focus="initialFocus" @close="emit('close')">
    <div class="fixed inset-0 bg-black/45" aria-hidden="true" />
    <div class="fixed inset-0 overflow-y-auto">
      <div class="flex min-h-full items-end justify-center sm:items-center sm:p-4">
        <DialogPanel
          class="border-rule bg-paper text-ink relative w-full rounded-t-lg border p-5 sm:rounded-lg"
          :class="wide ? 'sm:max-w-4xl' : 'sm:max-w-lg'"
        >
          <div class="mb-4 pr-14">
            <DialogTitle as="h2" class="text-xl">{{ title }}</DialogTitle>
            <p v-if="subtitle" class="text-muted">{{ subtitle }}</p>
          </div>
          <slot />
          <button
            class="act absolute top-4 right-4 px-3"
            type="button"
            :aria-label="say`Close; what you typed is kept`"
            @click="emit('close')"
          >
            <X :size="20" aria-hidden="true" />
          </button>
        </DialogPanel>
      </div>
    </div>
  </Dialog>
</template>
