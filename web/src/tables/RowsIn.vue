<script setup lang="ts">
import { say } from '@kauri/core';
import SheetActs from '../parts/SheetActs.vue';
import { several } from '../words/numbers';
import PastedRows from './PastedRows.vue';
import TableIn from './TableIn.vue';

/** A table in, chosen or pasted: what of it can be taken and what not, line by line; nothing is taken until it is confirmed. */
defineProps<{
  label: string;
  /** Its headings, and what they mean. */
  hint?: string;
  /** What was read: how much can be taken, in words (“2 places”), and what not; null while there is nothing. */
  read: { good: number; words: string; faults: readonly string[] } | null;
  busy: boolean;
  sentence: string | null;
}>();
const emit = defineEmits<{ take: [] }>();
const pasted = defineModel<string>({ required: true });
async function choose(file: File | null) {
  pasted.value = (await file?.text()) ?? '';
}
</script>

<template>
  <section class="space-y-2">
    <h3 class="text-lg">{{ say`In` }}</h3>
    <TableIn :label="label" @file="choose" />
    <PastedRows v-model="pasted" />
    <p v-if="hint" class="text-muted text-sm">{{ hint }}</p>
    <template v-if="read">
      <p role="status">
        {{ say`${read.words} can be taken`
        }}<template v-if="read.faults.length">{{
          say`, ${several(read.faults.length, 'line')} cannot`
        }}</template
        >{{ say`. Nothing is taken yet.` }}
      </p>
      <slot />
      <ul
        v-if="read.faults.length"
        class="text-wrong max-h-48 overflow-y-auto font-bold"
        data-testid="table-faults"
      >
        <li v-for="words in read.faults" :key="words">{{ words }}</li>
      </ul>
      <SheetActs
        :act="say`Take ${read.words}`"
        :off="read.good === 0"
        :busy="busy"
        :sentence="sentence"
        @save="emit('take')"
      />
    </template>
  </section>
</template>
