<script setup lang="ts">
import { batchFor, say, materialWords } from '@kauri/core';
import type { Catalogue } from '@kauri/core/contract';
import { useSessionStorage } from '@vueuse/core';
import { computed } from 'vue';
import FormField from '../../../parts/FormField.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { typedNumber } from '../../../parts/typed';
import { keptKey } from '../../../stores/kept';
import { useNursery } from '../../../stores/nursery';
import { useMass } from '../../../parts/useMass';
import { usePreferences } from '../../../stores/preferences';
import { money } from '../../../words/money';

/** What goes into a batch of a medium: bags, barrows, feed, and what it costs. */
const props = defineProps<{ medium: Catalogue['media'][number] }>();
const nursery = useNursery();
const { show, shown, typed, unit } = usePreferences();
const mass = useMass();
const currency = computed(() => nursery.catalogue!.prices.list.currency);
/** A usual batch, in what the grower reads. */
const asShown = (value: number, of: 'volume' | 'dose') => String(Number(shown(value, of).toFixed(1)));
const batch = useSessionStorage(keptKey('batch'), {
  litres: asShown(200, 'volume'),
  bag: asShown(40, 'volume'),
  barrow: asShown(80, 'volume'),
  feed: asShown(3, 'dose'),
  inoculum: '0',
});
const volume = (text: string) => typed(typedNumber(text), 'volume');
const mixed = computed(() => {
  const parts = props.medium.values.parts;
  if (!parts?.length)
    return { fault: say`This medium has no recipe yet: edit it to say what it is mixed from.` };
  try {
    return {
      fault: null,
      ...batchFor({
        litres: volume(batch.value.litres),
        parts,
        bagL: volume(batch.value.bag),
        barrowL: volume(batch.value.barrow),
        feedGPerL: typed(typedNumber(batch.value.feed), 'dose'),
        inoculumMlPerL: typedNumber(batch.value.inoculum),
      }),
    };
  } catch (error) {
    return { fault: (error as Error).message };
  }
});
</script>

<template>
  <section aria-labelledby="batch">
    <h2 id="batch" class="text-lg">{{ say`Mix a batch` }}</h2>
    <div class="grid grid-cols-3 gap-2">
      <FormField v-model="batch.litres" :label="say`Wanted`" :unit="unit('volume')" inputmode="decimal" />
      <FormField v-model="batch.bag" :label="say`Bag`" :unit="unit('volume')" inputmode="decimal" />
      <FormField v-model="batch.barrow" :label="say`Barrow`" :unit="unit('volume')" inputmode="decimal" />
      <FormField v-model="batch.feed" :label="say`Feed`" :unit="unit('dose')" inputmode="decimal" />
      <FormField v-model="batch.inoculum" :label="say`Inoculum`" unit="mL/L" inputmode="decimal" />
    </div>
    <p v-if="mixed.fault" class="mt-1 font-bold" role="status">{{ mixed.fault }}</p>
    <template v-else-if="'value' in mixed && mixed.value">
      <table class="mt-2 w-full text-[0.95rem]" data-testid="batch">
        <tbody>
          <tr v-for="p in mixed.value.parts" :key="p.material" class="border-rule border-b">
            <th scope="row" class="py-1 text-left font-normal">
              {{ materialWords[p.material] ?? p.material }}
            </th>
            <td class="text-right font-bold">{{ show(p.litres, 'volume') }}</td>
            <td class="text-right">{{ p.bags }} {{ p.bags === 1 ? say`bag` : say`bags` }}</td>
            <td class="text-right">{{ say`${p.barrows.toFixed(1)} barrows` }}</td>
          </tr>
        </tbody>
      </table>
      <p class="mt-1">
        {{ say`Feed` }} <b>{{ mass(mixed.value.feedG) }}</b><template v-if="mixed.value.inoculumMl > 0"
          >{{ say`, inoculum` }} <b>{{ show(mixed.value.inoculumMl, 'cell', 0) }}</b></template
        >{{ say`; costs ${money(mixed.value.cost, currency)}.` }}
      </p>
      <p class="border-ink text-muted mt-1 border-l-4 pl-3 text-sm">
        {{
          say`Damp the mix before turning it: dust, moulds and Legionella. Mask and gloves with feed; wash hands.`
        }}
      </p>
      <ShowWorking :steps="mixed.working" />
    </template>
  </section>
</template>
