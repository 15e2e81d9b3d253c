<script setup lang="ts">
import { decimals, groupThousands, workingWords, put, type Step, say } from '@kauri/core';
import { longDate, yearOf } from '../words/dates';

/** Opens on how a figure came about: each step's sum with its numbers, unit and sources. Always in metric, as computed. */
const props = defineProps<{ steps: readonly Step[]; label?: string }>();

function result(step: Step): string {
  if (typeof step.result === 'string') return step.result;
  if (step.unit === 'date') return longDate(step.result, yearOf(0));
  return `${decimals(groupThousands(put(Number(step.result.toPrecision(5)))))}${step.unit ? ` ${worded(step.unit)}` : ''}`;
}
const worded = (text: string) => workingWords[text as keyof typeof workingWords] ?? text;
const origins = {
  record: say`your record`,
  starting: say`starting value`,
  choice: say`chosen`,
  standard: say`standard`,
};
const starting = () => props.steps.some((step) => step.inputs?.some((input) => input.origin === 'starting'));
</script>

<template>
  <details class="group">
    <summary class="quiet list-none">{{ label ?? say`Show working` }}</summary>
    <ol class="border-rule mt-2 space-y-3 border-l-2 pl-4 text-[0.95rem]" data-testid="working">
      <li v-for="(step, i) in steps" :key="i">
        <p class="font-bold">{{ step.what }}</p>
        <p v-if="step.expression" class="break-words">
          <span data-testid="expression">{{ step.expression }}</span> =
          <span class="font-bold" data-testid="result">{{ result(step) }}</span>
        </p>
        <p v-else>
          {{ step.how }} <span class="font-bold">{{ result(step) }}</span>
        </p>
        <p v-for="input in step.inputs" :key="input.name" class="text-muted">
          {{ worded(input.name) }}: {{ typeof input.value === 'number' ? put(input.value) : input.value }}
          {{ worded(input.unit ?? '') }}
          <span :class="input.origin === 'starting' ? 'text-root font-bold' : ''"
            >({{ origins[input.origin] }})</span
          >
        </p>
        <p v-if="step.source" class="text-muted italic">{{ step.source }}</p>
      </li>
      <li v-if="starting()" class="text-muted">
        {{ say`Starting values are ordinary published ones; your records replace them as they come.` }}
      </li>
    </ol>
  </details>
</template>
