<script setup lang="ts">
import { say } from '@kauri/core';
import { Minus, Plus } from 'lucide-vue-next';
import { computed, useTemplateRef } from 'vue';
import FormField from './FormField.vue';
import { tapped } from './tapped';

/** A count by taps with a thumb, or typed. */
const props = defineProps<{
  label: string;
  fault?: string | null;
  hint?: string;
  /** What was there before, if anything: a blank count is taken down from it, and up from none. */
  before?: number;
}>();
const value = defineModel<string>({ required: true });
const add = (by: number) => (value.value = tapped(value.value, by, props.before));
const field = useTemplateRef<InstanceType<typeof FormField>>('field');
defineExpose({ input: computed(() => field.value?.input ?? null) });
</script>

<template>
  <div class="grid grid-cols-[4.5rem_1fr_4.5rem_4.5rem] items-end gap-2">
    <button class="act h-16 justify-center" type="button" :aria-label="say`One less`" @click="add(-1)">
      <Minus :size="28" aria-hidden="true" />
    </button>
    <FormField ref="field" v-model="value" :label="label" inputmode="numeric" :fault="fault" :hint="hint" />
    <button class="act h-16 justify-center text-xl" type="button" :aria-label="say`One more`" @click="add(1)">
      <Plus :size="28" aria-hidden="true" />
    </button>
    <button
      class="act h-16 justify-center text-xl"
      type="button"
      :aria-label="say`Ten more`"
      @click="add(10)"
    >
      10
    </button>
  </div>
</template>
