<script setup lang="ts">
import { lineStates, treeForms, type LineState, type TreeForm, say } from '@kauri/core';
import type { KeptOrder, OrderLine } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import FormDialog from '../../parts/FormDialog.vue';
import DateField from '../../parts/DateField.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { keptUnlessTyped, typedNumber } from '../../parts/typed';
import { useDraft } from '../../parts/useDraft';
import { andTheirs, useEditing } from '../../parts/useEditing';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useOrders } from '../../stores/orders';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { fieldWords, formWords, lineStateWords } from './orderWords';

/** Writes an order or a hope, or changes one. */
const props = defineProps<{ order?: KeptOrder }>();
const emit = defineEmits<{ close: [] }>();
const nursery = useNursery();
const orders = useOrders();
const season = useSeason();
const messages = useMessages();
const router = useRouter();
const { shown, typed, unit } = usePreferences();

interface TypedLine {
  id: string;
  speciesId: string;
  provenance: string;
  form: TreeForm;
  from: string;
  to: string;
  count: string;
  sent: string;
  on: string;
  until: string;
  goesTo: string;
  price: string;
  state: LineState;
}
const { order } = props;
const asTyped = (value: number | null) => (value === null ? '' : String(value));
const heightText = (cm: number) => String(Number(shown(cm, 'height').toFixed(1)));
const heightShown = (cm: number | null) => (cm === null ? '' : heightText(cm));
const typedLine = (line: OrderLine): TypedLine => ({
  id: line.id,
  speciesId: line.speciesId,
  provenance: line.provenance,
  form: line.form,
  from: heightShown(line.fromCm),
  to: heightShown(line.toCm),
  count: String(line.count),
  sent: String(line.sent),
  on: line.on,
  until: line.until,
  goesTo: line.goesTo,
  price: asTyped(line.price),
  state: line.state,
});
const blankLine = (like?: TypedLine): TypedLine => ({
  id: newId(),
  speciesId: like?.speciesId ?? nursery.catalogue!.species[0].id,
  provenance: '',
  form: like?.form ?? 'bare-root',
  from: like?.from ?? '',
  to: like?.to ?? '',
  count: '',
  sent: '0',
  on: like?.on ?? season.todayIso,
  until: like?.until ?? '',
  goesTo: like?.goesTo ?? '',
  price: '',
  state: like?.state ?? 'asked',
});
const key = `order.${order?.id ?? 'new'}`;
const { draft, clear } = useDraft(key, {
  buyer: order?.buyer ?? '',
  reach: order?.reach ?? '',
  note: order?.note ?? '',
  lines: order ? order.lines.map(typedLine) : [blankLine()],
});
const edited = ({ version, buyer, reach, note, lines }: KeptOrder) => ({
  version,
  body: { buyer, reach, note, lines },
});
const { busy, both, save, sentence, wrong } = useEditing(
  key,
  order ? edited(order) : { version: 0, body: {} as ReturnType<typeof edited>['body'] },
  (current) => edited(current as KeptOrder),
);

const optional = (text: string) => (text.trim() === '' ? null : typedNumber(text));
const linesBefore = new Map(order?.lines.map((line) => [line.id, line]));
const height = (text: string, was: number | null | undefined) =>
  keptUnlessTyped(text, was, heightText, (value) => typed(value, 'height'));
const lineOf = (line: TypedLine): OrderLine => ({
  id: line.id,
  speciesId: line.speciesId,
  provenance: line.provenance,
  form: line.form,
  fromCm: height(line.from, linesBefore.get(line.id)?.fromCm),
  toCm: height(line.to, linesBefore.get(line.id)?.toCm),
  count: typedNumber(line.count),
  sent: typedNumber(line.sent || '0'),
  on: line.on,
  until: line.until || line.on,
  goesTo: line.goesTo,
  price: optional(line.price),
  state: line.state,
  lots: linesBefore.get(line.id)?.lots ?? [],
});
async function keep() {
  const { buyer, reach, note, lines } = draft.value;
  let id = order?.id ?? '';
  const kept = await save({ buyer, reach, note, lines: lines.map(lineOf) }, async (given, version, body) => {
    if (order) await orders.edit(order.id, { ...body, version });
    else {
      id = given;
      await orders.add(given, [{ ...body, id }]);
    }
    return true;
  });
  if (kept === null) return;
  clear();
  messages.say(order ? say`Order changed${kept.together ? andTheirs() : ''}.` : say`Order kept.`);
  emit('close');
  if (!order) await router.replace({ name: 'plan', params: { order: id } });
}
/** What both changed, by the words of the form. */
const bothWords = computed(() =>
  both.value.map((path) => {
    const [part, id, field] = path.split('.');
    if (part !== 'lines') return fieldWords[part] ?? part;
    const at = draft.value.lines.findIndex((line) => line.id === id) + 1;
    return say`${field ? (fieldWords[field] ?? field) : say`all`} of ${at ? say`line ${at}` : say`a line taken away`}`;
  }),
);
const speciesOptions = nursery.catalogue!.species.map((s) => ({
  value: s.id,
  words: `${s.common}, ${s.latin}`,
}));
const formOptions = treeForms.map((value) => ({ value, words: formWords[value] }));
const stateOptions = lineStates.map((value) => ({ value, words: lineStateWords[value] }));
</script>

<template>
  <FormDialog
    :title="order ? say`Change the order` : say`Write an order`"
    :subtitle="say`Without a buyer it is a hope: stock for sale, or planting of your own.`"
    wide
    @close="emit('close')"
  >
    <form class="space-y-4" novalidate @submit.prevent="keep">
      <div class="grid gap-3 sm:grid-cols-2">
        <FormField v-model="draft.buyer" :label="say`Buyer`" :fault="wrong('buyer')" />
        <FormField v-model="draft.reach" :label="say`How to reach them`" :fault="wrong('reach')" />
      </div>
      <fieldset v-for="(line, i) in draft.lines" :key="line.id" class="panel space-y-3 p-3">
        <legend class="px-1 font-bold">{{ say`Line ${i + 1}` }}</legend>
        <div class="grid grid-cols-2 gap-3 md:grid-cols-4">
          <SelectField
            v-model="line.speciesId"
            class="col-span-2"
            :label="say`Species ${i + 1}`"
            :options="speciesOptions"
          />
          <FormField
            v-model="line.count"
            :label="say`Trees ${i + 1}`"
            inputmode="numeric"
            :fault="wrong(`lines.${i}.count`)"
          />
          <SelectField v-model="line.form" :label="say`Form ${i + 1}`" :options="formOptions" />
          <FormField
            v-model="line.from"
            :label="say`Size from ${i + 1}`"
            :unit="unit('height')"
            inputmode="decimal"
            :fault="wrong(`lines.${i}.fromCm`)"
          />
          <FormField
            v-model="line.to"
            :label="say`Size to ${i + 1}`"
            :unit="unit('height')"
            inputmode="decimal"
            :fault="wrong(`lines.${i}.toCm`)"
          />
          <DateField v-model="line.on" :label="say`Wanted on ${i + 1}`" :fault="wrong(`lines.${i}.on`)" />
          <DateField
            v-model="line.until"
            :label="say`Last day ${i + 1}`"
            :hint="line.until ? undefined : say`Blank: that day`"
            :fault="wrong(`lines.${i}.until`)"
          />
          <SelectField v-model="line.state" :label="say`How far ${i + 1}`" :options="stateOptions" />
          <FormField
            v-model="line.sent"
            :label="say`Sent ${i + 1}`"
            inputmode="numeric"
            :fault="wrong(`lines.${i}.sent`)"
          />
          <FormField
            v-model="line.price"
            :label="say`Price of one ${i + 1}`"
            inputmode="decimal"
            :fault="wrong(`lines.${i}.price`)"
          />
          <FormField
            v-model="line.provenance"
            :label="say`Seed from ${i + 1}`"
            :fault="wrong(`lines.${i}.provenance`)"
          />
          <FormField
            v-model="line.goesTo"
            class="col-span-2"
            :label="say`Goes to ${i + 1}`"
            :hint="say`Dry, rock, wet, browsed`"
            :fault="wrong(`lines.${i}.goesTo`)"
          />
        </div>
        <button v-if="draft.lines.length > 1" class="quiet" type="button" @click="draft.lines.splice(i, 1)">
          {{ say`Remove line ${i + 1}` }}
        </button>
      </fieldset>
      <button class="act" type="button" @click="draft.lines.push(blankLine(draft.lines.at(-1)))">
        {{ say`Another line` }}
      </button>
      <FormField v-model="draft.note" :label="say`Note`" :fault="wrong('note')" />
      <p v-if="both.length" class="panel p-3" data-testid="theirs">
        <b>{{ say`Changed meanwhile by someone else too:` }}</b>
        {{
          say`${bothWords.join(', ')}. Keep the order again to put yours over that; whatever else they changed stays.`
        }}
      </p>
      <SheetActs :act="say`Keep the order`" :busy="busy" :sentence="sentence()" @save="keep" />
    </form>
  </FormDialog>
</template>
