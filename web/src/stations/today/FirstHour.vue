<script setup lang="ts">
import { say } from '@kauri/core';
import { Circle, CircleCheckBig } from 'lucide-vue-next';
import { RouterLink } from 'vue-router';
import type { FirstStep } from './firstHour';

/** What a nursery that has just begun is led through; it ticks itself, and goes when all is there or it is put away. */
defineProps<{ steps: readonly FirstStep[]; next: FirstStep | undefined }>();
const emit = defineEmits<{ putAway: [] }>();
</script>

<template>
  <section class="panel mb-5 p-4" aria-labelledby="first-hour" data-testid="first-hour">
    <div class="mb-2 flex flex-wrap items-baseline gap-x-4">
      <h2 id="first-hour" class="mr-auto text-lg">{{ say`The first hour` }}</h2>
      <RouterLink class="quiet" :to="{ name: 'practice' }">{{
        say`Try it in a practice nursery first`
      }}</RouterLink>
      <button class="quiet" type="button" @click="emit('putAway')">{{ say`Put this list away` }}</button>
    </div>
    <ol class="divide-rule divide-y">
      <li v-for="step in steps" :key="step.key" class="flex items-start gap-3 py-2.5">
        <component
          :is="step.done ? CircleCheckBig : Circle"
          class="mt-0.5 shrink-0"
          :class="step.done ? 'text-leaf' : 'text-muted'"
          :size="22"
          aria-hidden="true"
        />
        <div class="min-w-0 flex-1">
          <p>
            <b>{{ step.words }}</b>
            <span class="text-muted">{{
              step.done ? say` · done` : step.optional ? say` · when you have it` : ''
            }}</span>
          </p>
          <p class="text-muted">{{ step.why }}</p>
        </div>
        <RouterLink
          v-if="!step.done && step.to"
          :class="step === next ? 'act-main' : 'act'"
          :to="step.to"
          :aria-label="step.words"
          >{{ step === next ? say`Begin` : say`Open` }}</RouterLink
        >
      </li>
    </ol>
  </section>
</template>
