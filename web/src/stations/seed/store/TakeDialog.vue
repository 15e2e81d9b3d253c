<script setup lang="ts">
import { takenByMass, say } from '@kauri/core';
import type { SeedLot } from '@kauri/core/contract';
import { computed } from 'vue';
import EntryFields from '../../../parts/EntryFields.vue';
import FormDialog from '../../../parts/FormDialog.vue';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import { typedNumber } from '../../../parts/typed';
import { useMass } from '../../../parts/useMass';
import { usePreferences } from '../../../stores/preferences';
import { useSeason } from '../../../stores/season';
import { useSeed } from '../../../stores/seed';
import { count } from '../../../words/numbers';
import { useSeedAct } from '../useSeedAct';

const props = defineProps<{ lot: SeedLot }>();
const emit = defineEmits<{ close: [] }>();
const season = useSeason();
const seed = useSeed();
const preferences = usePreferences();
const mass = useMass();
const { draft, busy, sentence, wrong, send } = useSeedAct(
  'moveSeed',
  { seedLot: props.lot.id },
  {
    why: 'given' as 'given' | 'thrown-out' | 'counted' | 'received',
    grams: '',
    seeds: '',
    on: season.todayIso,
    note: '',
  },
);
const grams = computed(() => preferences.typed(typedNumber(draft.value.grams), 'seedMass'));
const held = computed(() => seed.held.get(props.lot.id)!);
async function save() {
  const { why, seeds, on, note } = draft.value;
  const body = { why, grams: grams.value, seeds: seeds.trim() === '' ? null : typedNumber(seeds), on, note };
  if (await send(body, say`${props.lot.code}: written down.`)) emit('close');
}
const whys = [
  { value: 'given', words: say`Given away or sold` },
  { value: 'thrown-out', words: say`Thrown out` },
  { value: 'received', words: say`More of the same came in` },
  { value: 'counted', words: say`Weighed anew: this is all there is` },
] as const;
</script>

<template>
  <FormDialog
    :title="say`Take out or weigh`"
    :subtitle="say`${lot.code} holds ${mass(held.grams)}`"
    @close="emit('close')"
  >
    <form class="space-y-3" novalidate @submit.prevent="save">
      <SelectField v-model="draft.why" :label="say`What happened`" :options="whys" />
      <div class="grid grid-cols-2 gap-3">
        <FormField
          v-model="draft.grams"
          :label="draft.why === 'counted' ? say`All that lies there` : say`Mass`"
          :unit="preferences.unit('seedMass')"
          inputmode="decimal"
          :fault="wrong('grams')"
        />
        <FormField
          v-model="draft.seeds"
          :label="say`Seeds`"
          inputmode="numeric"
          :hint="
            grams > 0
              ? say`Blank: about ${count(takenByMass(held, grams, lot.seedsPerKg).seeds)}`
              : say`If they were counted`
          "
          :fault="wrong('seeds')"
        />
      </div>
      <EntryFields v-model:on="draft.on" v-model:note="draft.note" :wrong="wrong" />
      <SheetActs :act="say`Write it down`" :busy="busy" :sentence="sentence()" @save="save" />
    </form>
  </FormDialog>
</template>
