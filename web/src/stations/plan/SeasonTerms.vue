<script setup lang="ts">
import { say } from '@kauri/core';
import { useSessionStorage } from '@vueuse/core';
import { v7 as newId } from 'uuid';
import { computed, ref } from 'vue';
import { sentenceOf } from '../../api/problem';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import { typedNumber } from '../../parts/typed';
import { keptKey } from '../../stores/kept';
import { useNursery } from '../../stores/nursery';
import { useProposals } from '../../stores/proposals';
import { useSession } from '../../stores/session';
import { several } from '../../words/numbers';

/** What a season is planned with, asked before it is planned. */
const props = defineProps<{ lines: number; trees: number }>();
const nursery = useNursery();
const proposals = useProposals();
const session = useSession();
const currency = computed(() => nursery.catalogue!.prices.list.currency);
const typed = useSessionStorage(keptKey('season-terms'), {
  name: '',
  chance: '0.9',
  hours: '',
  hourCost: '15',
  treeWorth: '1',
  buyTimes: '',
  spend: '',
  seedInStore: false,
});
const chances = [
  { value: '0.8', words: say`eight times in ten` },
  { value: '0.9', words: say`nine times in ten` },
  { value: '0.95', words: say`19 times in twenty` },
];
const fault = ref<string | null>(null);
const asking = ref(false);
const may = computed(() => session.may('grower'));
const why = computed(() => {
  if (!may.value) return say`Planning a season needs the role of grower.`;
  if (props.lines === 0) return say`No order or hope is open: write one first.`;
  return proposals.isBusy ? say`A season is being planned.` : null;
});
async function plan() {
  const { name, chance, hours, hourCost, treeWorth, buyTimes, spend, seedInStore } = typed.value;
  const orOpen = (text: string) => (text.trim() === '' ? null : typedNumber(text));
  const hoursAWeek = orOpen(hours);
  if (hoursAWeek !== null && !(hoursAWeek > 0)) {
    fault.value = say`Hours a week are a number above 0, or left open.`;
    return;
  }
  if (!(typedNumber(hourCost) >= 0)) {
    fault.value = say`What an hour costs is a number, 0 or more.`;
    return;
  }
  if (!(typedNumber(treeWorth) > 0)) {
    fault.value = say`What a tree fetches is a number above 0.`;
    return;
  }
  if (orOpen(buyTimes) !== null && !(orOpen(buyTimes)! > 0)) {
    fault.value = say`What a bought tree costs is a number above 0, or left open.`;
    return;
  }
  if (orOpen(spend) !== null && !(orOpen(spend)! >= 0)) {
    fault.value = say`Money to spend is a number, 0 or more, or left open.`;
    return;
  }
  asking.value = true;
  try {
    await proposals.propose({
      id: newId(),
      name: name.trim(),
      asked: {
        chance: Number(chance),
        hoursAWeek,
        hourCost: typedNumber(hourCost),
        treeWorth: typedNumber(treeWorth),
        buyTimes: orOpen(buyTimes),
        spend: orOpen(spend),
        seedInStore,
      },
    });
    typed.value.name = '';
    fault.value = null;
  } catch (error) {
    fault.value = sentenceOf(error);
  } finally {
    asking.value = false;
  }
}
</script>

<template>
  <form class="space-y-3" novalidate @submit.prevent="plan">
    <h2 class="text-lg">{{ say`Planned with` }}</h2>
    <SelectField v-model="typed.chance" :label="say`There in time and to size`" :options="chances" />
    <FormField
      v-model="typed.hours"
      :label="say`Hours people have in a week`"
      :hint="say`For sowing and moving. Left open, they set no bound.`"
      inputmode="decimal"
    />
    <FormField v-model="typed.hourCost" :label="say`An hour costs, ${currency}`" inputmode="decimal" />
    <FormField
      v-model="typed.treeWorth"
      :label="say`A tree fetches, ${currency}`"
      :hint="say`Where its line names no price. Assumed until you say.`"
      inputmode="decimal"
    />
    <FormField
      v-model="typed.buyTimes"
      :label="say`A bought tree costs, times what it fetches`"
      :hint="say`Ready to send, such as 0.7. Left open, none are bought in.`"
      inputmode="decimal"
    />
    <FormField
      v-model="typed.spend"
      :label="say`Money to spend, ${currency}`"
      :hint="say`On seed, filling and bought trees. Left open, it sets no bound.`"
      inputmode="decimal"
    />
    <label class="flex items-center gap-2">
      <input v-model="typed.seedInStore" class="accent-leaf size-4.5" type="checkbox" />
      {{ say`Sow only seed that is in store ` }}
    </label>
    <FormField v-model="typed.name" :label="say`Name`" :hint="say`To tell plans apart.`" />
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <button class="act-main w-full justify-center" type="submit" :disabled="why !== null || asking">
      {{ say`Plan the season` }}
    </button>
    <p class="text-muted text-sm">
      <template v-if="why">{{ why }}</template>
      <template v-else>{{
        say`${several(lines, 'line')}, ${several(trees, 'tree')} still to be served.`
      }}</template>
    </p>
  </form>
</template>
