<script setup lang="ts" generic="T extends string">
import { Listbox, ListboxButton, ListboxLabel, ListboxOption, ListboxOptions } from '@headlessui/vue';
import { Check, ChevronsUpDown } from 'lucide-vue-next';
import { computed, useId, useTemplateRef } from 'vue';
import { useFloatingPanel } from './useFloatingPanel';

/** One of several things, chosen from a list that opens over whatever stands there; typing a name finds it. */
const {
  label,
  labelHidden,
  options,
  hint,
  fault,
  disabled = false,
} = defineProps<{
  label: string;
  /** Read out and not shown. */
  labelHidden?: boolean;
  /** What can be chosen; `under` a head where they come in groups, each group together. */
  options: readonly { value: T; words: string; under?: string; lang?: string }[];
  hint?: string;
  fault?: string | null;
  disabled?: boolean;
}>();
const chosen = defineModel<T>({ required: true });
const id = useId();
const words = computed(() => options.find(({ value }) => value === chosen.value)?.words ?? '');

/** Letters that come within this of one another are one name, ms. */
const TOGETHER_MS = 1000;
let typed = '';
let lastKeyMs = -Infinity;
/** Typed while the list is closed, the beginning of a name chooses it, without a key to open and one to close. */
function type(event: KeyboardEvent) {
  if (event.key === 'Enter' && typed !== '') {
    // It ends the name that was typed, and opens nothing.
    event.preventDefault();
    event.stopImmediatePropagation();
    typed = '';
    return;
  }
  if (event.key.length !== 1) typed = '';
  if (event.ctrlKey || event.metaKey || event.altKey || event.key.length !== 1 || disabled) return;
  const isNew = event.timeStamp - lastKeyMs > TOGETHER_MS;
  if (isNew && event.key === ' ') return;
  event.preventDefault();
  // A space within a name opens nothing, and a letter is no key of the page.
  event.stopImmediatePropagation();
  lastKeyMs = event.timeStamp;
  typed = (isNew ? '' : typed) + event.key.toLowerCase();
  const named = options.find((option) => option.words.toLowerCase().startsWith(typed));
  if (named) chosen.value = named.value;
}

const button = useTemplateRef<InstanceType<typeof ListboxButton>>('button');
const panel = useTemplateRef<InstanceType<typeof ListboxOptions>>('panel');
const TALL_PX = 400;
const place = useFloatingPanel(button, panel, TALL_PX);
</script>

<template>
  <Listbox v-slot="{ open }" v-model="chosen" as="div" class="min-w-0" :disabled="disabled">
    <ListboxLabel class="mb-1 block font-bold" :class="labelHidden ? 'sr-only' : ''">{{
      label
    }}</ListboxLabel>
    <ListboxButton
      ref="button"
      class="field flex cursor-pointer items-center gap-2 text-left disabled:cursor-default disabled:opacity-50"
      :data-value="chosen"
      :aria-invalid="fault ? true : undefined"
      :aria-describedby="fault || hint ? `${id}-words` : undefined"
      @keydown.capture="type"
    >
      <!-- Long words make no form wider than it is. -->
      <span class="w-0 flex-1 truncate">{{ words }}</span>
      <ChevronsUpDown :size="18" aria-hidden="true" class="text-muted shrink-0" />
    </ListboxButton>
    <ListboxOptions
      v-if="open"
      ref="panel"
      static
      popover="manual"
      class="border-rule bg-card text-ink overflow-y-auto rounded-md border shadow-lg"
      :style="place"
    >
      <template v-for="(option, i) in options" :key="option.value">
        <li
          v-if="option.under && option.under !== options[i - 1]?.under"
          role="presentation"
          class="text-muted px-3 pt-2 text-sm font-bold"
        >
          {{ option.under }}
        </li>
        <ListboxOption v-slot="{ active, selected }" :value="option.value">
          <span
            class="flex min-h-11 cursor-pointer items-center gap-2 px-3 py-1"
            :class="[active ? 'bg-leaf-pale' : '', selected ? 'font-bold' : '']"
            :lang="option.lang"
            :data-value="option.value"
          >
            <span class="flex-1">{{ option.words }}</span>
            <Check v-if="selected" :size="18" aria-hidden="true" class="shrink-0" />
          </span>
        </ListboxOption>
      </template>
    </ListboxOptions>
    <p v-if="fault" :id="`${id}-words`" class="text-wrong mt-1 text-sm font-bold">{{ fault }}</p>
    <p v-else-if="hint" :id="`${id}-words`" class="text-muted mt-1 text-sm">{{ hint }}</p>
  </Listbox>
</template>
