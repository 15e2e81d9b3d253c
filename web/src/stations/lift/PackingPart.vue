<script setup lang="ts">
import { say } from '@kauri/core';
import { computed } from 'vue';
import FormField from '../../parts/FormField.vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import { typedNumber } from '../../parts/typed';
import { usePreferences } from '../../stores/preferences';
import { count, several } from '../../words/numbers';
import type { LoadRow } from './useLoading';
import { usePacking } from './usePacking';

/** What the load weighs and in how many crates and trays it travels, for each receiver. */
const props = defineProps<{ rows: readonly LoadRow[] }>();
const { show, shown, typed, unit } = usePreferences();
const { crate, byReceiver, working, unknown } = usePacking(computed(() => props.rows));

/** A field of the crate in the reader's units; what is no number above 0 is not taken. */
const field = (key: 'litres' | 'mostKg', quantity: 'volume' | 'mass') =>
  computed({
    get: () => String(Number(shown(crate.value[key], quantity).toFixed(1))),
    set: (text: string) => {
      const value = typed(typedNumber(text), quantity);
      if (value > 0 && value < 5000) crate.value[key] = value;
    },
  });
const litres = field('litres', 'volume');
const mostKg = field('mostKg', 'mass');
const piecesWords = ({ crates, trays }: { crates: number; trays: number }) =>
  [crates && several(crates, 'crate'), trays && several(trays, 'tray')].filter(Boolean).join(', ');
const about = (kg: number) => show(kg, 'mass', kg < 10 ? 1 : 0);
</script>

<template>
  <section aria-labelledby="packing">
    <h2 id="packing" class="text-lg">{{ say`How it travels` }}</h2>
    <div class="my-2 flex flex-wrap gap-3">
      <FormField
        v-model="litres"
        class="w-36"
        :label="say`A crate holds`"
        :unit="unit('volume')"
        inputmode="decimal"
      />
      <FormField
        v-model="mostKg"
        class="w-48"
        :label="say`Filled to at most`"
        :unit="unit('mass')"
        inputmode="decimal"
      />
    </div>
    <div class="overflow-x-auto">
      <table class="w-full max-w-3xl" data-testid="packing">
        <thead class="text-muted text-[0.95rem]">
          <tr>
            <th scope="col" class="text-left font-normal">{{ say`For` }}</th>
            <th scope="col" class="text-right font-normal">{{ say`Trees` }}</th>
            <th scope="col" class="pl-4 text-left font-normal">{{ say`In` }}</th>
            <th scope="col" class="pl-4 text-right font-normal">{{ say`All together` }}</th>
            <th scope="col" class="pl-4 text-right font-normal">{{ say`Heaviest` }}</th>
            <th scope="col" class="pl-4 text-right font-normal">{{ say`Length` }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in byReceiver" :key="one.whom" class="border-rule border-t">
            <th scope="row" class="py-1 text-left">{{ one.whom }}</th>
            <td class="text-right">{{ count(one.trees) }}</td>
            <td class="pl-4">{{ piecesWords(one) }}</td>
            <td class="pl-4 text-right whitespace-nowrap">{{ about(one.kg) }}</td>
            <td class="pl-4 text-right whitespace-nowrap" :class="one.forTwo ? 'font-bold' : ''">
              {{ about(one.heaviestKg) }}{{ one.forTwo ? say`, for two` : '' }}
            </td>
            <td class="pl-4 text-right whitespace-nowrap">{{ show(one.longCm, 'height', 0) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="text-muted text-sm">
      {{ say`Weights by height and collar, a rule of thumb: weigh one crate before you load by them.` }}
      <template v-if="unknown.length">{{
        say` Nobody knows how tall ${unknown.join(', ')} are: not counted here.`
      }}</template>
    </p>
    <ShowWorking v-if="working.length" :steps="working" />
  </section>
</template>
