<script setup lang="ts">
import { say } from '@kauri/core';
import { reactive, watch } from 'vue';
import FormField from '../../../parts/FormField.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { typedNumber } from '../../../parts/typed';
import { usePreferences } from '../../../stores/preferences';
import type { WaterDesk } from './useWatering';

/** What the tap gives by a bucket test, and how far beds may dry down. */
const props = defineProps<{ w: WaterDesk; may: boolean }>();
const { show, shown, typed, unit } = usePreferences();
const { plan, supply, busy } = props.w;

const supplyForm = reactive({ litres: '', seconds: '', pressure: '', dryDown: '' });
watch(
  plan,
  (now) => {
    if (!now) return;
    supplyForm.litres = String(Number(shown(now.bucketLitres, 'volume').toFixed(2)));
    supplyForm.seconds = String(now.bucketSeconds);
    supplyForm.pressure = String(Number(shown(now.pressureM, 'site').toFixed(2)));
    supplyForm.dryDown = String(Math.round(now.dryDown * 100));
  },
  { immediate: true },
);
function keepSupply() {
  void props.w.keep({
    ...plan.value!,
    bucketLitres: typed(typedNumber(supplyForm.litres), 'volume'),
    bucketSeconds: typedNumber(supplyForm.seconds),
    pressureM: typed(typedNumber(supplyForm.pressure), 'site'),
    dryDown: typedNumber(supplyForm.dryDown) / 100,
  });
}
</script>

<template>
  <section v-if="supply" aria-labelledby="supply">
    <h2 id="supply" class="text-lg">{{ say`The tap` }}</h2>
    <form class="grid grid-cols-2 gap-2" novalidate @submit.prevent="keepSupply">
      <FormField
        v-model="supplyForm.litres"
        :label="say`Bucket`"
        :unit="unit('volume')"
        inputmode="decimal"
      />
      <FormField v-model="supplyForm.seconds" :label="say`Filled in`" unit="s" inputmode="decimal" />
      <FormField
        v-model="supplyForm.pressure"
        :label="say`Pressure, head`"
        :unit="unit('site')"
        inputmode="decimal"
      />
      <FormField v-model="supplyForm.dryDown" :label="say`Dry down to lose`" unit="%" inputmode="decimal" />
      <button v-if="may" class="act col-span-2 justify-self-start" type="submit" :disabled="busy">
        {{ say`Keep` }}
      </button>
    </form>
    <p class="mt-1" data-testid="supply">
      {{ say`Gives` }} <b>{{ show(supply.value, 'flow', 0) }}</b>{{
        say`; a zone may draw ${show(supply.value * 0.85, 'flow', 0)} of it.`
      }}
    </p>
    <ShowWorking :steps="supply.working" />
    <p class="border-ink text-muted mt-2 border-l-4 pl-3 text-sm">
      {{
        say`Backflow prevention between a bed or feed and drinking water, as the local code asks. Electric timers and pumps on protected circuits, by a licensed electrician.`
      }}
    </p>
  </section>
</template>
