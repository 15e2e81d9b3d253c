<script setup lang="ts">
import { say } from '@kauri/core';
import { useSessionStorage } from '@vueuse/core';
import { computed, onMounted, ref } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import { typedNumber } from '../../../parts/typed';
import { useSaving } from '../../../parts/useSaving';
import { makePdf, offerFile } from '../../../print/pdf';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSession } from '../../../stores/session';
import { count, several } from '../../../words/numbers';
import { useLabelAddress } from '../../../print/labelAddress';
import { labelSheets, labelStocks, singleLabel, type Label } from '../../../print/labels';
import { labelKinds, labelKindWords, useLabelled, type LabelKind } from './labelKinds';
import LostLabel from './LostLabel.vue';
import { keptKey } from '../../../stores/kept';

const nursery = useNursery();
const session = useSession();
const { show } = usePreferences();
const route = useRoute();
const asked = useSessionStorage(
  keptKey('labels'),
  {
    of: 'lots' as LabelKind,
    stock: '0',
    used: '0',
    find: '',
  },
  { mergeDefaults: true },
);
const stock = computed(() => labelStocks[Number(asked.value.stock)] ?? labelStocks[0]);

const labelled = useLabelled();
const labelAddress = useLabelAddress();
onMounted(() => labelAddress.load().catch(() => undefined));
const rows = computed(() => {
  const words = asked.value.find.toLowerCase().split(/\s+/).filter(Boolean);
  return labelled(asked.value.of).filter(({ label, where }) =>
    words.every((w) => `${label.code} ${label.species} ${where}`.toLowerCase().includes(w)),
  );
});
const chosen = ref<Record<string, string>>(
  Object.fromEntries(
    [route.query.lot ?? []].flat().flatMap((id) => (id !== null && nursery.lots.has(id) ? [[id, '1']] : [])),
  ),
);
if (route.query.lot !== undefined) asked.value.of = 'lots';
const ofOptions = labelKinds.map((value) => ({ value, words: labelKindWords[value] }));
/** The address that labels bear, while it is being changed. */
const addressTyped = ref<string | null>(null);
const { busy, save, sentence, wrong } = useSaving('labels.address');
const isLoopback = computed(() => /^https?:\/\/(127\.|localhost|\[::1)/.test(labelAddress.at('')));
const changeAddress = () => void (addressTyped.value = labelAddress.address);
async function keepAddress() {
  const to = addressTyped.value ?? '';
  const kept = await save({ to }, () => labelAddress.set(to).then(() => true));
  if (kept) addressTyped.value = null;
}
const picked = computed(() =>
  rows.value
    .map((row) => ({ ...row, copies: typedNumber(chosen.value[row.id] ?? '') }))
    .filter((row) => chosen.value[row.id] !== undefined && chosen.value[row.id].trim() !== ''),
);
const fault = computed(() => {
  const wrong = picked.value.find(
    (row) => !(Number.isInteger(row.copies) && row.copies >= 1 && row.copies <= 500),
  );
  if (wrong) return say`${wrong.label.code}: 1 to 500 labels.`;
  const lost = picked.value.find((row) => row.lost !== null);
  if (lost) return lost.lost;
  const used = typedNumber(asked.value.used);
  const most = stock.value.columns * stock.value.rows - 1;
  return Number.isInteger(used) && used >= 0 && used <= most ? null : say`Labels used already: 0 to ${most}.`;
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
const stocks = computed(() =>
  labelStocks.map(({ name, widthMm, heightMm, columns, rows }, i) => ({
    value: String(i),
    words: say`${name}, ${show(widthMm, 'timber')} × ${show(heightMm, 'timber')}, ${count(columns * rows)} a sheet`,
  })),
);
</script>

<template>
  <div class="grid gap-6 p-4 md:p-5 xl:grid-cols-[1fr_24rem]">
    <section class="space-y-3" aria-labelledby="labels">
      <h1 id="labels" class="text-2xl">{{ say`Labels` }}</h1>
      <div class="grid gap-3 sm:grid-cols-2 lg:grid-cols-[1fr_1fr_1fr_8rem]">
        <SelectField v-model="asked.of" :label="say`Labels of`" :options="ofOptions" />
        <FormField v-model="asked.find" :label="say`Among them`" :hint="say`Code, species or place`" />
        <SelectField v-model="asked.stock" :label="say`Label`" :options="stocks" />
        <FormField v-model="asked.used" :label="say`Used already`" inputmode="numeric" />
      </div>
      <div class="flex flex-wrap items-center gap-3">
        <button class="act-main" type="button" :disabled="!total || fault !== null" @click="sheets">
          {{ say`Print ${several(total, 'label')}` }}
        </button>
        <p v-if="fault && picked.length" class="font-bold" role="status">{{ fault }}</p>
        <p v-else class="text-muted">
          {{ say`Each code leads to what it stands on when a phone reads it.` }}
        </p>
      </div>
      <p
        v-if="labelAddress.loaded && addressTyped === null"
        class="text-muted flex flex-wrap items-center gap-x-2"
      >
        {{ say`Codes lead to ${labelAddress.at('')}.` }}
        <template v-if="isLoopback">{{
          say`Phones cannot reach that; Kauri’s own reader does without.`
        }}</template>
        <button v-if="session.may('grower')" class="quiet" type="button" @click="changeAddress">
          {{ say`Another address` }}
        </button>
      </p>
      <form
        v-else-if="addressTyped !== null"
        class="flex max-w-xl flex-wrap items-end gap-3"
        novalidate
        @submit.prevent="keepAddress"
      >
        <FormField
          v-model="addressTyped"
          class="grow"
          :label="say`Kauri’s address, as phones reach it`"
          placeholder="https://kauri.example"
          :hint="say`Blank for the one it is open at now.`"
          :fault="wrong('words.address') ?? sentence()"
        />
        <button class="act" type="submit" :disabled="busy">{{ say`Keep it` }}</button>
      </form>
      <table class="w-full text-[0.95rem]" data-testid="label-lots">
        <caption class="sr-only">
          {{
            say`What to label`
          }}
        </caption>
        <tbody>
          <tr v-for="row in rows" :key="row.id" class="border-rule border-t">
            <td class="py-1 pr-2">
              <label class="flex min-h-11 items-center gap-3">
                <input
                  type="checkbox"
                  class="accent-ink size-5"
                  :checked="chosen[row.id] !== undefined"
                  @change="toggle(row.id)"
                />
                <span
                  ><b>{{ row.label.code }}</b> {{ row.label.species }}
                  <span class="text-muted block text-sm">{{
                    [row.where, row.label.sownOn, row.label.count].filter(Boolean).join(', ')
                  }}</span></span
                >
              </label>
            </td>
            <td class="w-24">
              <input
                v-if="chosen[row.id] !== undefined"
                v-model="chosen[row.id]"
                class="field"
                inputmode="numeric"
                :aria-label="say`Labels of ${row.label.code}`"
              />
            </td>
            <td class="w-28 text-right">
              <button
                class="quiet"
                type="button"
                :aria-label="say`One label of ${row.label.code}`"
                @click="single(row.label)"
              >
                {{ say`One label` }}
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="!rows.length" class="text-muted">
        <template v-if="asked.of === 'lots'">
          {{ say` No lot by that name stands or lies sown.` }}
          <RouterLink class="quiet" :to="{ name: 'seed-desk' }">{{ say`Sow one` }}</RouterLink>
        </template>
        <template v-else>{{ say`Nothing by that name is here.` }}</template>
      </p>
    </section>
    <LostLabel />
  </div>
</template>
