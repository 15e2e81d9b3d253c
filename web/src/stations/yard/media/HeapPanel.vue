<script setup lang="ts">
import { say } from '@kauri/core';
import type { Catalogue } from '@kauri/core/contract';
import { computed, reactive } from 'vue';
import { call } from '../../../api/client';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import { typedNumber } from '../../../parts/typed';
import { useSaving } from '../../../parts/useSaving';
import { useMessages } from '../../../stores/messages';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSeason } from '../../../stores/season';
import { useSession } from '../../../stores/session';
import { useYard } from '../../../stores/yard';
import { dateWords } from '../../../words/dates';

/** How much of a medium lies on its heap, what came and went, and the next of either. */
const props = defineProps<{ medium: Catalogue['media'][number] }>();
const nursery = useNursery();
const session = useSession();
const season = useSeason();
const yard = useYard();
const messages = useMessages();
const { show, typed, unit } = usePreferences();
const volume = (text: string) => typed(typedNumber(text), 'volume');
const lies = computed(() => yard.litresOf(props.medium.id));

const reasons = [
  { value: 'bought', words: say`Bought` },
  { value: 'mixed', words: say`Mixed here` },
  { value: 'spent', words: say`Spent medium brought back` },
  { value: 'filled', words: say`Filled into beds or pots` },
  { value: 'thrown-out', words: say`Thrown out` },
  { value: 'counted', words: say`Counted: correct the heap` },
] as const;
const stock = reactive({ litres: '', why: 'bought' as (typeof reasons)[number]['value'], note: '' });
const { busy, save, sentence } = useSaving('stock');
async function move() {
  const litres = volume(stock.litres);
  const out = stock.why === 'filled' || stock.why === 'thrown-out';
  const amount = stock.why === 'counted' ? litres - lies.value : out ? -litres : litres;
  const body = { day: season.todayIso, litres: amount, why: stock.why, note: stock.note };
  const kept = await save({ ...body, mediumId: props.medium.id }, (id) =>
    call('moveStock', { params: { ...nursery.params, medium: props.medium.id }, body: { id, ...body } }),
  );
  if (!kept) return;
  yard.stock = [...yard.stock, kept];
  stock.litres = '';
  stock.note = '';
  messages.say(say`Heap kept.`);
}
const history = computed(() =>
  yard.stock
    .filter((s) => s.mediumId === props.medium.id)
    .slice(-6)
    .reverse(),
);
const whyWords = Object.fromEntries(reasons.map((r) => [r.value, r.words]));
</script>

<template>
  <section aria-labelledby="heap">
    <h2 id="heap" class="text-lg">{{ say`On hand: ${show(lies, 'volume')}` }}</h2>
    <form v-if="session.may('crew')" class="grid grid-cols-2 gap-2" novalidate @submit.prevent="move">
      <SelectField v-model="stock.why" :label="say`What happened`" :options="reasons" />
      <FormField
        v-model="stock.litres"
        :label="stock.why === 'counted' ? say`Lies there` : say`How much`"
        :unit="unit('volume')"
        inputmode="decimal"
      />
      <FormField v-model="stock.note" class="col-span-2" :label="say`Note`" />
      <SheetActs class="col-span-2" :act="say`Record`" :busy="busy" :sentence="sentence()" @save="move" />
    </form>
    <ul v-if="history.length" class="mt-2 text-[0.95rem]">
      <li v-for="h in history" :key="h.id" class="border-rule flex justify-between gap-2 border-b py-1">
        <span
          >{{ dateWords(h.day) }}: {{ whyWords[h.why]
          }}<template v-if="h.note">, {{ h.note }}</template></span
        >
        <span class="whitespace-nowrap"
          >{{ h.litres > 0 ? '+' : '−' }}{{ show(Math.abs(h.litres), 'volume') }}</span
        >
      </li>
    </ul>
    <p class="text-muted mt-1 text-sm">
      {{ say`Spent medium goes back to beds only from lots without root disease.` }}
    </p>
  </section>
</template>
