<script setup lang="ts">
import { yearWorth, say } from '@kauri/core';
import { computed, ref } from 'vue';
import { sentenceOf } from '../../api/problem';
import EmptyState from '../../parts/EmptyState.vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import DateField from '../../parts/DateField.vue';
import { makePdf, offerFile } from '../../print/pdf';
import { useNursery } from '../../stores/nursery';
import { useSeason } from '../../stores/season';
import { causeWords } from '../../words/causes';
import { dateWords } from '../../words/dates';
import { count, percent, several } from '../../words/numbers';
import { money } from '../../words/money';
import BarRows from './BarRows.vue';
import { useYear } from './useYear';
import { cullsSay, livingSay, lossRows, ordersSay, sumRows, worthSay, yearPaper } from './yearPaper';

/** What a year came to: seed to living tree by the ledger, orders, what was lost, what lived; on four pages of paper too. */
const nursery = useNursery();
const season = useSeason();
const { from, until, show, year, fault, sums, species, orderLines, met, lived, suppliers, background } =
  useYear();
const currency = computed(() => nursery.catalogue!.prices.list.currency);
const speciesName = (id: string) => nursery.lookup.species.get(id)?.common ?? say`a species taken out since`;
const livedOf = (id: string) => lived.value.find(({ group }) => group === id);
const worth = computed(
  () =>
    sums.value &&
    yearWorth(sums.value, { priced: met.value.sent - met.value.unpriced, fetched: met.value.fetched }),
);
const printFault = ref<string | null>(null);
async function print() {
  printFault.value = null;
  try {
    const { name, placeName } = nursery.catalogue!.nursery;
    const paper = yearPaper({
      nursery: [name, placeName].filter(Boolean).join(', '),
      from: dateWords(from.value),
      until: dateWords(until.value),
      sums: sums.value!,
      species: species.value.map(({ speciesId, sums: of }) => ({
        name: speciesName(speciesId),
        sums: of,
        lived: livedOf(speciesId) ?? null,
      })),
      orders: met.value,
      lines: orderLines.value.map(({ order, line }) => ({
        on: dateWords(line.on),
        buyer: order.buyer,
        what: `${count(line.count)} ${speciesName(line.speciesId)}`,
        sent: count(line.sent),
        worth: line.price === null ? '' : money(line.sent * line.price, currency.value),
      })),
      suppliers: suppliers.value,
      money: (amount) => money(amount, currency.value),
      worth: worth.value?.value ?? null,
    });
    offerFile(`year-${from.value}-${until.value}.pdf`, await makePdf(paper), 'application/pdf');
  } catch (error) {
    printFault.value = sentenceOf(error);
  }
}
const heads = [say`Sown`, say`Came up`, say`Lifted`, say`Sent`, say`Planted`, say`Lost, culled`, say`Stand`];
</script>

<template>
  <div class="max-w-5xl space-y-6 p-4 md:p-6">
    <header class="flex flex-wrap items-end gap-x-4 gap-y-2">
      <h1 class="mr-auto text-2xl">{{ say`The year` }}</h1>
      <DateField
        :model-value="from"
        :label="say`From`"
        :max="until"
        @update:model-value="(day: string) => day && show({ from: day })"
      />
      <DateField
        :model-value="until"
        :label="say`Until`"
        :max="season.todayIso"
        @update:model-value="(day: string) => day && show({ until: day })"
      />
      <button v-if="sums && background.ready.value" class="act-main" type="button" @click="print">
        {{ say`Report on paper` }}
      </button>
    </header>
    <p v-if="fault ?? printFault" class="text-wrong font-bold" role="alert">{{ fault ?? printFault }}</p>
    <p v-if="!year || !sums" class="text-muted" role="status">{{ say`Adding the ledger up …` }}</p>
    <EmptyState v-else-if="!year.flows.length && !sums.standing" :title="say`Nothing moved in these days`">
      {{ say`The ledger of these days is empty: choose others above.` }}
    </EmptyState>
    <template v-else>
      <section aria-labelledby="year-sums">
        <h2 id="year-sums" class="mb-2 text-lg">{{ say`From seed to where they are` }}</h2>
        <BarRows data-testid="year-sums" :rows="sumRows(sums)" />
        <p class="text-muted mt-2">
          {{
            say`${count(sums.standingBefore)} stood and ${count(sums.lyingBefore)} lay lifted when it began; ${count(sums.standing)} stand and ${count(sums.lying)} lie lifted at its end.`
          }}
          <template v-if="sums.apart">{{
            say`${several(sums.apart, 'tree')} became lots of their own, pricked out or set apart: they are counted where they went.`
          }}</template>
        </p>
      </section>
      <section v-if="sums.gone.length" aria-labelledby="year-lost">
        <h2 id="year-lost" class="mb-2 text-lg">{{ say`Gone otherwise` }}</h2>
        <BarRows
          :rows="lossRows(sums).map(({ cause, count: n }) => ({ words: causeWords(cause), count: n }))"
        />
        <p v-if="sums.culledFor.length" class="mt-2" data-testid="year-culls">{{ cullsSay(sums) }}</p>
        <template v-if="worth && worth.value.lost.trees + worth.value.culled.trees">
          <p class="mt-2" data-testid="year-cost">
            {{ worthSay(worth.value, (amount) => money(amount, currency)) }}
          </p>
          <ShowWorking :steps="worth.working" />
        </template>
      </section>
      <section aria-labelledby="year-orders">
        <h2 id="year-orders" class="mb-2 text-lg">{{ say`Orders wanted in these days` }}</h2>
        <p data-testid="year-orders">{{ ordersSay(met, (amount) => money(amount, currency)) }}</p>
      </section>
      <section aria-labelledby="year-species">
        <h2 id="year-species" class="mb-2 text-lg">{{ say`By species` }}</h2>
        <div class="overflow-x-auto">
          <table class="w-full text-right tabular-nums" data-testid="year-species">
            <thead>
              <tr class="border-rule border-b">
                <th class="py-1.5 pr-3 text-left" scope="col">{{ say`Species` }}</th>
                <th v-for="head in heads" :key="head" class="px-2" scope="col">
                  {{ head }}
                </th>
                <th class="pl-2" scope="col">{{ say`Live once planted` }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="{ speciesId, sums: had } in species" :key="speciesId" class="border-rule border-b">
                <th class="py-1.5 pr-3 text-left font-bold" scope="row">{{ speciesName(speciesId) }}</th>
                <td class="px-2">{{ count(had.sown) }}</td>
                <td class="px-2">{{ count(had.up) }}</td>
                <td class="px-2">{{ count(had.lifted) }}</td>
                <td class="px-2">{{ count(had.sent) }}</td>
                <td class="px-2">{{ count(had.planted) }}</td>
                <td class="px-2">{{ count(had.gone.reduce((t, one) => t + one.count, 0)) }}</td>
                <td class="px-2">{{ count(had.standing) }}</td>
                <td class="pl-2 whitespace-nowrap">
                  <template v-if="livedOf(speciesId)">{{
                    say`${percent(livedOf(speciesId)!.lower)} to ${percent(livedOf(speciesId)!.upper)}`
                  }}</template><span v-else class="text-muted">{{ say`not walked` }}</span>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>
      <section v-if="suppliers.length" aria-labelledby="year-suppliers">
        <h2 id="year-suppliers" class="mb-2 text-lg">{{ say`Bought in` }}</h2>
        <ul class="divide-rule border-rule divide-y border-y" data-testid="year-suppliers">
          <li v-for="one in suppliers" :key="one.supplier" class="py-2">
            <b>{{ one.supplier }}</b>{{ say`: ${count(one.taken)} of ${count(one.came)} taken`
            }}<template v-if="one.paid !== null">{{ say`, ${money(one.paid, currency)} each` }}</template
            >.
            <template v-if="one.lived">{{ livingSay(one, (amount) => money(amount, currency)) }}</template>
            <span v-else class="text-muted">{{ say`None of theirs was planted and walked yet.` }}</span>
          </li>
        </ul>
      </section>
      <p class="text-muted max-w-3xl">
        {{
          say`Counted by the ledger: what was taken back never was. What was raised here costs by its route: see Beds or pots in Plan. Living trees are those that the last walks found; shares hold nine times in ten.`
        }}
      </p>
    </template>
  </div>
</template>
