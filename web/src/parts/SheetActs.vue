<script setup lang="ts">
import { say } from '@kauri/core';
import { useEventListener } from '@vueuse/core';
import { nextTick, useTemplateRef, watch } from 'vue';
import { toFault } from './toFault';

/** The foot of a sheet: what is wrong, if anything, and the one act that saves; Ctrl Enter does it from anywhere in the sheet. */
const props = defineProps<{ act: string; busy: boolean; sentence: string | null; off?: boolean }>();
const emit = defineEmits<{ save: [] }>();
const main = useTemplateRef('main');

/** What was pressed and is not answered yet; a refusal leads to its field, words that come while one types do not. */
let pressed = false;
function save() {
  pressed = true;
  emit('save');
  void nextTick(settle);
}
function settle() {
  if (!pressed || props.busy) return;
  pressed = false;
  if (props.sentence) void toFault(main.value?.closest('form, [role=dialog]'));
}
watch(() => props.busy, settle, { flush: 'post' });

useEventListener(
  window,
  'keydown',
  (event: KeyboardEvent) => {
    if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey)) return;
    // Of sheets over one another the uppermost is meant.
    const uppermost = [...document.querySelectorAll('[role=dialog]')].at(-1);
    if (!uppermost?.contains(main.value)) return;
    event.preventDefault();
    event.stopPropagation();
    main.value?.click();
  },
  { capture: true },
);
</script>

<template>
  <div class="mt-4">
    <p v-if="sentence" class="text-wrong mb-2 font-bold" role="alert">{{ sentence }}</p>
    <div class="flex flex-wrap items-center gap-3">
      <button ref="main" class="act-main" type="submit" :disabled="busy || off" @click.prevent="save">
        {{ busy ? say`Saving …` : act }}
      </button>
      <slot />
    </div>
  </div>
</template>
