<script setup lang="ts">
import { cuttingKinds, cuttingPlan, pooledShare, type Band, type CuttingKind, say } from '@kauri/core';
import type { StockBed } from '@kauri/core/contract';
import { computed, ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import FormField from '../../../parts/FormField.vue';
import PlantTag from '../../../parts/PlantTag.vue';
import SelectField from '../../../parts/SelectField.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { typedNumber } from '../../../parts/typed';
import { usePreferences } from '../../../stores/preferences';
import { useSeason } from '../../../stores/season';
import { useSeed } from '../../../stores/seed';
import { useSession } from '../../../stores/session';
import { longDate, yearOf } from '../../../words/dates';
import { count, percent } from '../../../words/numbers';
import { cuttingWords } from '../../../words/seed';
import { plain, seedWork } from '../../../workers/seedWork';
import { sowPreset } from '../desk/presetLot';

/** How many cuttings a target needs, whether the stock gives them, and when they root. */
const props = defineProps<{ bed: StockBed; held: number }>();
const seed = useSeed();
const season = useSeason();
const session = useSession();
const router = useRouter();
const { show, typed, unit } = usePreferences();

const target = ref('300');
const chance = ref('0.9');
const heat = ref('0');
const start = computed(() => seed.startFor(props.bed.speciesId));
const kinds = computed(() => cuttingKinds.filter((kind) => start.value.cuttings[kind]));
const kind = ref<CuttingKind>(kinds.value[0] ?? 'hard');
const rooting = computed(
  () =>
    start.value.cuttings[kind.value] ?? {
      take: { alpha: 10, beta: 10 },
      rootDd: { median: 500, sdLog: 0.5 },
    },
);
const outcomes = computed(() => seed.outcomesOf(props.bed.speciesId, null, kind.value));
const plan = computed(() => {
  try {
    return {
      fault: null,
      ...cuttingPlan({
        target: typedNumber(target.value),
        probability: Number(chance.value),
        strike: pooledShare(rooting.value.take, outcomes.value.strike),
        establishment: seed.sharesOf(props.bed.speciesId).establishment,
        held: props.held,
        perPlant: props.bed.yieldPerPlant,
        plantsPerM: props.bed.plantsPerM,
      }),
    };
  } catch (error) {
    return { fault: error instanceof Error ? error.message : String(error), value: null, working: [] };
  }
});
const rooted = shallowRef<Band | null>(null);
watch(
  [rooting, heat, () => seed.asOf],
  async () => {
    const worker = await seedWork();
    rooted.value = await worker.rooting(
      seed.asOf,
      plain(rooting.value.rootDd),
      seed.asOf,
      typed(Math.max(0, typedNumber(heat.value) || 0), 'degrees'),
    );
  },
  { immediate: true },
);
const day = (value: number) => longDate(value, yearOf(season.view));
const words = computed(() => {
  const p = plan.value.value;
  if (!p) return null;
  return {
    headline: say`Take ${count(p.cuttings)} cuttings`,
    detail:
      p.short > 0
        ? say`${count(p.short)} more than the bed gives. For all of them: ${count(p.stockPlants)} stock plants, ${show(p.stockM, 'site')} of bed.`
        : say`The bed gives them, and ${count(props.held - p.cuttings)} more.`,
    urgent: false,
  };
});
function stick() {
  sowPreset(router, {
    speciesId: props.bed.speciesId,
    seedLotId: '',
    treatmentId: '',
    seeds: String(plan.value.value!.cuttings),
    target: target.value,
    chance: chance.value,
    seedState: 'ready',
    origin: 'cuttings',
    stockBedId: props.bed.id,
    cutting: kind.value,
  });
}
const chances = ['0.5', '0.8', '0.9', '0.95'].map((value) => ({ value, words: percent(Number(value)) }));
const kindOptions = computed(() =>
  (kinds.value.length ? kinds.value : cuttingKinds).map((value) => ({ value, words: cuttingWords[value] })),
);
</script>

<template>
  <section class="border-rule space-y-3 border-y py-3" aria-labelledby="how-many">
    <h2 id="how-many" class="text-lg">{{ say`How many cuttings?` }}</h2>
    <div class="grid grid-cols-2 gap-3 sm:grid-cols-4">
      <FormField v-model="target" :label="say`Plants wanted`" inputmode="numeric" />
      <SelectField v-model="chance" :label="say`Chance of having them`" :options="chances" />
      <SelectField v-model="kind" :label="say`Kind`" :options="kindOptions" />
      <FormField
        v-model="heat"
        :label="say`Bottom heat`"
        :unit="say`${unit('degrees')} over ${show(5, 'temperature', 0)}`"
        inputmode="decimal"
      />
    </div>
    <p v-if="plan.fault" class="font-bold" role="status">{{ plan.fault }}</p>
    <template v-else-if="words">
      <PlantTag v-bind="words" data-testid="cutting-answer" />
      <p v-if="rooted" data-testid="rooting">
        {{
          say`Stuck now, half have roots by ${day(rooted.p50)}; in a warm year ${day(rooted.p10)}, in a cool one ${day(rooted.p90)}. Pot off two weeks after.`
        }}
      </p>
      <button v-if="session.may('grower')" class="act" type="button" @click="stick">
        {{ say`Stick them` }}
      </button>
      <ShowWorking :steps="plan.working" />
    </template>
  </section>
</template>
