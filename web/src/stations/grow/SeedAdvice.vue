<script setup lang="ts">
import { sowingOutlook, sowingPlan, type SowingChain, say } from '@kauri/core';
import { computed } from 'vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import { typedNumber } from '../../parts/typed';
import { useMass } from '../../parts/useMass';
import { count, percent, surely } from '../../words/numbers';

/** How many seeds to sow for the trees wanted, and what to expect of the seeds typed. */
const props = defineProps<{ chain: SowingChain; seedsPerKg: number; seeds: number }>();
const emit = defineEmits<{ use: [seeds: number] }>();
const target = defineModel<string>('target', { required: true });
const chance = defineModel<string>('chance', { required: true });

const mass = useMass();
const chances = ['0.5', '0.8', '0.9', '0.95', '0.99'].map((value) => ({
  value,
  words: percent(Number(value)),
}));
const advice = computed(() => {
  if (target.value.trim() === '') return null;
  try {
    const { value, working } = sowingPlan({
      target: typedNumber(target.value),
      probability: Number(chance.value),
      chain: props.chain,
      seedsPerKg: props.seedsPerKg,
      seedsHeld: null,
      pricePerKg: null,
    });
    return { ...value, working, fault: null };
  } catch (error) {
    return { seeds: 0, grams: 0, working: [], fault: error instanceof Error ? error.message : String(error) };
  }
});
const outlook = computed(() =>
  Number.isInteger(props.seeds) && props.seeds > 0 && typedNumber(target.value) >= 1
    ? sowingOutlook(
        props.seeds,
        typedNumber(target.value),
        Object.values(props.chain).map(({ next }) => next),
      )
    : null,
);
</script>

<template>
  <fieldset class="panel p-3">
    <legend class="px-1 font-bold">{{ say`How many should I sow?` }}</legend>
    <div class="grid grid-cols-2 gap-3">
      <FormField v-model="target" :label="say`Good trees wanted`" inputmode="numeric" />
      <SelectField v-model="chance" :label="say`Chance of having them`" :options="chances" />
    </div>
    <template v-if="advice">
      <p v-if="advice.fault" class="mt-2" role="status">{{ advice.fault }}</p>
      <template v-else>
        <p class="mt-2 flex flex-wrap items-center gap-3 text-lg">
          <span data-testid="seeds-advised"
            >{{ say`Sow` }} <b>{{ count(advice.seeds) }}</b>
            {{ say`seeds, about ${mass(advice.grams)}` }}</span
          >
          <button class="act" type="button" @click="emit('use', advice.seeds)">
            {{ say`Use ${count(advice.seeds)}` }}
          </button>
        </p>
        <ShowWorking :steps="advice.working" />
      </template>
    </template>
    <p v-if="outlook" class="text-muted mt-1" data-testid="seeds-outlook">
      {{
        say`${count(seeds)} seeds: ${surely(outlook.chance)} chance of ${count(typedNumber(target))} or more; ${count(outlook.expectedTrees)} to expect.`
      }}
    </p>
  </fieldset>
</template>
