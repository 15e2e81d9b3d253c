<script setup lang="ts">
import { betaMean, betaProduct, say } from '@kauri/core';
import { useSessionStorage } from '@vueuse/core';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import { typedNumber } from '../../../parts/typed';
import { useMass } from '../../../parts/useMass';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSession } from '../../../stores/session';
import { count, several } from '../../../words/numbers';
import { usePlaces } from '../../yard/usePlaces';
import { presetOf, sowPreset } from './presetLot';
import type { Desk } from './useDesk';
import { keptKey } from '../../../stores/kept';

const props = defineProps<{ desk: Desk; seeds: number }>();
const nursery = useNursery();
const session = useSession();
const router = useRouter();
const mass = useMass();
const { show, shown, typed, unit } = usePreferences();
const { places } = usePlaces();

const flats = computed(() => {
  const all = nursery.catalogue!.containers;
  const open = all.filter((c) => c.values.cellsPerTray === 1);
  return open.length ? open : all;
});
const asked = useSessionStorage(keptKey('desk.flat'), {
  containerTypeId: '',
  perM2: String(Math.round(shown(8000, 'density'))),
});
const flat = computed(() => flats.value.find((c) => c.id === asked.value.containerTypeId) ?? flats.value[0]);
const areaM2 = computed(() => (flat.value.values.trayLengthMm * flat.value.values.trayWidthMm) / 1e6);
const perFlat = computed(() =>
  Math.max(0, Math.round(typed(typedNumber(asked.value.perM2), 'density') * areaM2.value)),
);
const trays = computed(() => (perFlat.value > 0 ? Math.ceil(props.seeds / perFlat.value) : 0));
const up = computed(() =>
  Math.round(
    props.seeds *
      betaMean(
        betaProduct(
          Object.values(props.desk.chain.value)
            .map((l) => l.next)
            .slice(0, 2),
        ),
      ),
  ),
);
const options = computed(() => flats.value.map((c) => ({ value: c.id, words: c.values.name })));

function sow() {
  const bench = places.value.find((p) => ['bench', 'ground'].includes(p.place.place.kind));
  sowPreset(router, {
    ...presetOf(props.desk, props.seeds),
    placeId: bench?.place.id,
    containerTypeId: flat.value.id,
    trays: String(trays.value),
  });
}
</script>

<template>
  <div class="max-w-2xl space-y-3">
    <div class="grid grid-cols-2 gap-3">
      <SelectField
        :model-value="flat.id"
        :label="say`Flat`"
        :options="options"
        @update:model-value="asked.containerTypeId = $event"
      />
      <FormField v-model="asked.perM2" :label="say`Seeds sown`" :unit="unit('density')" inputmode="numeric" />
    </div>
    <p class="text-lg" data-testid="flat-answer">
      <b>{{ several(trays, 'flat') }}</b>
      {{
        say`of ${show(areaM2, 'area')}, ${count(perFlat)} seeds each, ${mass((perFlat / desk.seedsPerKg.value) * 1000)} a flat.`
      }}
    </p>
    <p>
      {{
        say`About ${count(up)} come up. Prick out at the first true leaves, bigger seedlings into bigger cells: open the lot under Coming up.`
      }}
    </p>
    <button v-if="session.may('grower')" class="act-main" type="button" :disabled="!trays" @click="sow">
      {{ say`Sow it` }}
    </button>
  </div>
</template>
