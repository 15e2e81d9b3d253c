<script setup lang="ts">
import { cuttingDoubts, cuttingKinds, cuttingLength, dayOf, type CuttingKind, say } from '@kauri/core';
import type { StockBed } from '@kauri/core/contract';
import { computed } from 'vue';
import EntryFields from '../../../parts/EntryFields.vue';
import FormDialog from '../../../parts/FormDialog.vue';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import { typedNumber } from '../../../parts/typed';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSeason } from '../../../stores/season';
import { cuttingWords } from '../../../words/seed';
import { several } from '../../../words/numbers';
import { useSeedAct } from '../useSeedAct';

const props = defineProps<{ bed: StockBed; left: number }>();
const nursery = useNursery();
const emit = defineEmits<{ close: [] }>();
const season = useSeason();
const { show, unit, typed } = usePreferences();
const { draft, busy, sentence, wrong, send } = useSeedAct(
  'cutStockBed',
  { stockBed: props.bed.id },
  {
    kind: 'hard' as CuttingKind,
    cuttings: '',
    nodes: '3',
    internode: '',
    bundle: '25',
    hormone: '',
    medium: '',
    on: season.todayIso,
    note: '',
  },
);
const length = computed(() => {
  const apart =
    draft.value.internode.trim() === '' ? 60 : typed(typedNumber(draft.value.internode), 'timber');
  try {
    return { ...cuttingLength({ nodes: typedNumber(draft.value.nodes), internodeMm: apart }), fault: null };
  } catch (error) {
    return { lengthMm: 0, inMediumMm: 0, fault: error instanceof Error ? error.message : String(error) };
  }
});
const bundles = computed(() =>
  Math.ceil(typedNumber(draft.value.cuttings) / typedNumber(draft.value.bundle)),
);
const asked = computed(() => {
  const { kind, cuttings, on } = draft.value;
  if (!/^\d{4}-\d\d-\d\d$/.test(on)) return [];
  const taken = cuttings.trim() === '' ? 0 : typedNumber(cuttings);
  return cuttingDoubts(kind, taken, props.left, dayOf(on), nursery.catalogue!.nursery.latitudeDeg).map(
    (doubt) =>
      doubt.why === 'more than it gives'
        ? say`Is the number right? The bed is reckoned to give ${several(doubt.gives, 'more cutting')} this season.`
        : say`Is the kind right? ${cuttingWords[doubt.kind]} is not usually taken at this time of the year.`,
  );
});
async function save() {
  const { kind, cuttings, nodes, bundle, hormone, medium, on, note } = draft.value;
  const body = {
    kind,
    cuttings: typedNumber(cuttings),
    nodes: typedNumber(nodes),
    bundle: bundle.trim() === '' ? null : typedNumber(bundle),
    hormone,
    medium,
    on,
    note,
  };
  if (await send(body, say`${cuttings} cuttings of ${props.bed.name} written down.`, { undo: true }))
    emit('close');
}
const kinds = cuttingKinds.map((value) => ({ value, words: cuttingWords[value] }));
</script>

<template>
  <FormDialog :title="say`Take cuttings`" :subtitle="bed.name" @close="emit('close')">
    <form class="space-y-3" novalidate @submit.prevent="save">
      <SelectField v-model="draft.kind" :label="say`Kind`" :options="kinds" />
      <div class="grid grid-cols-2 gap-3">
        <FormField
          v-model="draft.cuttings"
          :label="say`Cuttings taken`"
          inputmode="numeric"
          :fault="wrong('cuttings')"
        />
        <FormField
          v-model="draft.bundle"
          :label="say`In bundles of`"
          inputmode="numeric"
          :hint="bundles > 0 ? several(bundles, 'bundle') : undefined"
          :fault="wrong('bundle')"
        />
        <FormField v-model="draft.nodes" :label="say`Nodes`" inputmode="numeric" :fault="wrong('nodes')" />
        <FormField
          v-model="draft.internode"
          :label="say`Between nodes`"
          :unit="unit('timber')"
          inputmode="decimal"
          :hint="say`Blank: usual`"
        />
        <FormField
          v-model="draft.hormone"
          :label="say`Hormone`"
          :hint="say`Blank: none`"
          :fault="wrong('hormone')"
        />
        <FormField
          v-model="draft.medium"
          :label="say`Medium`"
          :hint="say`What they are stuck in`"
          :fault="wrong('medium')"
        />
      </div>
      <p
        v-for="words in asked"
        :key="words"
        class="border-ink border-l-4 pl-3"
        role="status"
        data-testid="cut-asked"
      >
        {{ say`${words} It is taken as you write it.` }}
      </p>
      <p v-if="length.fault" class="font-bold" role="status">{{ length.fault }}</p>
      <p v-else>
        {{
          say`Cut ${show(length.lengthMm, 'timber')} long; ${show(length.inMediumMm, 'timber')} goes in, a node at least, and a node stays out. Keep the right end up.`
        }}
      </p>
      <p class="border-ink text-muted border-l-4 pl-3 text-sm">
        {{
          say`Cut away from the palm, with a cut-resistant glove. Hormone powder: mask and gloves; follow the label.`
        }}
      </p>
      <EntryFields v-model:on="draft.on" v-model:note="draft.note" :wrong="wrong" />
      <SheetActs :act="say`Write it down`" :busy="busy" :sentence="sentence()" @save="save" />
    </form>
  </FormDialog>
</template>
