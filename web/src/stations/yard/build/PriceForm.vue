<script setup lang="ts">
import { say } from '@kauri/core';
import type { PriceList } from '@kauri/core';
import { ref, watch } from 'vue';
import { call } from '../../../api/client';
import FormField from '../../../parts/FormField.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import { typedNumber } from '../../../parts/typed';
import { useSaving } from '../../../parts/useSaving';
import { useMessages } from '../../../stores/messages';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';

/** What things cost here, and the sizes they are sold in. */
const nursery = useNursery();
const messages = useMessages();
const { shown, typed, unit } = usePreferences();
const { busy, save, sentence } = useSaving('prices');
const form = ref<Record<string, string>>({});
const text = (n: number) => String(Number(n.toFixed(3)));
watch(
  () => nursery.catalogue!.prices,
  ({ list: p }) => {
    const mm = (values: readonly number[]) => values.map((v) => text(shown(v, 'timber'))).join('; ');
    form.value = {
      currency: p.currency,
      treated: text(shown(p.timberPerM3.treated, 'perVolume')),
      durable: text(shown(p.timberPerM3.durable, 'perVolume')),
      scrap: text(shown(p.timberPerM3.scrap, 'perVolume')),
      lengths: mm(p.boardLengthsMm),
      rolls: mm(p.rollWidthsMm),
      kerf: text(shown(p.kerfMm, 'timber')),
      mesh: text(shown(p.meshPerM2, 'perArea')),
      grid: text(shown(p.gridPerM2, 'perArea')),
      cloth: text(shown(p.clothPerM2, 'perArea')),
      bracket: text(p.bracket),
      screw: text(p.screw),
      staple: text(p.staple),
    };
  },
  { immediate: true },
);
async function keep() {
  const f = form.value;
  const n = (key: string) => typedNumber(f[key]);
  const list = (key: string) => f[key].split(';').map((part) => typed(typedNumber(part), 'timber'));
  const before = nursery.catalogue!.prices;
  const next: PriceList = {
    ...before.list,
    currency: f.currency,
    timberPerM3: {
      treated: typed(n('treated'), 'perVolume'),
      durable: typed(n('durable'), 'perVolume'),
      scrap: typed(n('scrap'), 'perVolume'),
    },
    boardLengthsMm: list('lengths'),
    rollWidthsMm: list('rolls'),
    kerfMm: typed(n('kerf'), 'timber'),
    meshPerM2: typed(n('mesh'), 'perArea'),
    gridPerM2: typed(n('grid'), 'perArea'),
    clothPerM2: typed(n('cloth'), 'perArea'),
    bracket: n('bracket'),
    screw: n('screw'),
    staple: n('staple'),
  };
  const kept = await save({ next }, () =>
    call('setPrices', { params: nursery.params, body: { version: before.version, list: next } }),
  );
  if (!kept) return;
  nursery.takeCatalogue({ prices: kept });
  messages.say(say`Prices kept.`);
}
</script>

<template>
  <form class="grid grid-cols-2 gap-2" novalidate @submit.prevent="keep">
    <FormField v-model="form.currency" :label="say`Money`" />
    <FormField v-model="form.kerf" :label="say`Saw cut`" :unit="unit('timber')" inputmode="decimal" />
    <FormField
      v-model="form.lengths"
      class="col-span-2"
      :label="say`Board lengths sold`"
      :unit="unit('timber')"
      :hint="say`Parted by ;`"
    />
    <FormField
      v-model="form.rolls"
      class="col-span-2"
      :label="say`Roll widths sold`"
      :unit="unit('timber')"
      :hint="say`Parted by ;`"
    />
    <FormField
      v-model="form.durable"
      :label="say`Durable timber`"
      :unit="unit('perVolume')"
      inputmode="decimal"
    />
    <FormField
      v-model="form.treated"
      :label="say`Treated timber`"
      :unit="unit('perVolume')"
      inputmode="decimal"
    />
    <FormField v-model="form.scrap" :label="say`Scrap`" :unit="unit('perVolume')" inputmode="decimal" />
    <FormField v-model="form.mesh" :label="say`Mesh`" :unit="unit('perArea')" inputmode="decimal" />
    <FormField v-model="form.grid" :label="say`Grid`" :unit="unit('perArea')" inputmode="decimal" />
    <FormField v-model="form.cloth" :label="say`Cloth`" :unit="unit('perArea')" inputmode="decimal" />
    <FormField v-model="form.bracket" :label="say`Bracket`" inputmode="decimal" />
    <FormField v-model="form.screw" :label="say`Screw`" inputmode="decimal" />
    <FormField v-model="form.staple" :label="say`Staple`" inputmode="decimal" />
    <SheetActs class="col-span-2" :act="say`Keep prices`" :busy="busy" :sentence="sentence()" @save="keep" />
  </form>
</template>
