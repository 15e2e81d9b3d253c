<script setup lang="ts">
import { say } from '@kauri/core';
import { computed, onMounted, ref } from 'vue';
import PlantTag from '../../../parts/PlantTag.vue';
import SelectField from '../../../parts/SelectField.vue';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSession } from '../../../stores/session';
import { several } from '../../../words/numbers';
import ControllerPanel from './ControllerPanel.vue';
import DripFigures from './DripFigures.vue';
import DripForm from './DripForm.vue';
import WaterSupply from './WaterSupply.vue';
import WaterZones from './WaterZones.vue';
import { faultWords, useWatering } from './useWatering';
import { flowOf, usualDrip, type WateredPlace } from './wateredPlace';

const { show } = usePreferences();

const nursery = useNursery();
const session = useSession();
const w = useWatering();
const { places, plan, all, good, zones, busy, fault, faults } = w;
const may = computed(() => session.may('grower'));
onMounted(() => void w.load());

const chosenId = ref<string | null>(null);
const chosen = computed(() => all.value.find((x) => x.drip.placeId === chosenId.value) ?? all.value[0]);
const chosenGood = computed(() =>
  chosen.value && 'grid' in chosen.value ? (chosen.value as WateredPlace) : null,
);
const dry = computed(() =>
  places.value.filter(
    (p) => p.place.place.kind !== 'bay' && !plan.value?.drips.some((d) => d.placeId === p.place.id),
  ),
);

const toLay = computed(() => [
  { value: '', words: say`Lay drip on …` },
  ...(dry.value.some((p) => p.place.place.kind === 'bed')
    ? [{ value: 'all', words: say`Every bed without` }]
    : []),
  ...dry.value.map((p) => ({ value: p.place.id, words: p.place.place.name })),
]);
const laying = ref('');
async function lay() {
  const id = laying.value;
  laying.value = '';
  if (!id) return;
  const ids =
    id === 'all' ? dry.value.filter((p) => p.place.place.kind === 'bed').map((p) => p.place.id) : [id];
  if (await w.keep({ ...plan.value!, drips: [...plan.value!.drips, ...ids.map(usualDrip)] }))
    chosenId.value = ids[0];
}
const over = computed(() => zones.value.filter((z) => z.over));
const unzoned = computed(() =>
  good.value.filter((x) => !zones.value.some((z) => z.zone.placeIds.includes(x.drip.placeId))),
);
const decision = computed(() => {
  const silent = [...faults.value][0];
  if (silent)
    return {
      headline: `${nursery.lookup.places.get(silent[0])?.place.name}: ${faultWords[silent[1]].what}`,
      detail: say`${faultWords[silent[1]].check}, then read the controller again.`,
      urgent: true,
    };
  if (over.value.length)
    return {
      headline: say`${over.value[0].zone.name} draws more than the tap gives`,
      detail: say`It needs ${show(over.value[0].flowLph, 'flow', 0)}. Make the zones anew.`,
      urgent: true,
    };
  if (unzoned.value.length && zones.value.length)
    return {
      headline: say`${unzoned.value[0].shown.place.place.name} is in no zone`,
      detail: say`Make the zones anew.`,
      urgent: true,
    };
  const next = zones.value.filter((z) => z.run.value.minutes > 0);
  if (!zones.value.length)
    return {
      headline: say`Lay drip, then make zones`,
      detail: say`Each zone runs on its own valve within what the tap gives.`,
      urgent: false,
    };
  return next.length
    ? {
        headline: say`This week: ${next.map((z) => say`${z.zone.name} ${z.run.value.minutes} min every ${several(z.run.value.everyDays, 'day')}`).join('; ')}`,
        detail: say`From past years’ evaporation and rain for this week, watered at the dry-down.`,
        urgent: false,
      }
    : {
        headline: say`No watering this week`,
        detail: say`In past years rain was enough in this week.`,
        urgent: false,
      };
});
</script>

<template>
  <div v-if="plan" class="grid min-h-full lg:grid-cols-[22rem_1fr]">
    <div class="border-rule order-last space-y-4 p-4 lg:order-first lg:border-r">
      <WaterSupply :w="w" :may="may" />
      <section aria-labelledby="drips">
        <h2 id="drips" class="text-lg">{{ say`Drip laid` }}</h2>
        <div v-if="may && dry.length" class="mb-2 flex gap-2">
          <SelectField
            v-model="laying"
            class="min-w-0 flex-1"
            label-hidden
            :label="say`Lay drip on`"
            :options="toLay"
          />
          <button class="act" type="button" :disabled="busy || !laying" @click="lay">{{ say`Lay` }}</button>
        </div>
        <p v-if="!all.length" class="text-muted">
          {{ say`None yet. Choose a bed: Kauri lays lines on it and says what they need.` }}
        </p>
        <ul class="divide-rule divide-y" data-testid="drips">
          <li v-for="x in all" :key="x.drip.placeId">
            <button
              class="block min-h-11 w-full py-1 text-left"
              :class="x === chosen ? 'font-bold' : ''"
              type="button"
              :aria-current="x === chosen ? 'true' : undefined"
              @click="chosenId = x.drip.placeId"
            >
              <span class="flex justify-between gap-2">
                <span>{{ x.shown.place.place.name }}</span>
                <span v-if="'grid' in x" class="font-normal">{{ show(flowOf(x), 'flow') }}</span>
              </span>
              <span class="text-muted block text-sm font-normal">
                <template v-if="faults.get(x.drip.placeId)"
                  >⚠ {{ faultWords[faults.get(x.drip.placeId)!].what }}</template
                >
                <template v-else-if="'grid' in x">
                  {{
                    zones.find((z) => z.zone.placeIds.includes(x.drip.placeId))?.zone.name ?? say`no zone`
                  }};
                  <template v-if="x.plan && x.plan.rainOnlyShare >= 0.9">{{ say`lives on rain` }}</template>
                  <template v-else-if="x.plan">{{
                    say`no watering needed for ${x.plan.firstNeedDays < 190 ? several(x.plan.firstNeedDays, 'day') : say`the season`} from full`
                  }}</template>
                </template>
                <template v-else>⚠ {{ x.fault }}</template>
              </span>
            </button>
          </li>
        </ul>
      </section>
    </div>
    <div class="min-w-0 space-y-5 p-4">
      <PlantTag :headline="decision.headline" :detail="decision.detail" :urgent="decision.urgent" />
      <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
      <div v-if="chosen" class="grid gap-5 xl:grid-cols-2">
        <DripForm :w="w" :chosen="chosen" :may="may" />
        <DripFigures v-if="chosenGood" :watered="chosenGood" />
      </div>
      <WaterZones :w="w" :may="may" />
      <ControllerPanel :w="w" :chosen="chosen" :may="may" />
    </div>
  </div>
</template>
