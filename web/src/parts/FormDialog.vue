<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue';
import { X } from 'lucide-vue-next';

/** A sheet over the screen for one record. What is typed in it is kept as a draft until it is saved. */
defineProps<{ title: string; subtitle?: string; wide?: boolean }>();
const emit = defineEmits<{ close: [] }>();
</script>

<template>
  <Dialog :open="true" class="relative z-40" @close="emit('close')">
    <div class="fixed inset-0 bg-black/45" aria-hidden="true" />
    <div class="fixed inset-0 overflow-y-auto">
      <div class="flex min-h-full items-end justify-center sm:items-center sm:p-4">
        <DialogPanel
          class="border-rule bg-paper text-ink max-h-dvh w-full overflow-y-auto rounded-t-lg border p-5 sm:rounded-lg"
          :class="wide ? 'sm:max-w-4xl' : 'sm:max-w-lg'"
        >
          <div class="mb-4 flex items-start justify-between gap-4">
            <div>
              <DialogTitle as="h2" class="text-xl">{{ title }}</DialogTitle>
              <p v-if="subtitle" class="text-muted">{{ subtitle }}</p>
            </div>
            <button
              class="act px-2"
              type="button"
              aria-label="Close; what you typed is kept"
              @click="emit('close')"
            >
              <X :size="20" aria-hidden="true" />
            </button>
          </div>
          <slot />
        </DialogPanel>
      </div>
    </div>
  </Dialog>
</template>
