<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core';
import { computed, ref } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import { typedNumber } from '../../../parts/typed';
import { makePdf, offerFile } from '../../../print/pdf';
import { useNursery } from '../../../stores/nursery';
import { useSeed } from '../../../stores/seed';
import { dateWords } from '../../../words/dates';
import { begunWords } from '../../../words/seed';
import { count, several } from '../../../words/numbers';
import { labelSheets, labelStocks, singleLabel, type Label } from '../../../print/labels';
import LostLabel from './LostLabel.vue';
import { keptKey } from '../../../stores/kept';

const nursery = useNursery();
const seed = useSeed();
const route = useRoute();
const asked = useSessionStorage(keptKey('labels'), { stock: '0', used: '0', find: '' });
const stock = computed(() => labelStocks[Number(asked.value.stock)] ?? labelStocks[0]);

const rows = computed(() => {
  const words = asked.value.find.toLowerCase().split(/\s+/).filter(Boolean);
  return [...nursery.lots.values()]
    .filter((lot) => lot.held.sown + lot.held.standing > 0)
    .map((lot) => {
      const species = seed.speciesOf(lot.speciesId);
      const provenance =
        lot.seedLotId === null ? '' : (seed.lotById.get(lot.seedLotId)?.provenance.place ?? '');
      const place = nursery.lookup.places.get(lot.stage.placeId)?.place.name ?? '';
      const label: Label = {
        code: lot.code,
        species: species.common,
        latin: species.latin,
        provenance,
        sownOn: `${begunWords[lot.origin]} ${dateWords(lot.sownOn)}`,
        count: lot.held.standing ? `${count(lot.held.standing)} trees` : `${count(lot.held.sown)} seeds`,
        address: `${location.origin}/grow/${lot.id}`,
      };
      return { lot, label, place, wet: place === '' };
    })
    .filter(({ label, place }) =>
      words.every((w) => `${label.code} ${label.species} ${place}`.toLowerCase().includes(w)),
    )
    .sort((a, b) => b.lot.sownOn.localeCompare(a.lot.sownOn) || a.lot.code.localeCompare(b.lot.code));
});
const chosen = ref<Record<string, string>>(
  Object.fromEntries(
    [route.query.lot ?? []].flat().flatMap((id) => (id !== null && nursery.lots.has(id) ? [[id, '1']] : [])),
  ),
);
const picked = computed(() =>
  rows.value
    .map((row) => ({ ...row, copies: typedNumber(chosen.value[row.lot.id] ?? '') }))
    .filter((row) => chosen.value[row.lot.id] !== undefined && chosen.value[row.lot.id].trim() !== ''),
);
const fault = computed(() => {
  const wrong = picked.value.find(
    (row) => !(Number.isInteger(row.copies) && row.copies >= 1 && row.copies <= 500),
  );
  if (wrong) return `${wrong.label.code}: 1 to 500 labels.`;
  const lost = picked.value.find((row) => row.wet);
  if (lost) return `${lost.label.code} has no place: give it one first, or the label leads nowhere.`;
  const used = typedNumber(asked.value.used);
  const most = stock.value.columns * stock.value.rows - 1;
  return Number.isInteger(used) && used >= 0 && used <= most ? null : `Labels used already: 0 to ${most}.`;
});
const total = computed(() => picked.value.reduce((t, row) => t + (row.copies || 0), 0));
async function sheets() {
  const pdf = await makePdf(
    labelSheets(
      picked.value.map((row) => row.label),
      picked.value.map((row) => row.copies),
      stock.value,
      typedNumber(asked.value.used),
    ),
  );
  offerFile('labels.pdf', pdf, 'application/pdf');
}
async function single(label: Label) {
  offerFile(`label-${label.code}.pdf`, await makePdf(singleLabel(label, stock.value)), 'application/pdf');
}
const toggle = (id: string) => {
  if (chosen.value[id] === undefined) chosen.value[id] = '1';
  else delete chosen.value[id];
};
const stocks = labelStocks.map((s, i) => ({ value: String(i), words: s.name }));
</script>

<template>
  <div class="grid gap-6 p-4 md:p-5 xl:grid-cols-[1fr_24rem]">
    <section class="space-y-3" aria-labelledby="labels">
      <h1 id="labels" class="text-2xl">Labels</h1>
      <div class="grid gap-3 sm:grid-cols-[1fr_1fr_8rem]">
        <FormField v-model="asked.find" label="Lots" hint="Code, species or place" />
        <SelectField v-model="asked.stock" label="Label" :options="stocks" />
        <FormField v-model="asked.used" label="Used already" inputmode="numeric" />
      </div>
      <div class="flex flex-wrap items-center gap-3">
        <button class="act-main" type="button" :disabled="!total || fault !== null" @click="sheets">
          Print {{ several(total, 'label') }}
        </button>
        <p v-if="fault && picked.length" class="font-bold" role="status">{{ fault }}</p>
        <p v-else class="text-muted">Each code leads to its lot when a phone reads it.</p>
      </div>
      <table class="w-full text-[0.95rem]" data-testid="label-lots">
        <caption class="sr-only">
          Lots to label
        </caption>
        <tbody>
          <tr v-for="row in rows" :key="row.lot.id" class="border-rule border-t">
            <td class="py-1 pr-2">
              <label class="flex min-h-11 items-center gap-3">
                <input
                  type="checkbox"
                  class="accent-ink size-5"
                  :checked="chosen[row.lot.id] !== undefined"
                  @change="toggle(row.lot.id)"
                />
                <span
                  ><b>{{ row.label.code }}</b> {{ row.label.species }}
                  <span class="text-muted block text-sm"
                    >{{ row.place }}, {{ row.label.sownOn }}, {{ row.label.count }}</span
                  ></span
                >
              </label>
            </td>
            <td class="w-24">
              <input
                v-if="chosen[row.lot.id] !== undefined"
                v-model="chosen[row.lot.id]"
                class="field"
                inputmode="numeric"
                :aria-label="`Labels of ${row.label.code}`"
              />
            </td>
            <td class="w-28 text-right">
              <button
                class="quiet"
                type="button"
                :aria-label="`One label of ${row.label.code}`"
                @click="single(row.label)"
              >
                One label
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="!rows.length" class="text-muted">
        No lot by that name stands or lies sown.
        <RouterLink class="quiet" :to="{ name: 'seed-desk' }">Sow one</RouterLink>
      </p>
    </section>
    <LostLabel />
  </div>
</template>
