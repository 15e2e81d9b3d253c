<script setup lang="ts">
import { say } from '@kauri/core';
import type { StockBed } from '@kauri/core/contract';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import FormDialog from '../../../parts/FormDialog.vue';
import DateField from '../../../parts/DateField.vue';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import { typedNumber } from '../../../parts/typed';
import { useNursery } from '../../../stores/nursery';
import { useSeason } from '../../../stores/season';
import { useSeed } from '../../../stores/seed';
import { useSeedAct } from '../useSeedAct';
import { useSeedEdit } from '../useSeedEdit';

const props = defineProps<{ bed?: StockBed }>();
const emit = defineEmits<{ close: [] }>();
const nursery = useNursery();
const season = useSeason();
const seed = useSeed();
const router = useRouter();
const { bed } = props;
const cut = nursery.catalogue!.species.filter((s) => Object.keys(seed.startFor(s.id).cuttings).length);
const species = cut.length ? cut : nursery.catalogue!.species;
const fields = {
  speciesId: bed?.speciesId ?? species[0].id,
  name: bed?.name ?? '',
  plants: bed ? String(bed.plants) : '',
  plantedOn: bed?.plantedOn ?? season.todayIso,
  yieldPerPlant: bed ? String(bed.yieldPerPlant) : '20',
  plantsPerM: bed ? String(bed.plantsPerM) : '2',
  rest: bed ? String(bed.restShare * 100) : '0',
  note: bed?.note ?? '',
};
const partWords = {
  speciesId: 'species',
  name: 'name',
  plants: say`plants`,
  plantedOn: say`planted on`,
  yieldPerPlant: say`cuttings a plant`,
  plantsPerM: say`plants a metre`,
  restShare: say`share that rests`,
  note: say`note`,
};
const changes = bed && useSeedEdit('editStockBed', { stockBed: bed.id }, bed, fields, partWords);
const adding = changes ? null : useSeedAct('addStockBed', {}, fields);
const { draft, busy, sentence, wrong } = (changes ?? adding)!;
/** What somebody else wrote meanwhile, where it is not what is typed here. */
const theirs = computed(() => changes?.theirWords.value ?? '');
async function save() {
  const d = draft.value;
  const body = {
    speciesId: d.speciesId,
    name: d.name,
    plants: typedNumber(d.plants),
    plantedOn: d.plantedOn,
    yieldPerPlant: typedNumber(d.yieldPerPlant),
    plantsPerM: typedNumber(d.plantsPerM),
    restShare: typedNumber(d.rest) / 100,
    note: d.note,
  };
  if (changes) {
    if (await changes.edit(body, say`${d.name} kept`)) emit('close');
    return;
  }
  const id = await adding!.send(body, say`${d.name} kept.`);
  if (id === null) return;
  emit('close');
  await router.push({ name: 'seed-cuttings', params: { bed: id } });
}
const options = species.map((s) => ({ value: s.id, words: `${s.common}, ${s.latin}` }));
</script>

<template>
  <FormDialog :title="bed ? say`Change ${bed.name}` : say`Add a stock bed`" @close="emit('close')">
    <form class="space-y-3" novalidate @submit.prevent="save">
      <SelectField
        v-model="draft.speciesId"
        :label="say`Species`"
        :options="options"
        :fault="wrong('speciesId')"
      />
      <div class="grid grid-cols-2 gap-3">
        <FormField v-model="draft.name" :label="say`Name`" :fault="wrong('name')" />
        <DateField
          v-model="draft.plantedOn"
          :label="say`Planted on`"
          :max="season.todayIso"
          :fault="wrong('plantedOn')"
        />
        <FormField v-model="draft.plants" :label="say`Plants`" inputmode="numeric" :fault="wrong('plants')" />
        <FormField
          v-model="draft.plantsPerM"
          :label="say`Plants a metre`"
          inputmode="decimal"
          :fault="wrong('plantsPerM')"
        />
        <FormField
          v-model="draft.yieldPerPlant"
          :label="say`Cuttings a full-grown plant`"
          inputmode="decimal"
          :fault="wrong('yieldPerPlant')"
        />
        <FormField
          v-model="draft.rest"
          :label="say`At rest this year`"
          unit="%"
          inputmode="decimal"
          :hint="say`Uncut, to gather strength`"
          :fault="wrong('restShare')"
        />
      </div>
      <FormField
        v-model="draft.note"
        :label="say`Note`"
        :hint="say`Clone, sex, source`"
        :fault="wrong('note')"
      />
      <p v-if="theirs" class="panel p-3" data-testid="theirs">
        <b>{{ say`Somebody else wrote meanwhile` }}</b> {{ say`${theirs}. Saving again puts yours over it.` }}
      </p>
      <SheetActs :act="say`Keep it`" :busy="busy" :sentence="sentence()" @save="save" />
    </form>
  </FormDialog>
</template>
