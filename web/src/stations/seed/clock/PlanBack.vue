<script setup lang="ts">
import {
  dayOf,
  isoOf,
  wakingOf,
  type BatchStore,
  type TreatmentPlan,
  type Worked,
  say,
  usualSowing,
} from '@kauri/core';
import { useSessionStorage, watchDebounced } from '@vueuse/core';
import { computed, ref, shallowRef } from 'vue';
import DateField from '../../../parts/DateField.vue';
import SelectField from '../../../parts/SelectField.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSeason } from '../../../stores/season';
import { useSeed } from '../../../stores/seed';
import { longDate, yearOf } from '../../../words/dates';
import { surely } from '../../../words/numbers';
import { phasesWords, phaseWords, schoolWords } from '../../../words/seed';
import { plain, seedWork } from '../../../workers/seedWork';
import { keptKey } from '../../../stores/kept';

/** Backwards from a sowing day to the day each phase starts. */
const nursery = useNursery();
const seed = useSeed();
const season = useSeason();

/** Sooner than this nothing can be woken for it, days. */
const SOONEST_DAYS = 60;
const spring = usualSowing(nursery.catalogue!.nursery.latitudeDeg, season.today + SOONEST_DAYS);
const asked = useSessionStorage(keptKey('planback'), {
  speciesId: '',
  protocol: '0',
  where: 'fixed' as 'fixed' | 'outdoors',
  sowOn: isoOf(spring),
});
// The demo's best known two-winter species, or whatever comes first.
if (!nursery.lookup.species.has(asked.value.speciesId))
  asked.value.speciesId = (
    nursery.catalogue!.species.find((s) => s.values.winters === 1) ?? nursery.catalogue!.species[0]
  ).id;

const protocols = computed(() => seed.startFor(asked.value.speciesId).protocols);
const chosen = computed(() => protocols.value[Number(asked.value.protocol)] ?? protocols.value[0]);
const options = computed(() =>
  protocols.value.map((p, i) => ({
    value: String(i),
    words: `${schoolWords[p.school]}: ${phasesWords(p.phases)}`,
  })),
);
const speciesOptions = computed(() =>
  nursery.catalogue!.species.map((s) => ({ value: s.id, words: s.common })),
);
/** How the species wakes, and whether its radicle is long and brittle. */
const wakes = computed(() => ({
  waking: wakingOf(
    nursery.lookup.species.get(asked.value.speciesId)!.latin,
    seed.startFor(asked.value.speciesId).protocols,
  ),
  taproot: seed.startFor(asked.value.speciesId).rootHabit === 'tap',
}));
/** Rooms in which seed is kept warm, or cold, °C. */
const ROOMS = { warmC: 20, coldC: 3 };
const { show } = usePreferences();
const plan = shallowRef<Worked<TreatmentPlan> | null>(null);
const fault = ref<string | null>(null);
watchDebounced(
  [() => ({ ...asked.value }), chosen, () => seed.asOf],
  async () => {
    fault.value = null;
    const store: BatchStore =
      asked.value.where === 'fixed'
        ? { kind: 'fixed', ...ROOMS }
        : { kind: 'outdoors', warmerByC: chosen.value.school === 'tub' ? 1 : 0 };
    try {
      const worker = await seedWork();
      plan.value = await worker.plan(
        plain(chosen.value.phases),
        store,
        dayOf(asked.value.sowOn),
        seed.asOf,
        plain(wakes.value),
        0.8,
      );
    } catch (error) {
      plan.value = null;
      fault.value = error instanceof Error ? error.message : String(error);
    }
  },
  { debounce: 150, immediate: true },
);
const day = (value: number) => longDate(value, yearOf(season.view));
const wheres = computed(() => [
  {
    value: 'fixed' as const,
    words: say`Rooms at ${show(ROOMS.warmC, 'temperature')} and ${show(ROOMS.coldC, 'temperature')}`,
  },
  { value: 'outdoors' as const, words: say`Outdoors` },
]);
</script>

<template>
  <section class="space-y-2" aria-labelledby="planback">
    <h2 id="planback" class="text-lg">{{ say`When must I begin?` }}</h2>
    <SelectField v-model="asked.speciesId" :label="say`Species`" :options="speciesOptions" />
    <SelectField v-model="asked.protocol" :label="say`Treatment`" :options="options" />
    <div class="grid grid-cols-2 gap-2">
      <SelectField v-model="asked.where" :label="say`Where`" :options="wheres" />
      <DateField v-model="asked.sowOn" :label="say`To be sown on`" />
    </div>
    <p v-if="fault" class="font-bold" role="status">{{ fault }}</p>
    <template v-else-if="plan">
      <p v-if="!plan.value.phases.length">{{ say`Nothing to begin: it is sown as it is.` }}</p>
      <p v-else class="text-lg" data-testid="begin">
        <template v-if="plan.value.crosses">
          {{ say` Begin about` }} <b>{{ day(plan.value.begin) }}</b>{{ say`, and look: no day keeps both. ` }}
        </template>
        <template v-else>
          {{ say` Begin between` }} <b>{{ day(Math.max(plan.value.notBefore, plan.value.begin - 300)) }}</b>
          {{ say`and` }} <b>{{ day(plan.value.begin) }}</b>.
        </template>
        <template v-if="plan.value.begin < season.today"> {{ say` The last of it is past.` }}</template>
      </p>
      <p v-if="plan.value.crosses" class="text-muted">
        {{
          say`The first radicles are out about when the last seed is ready. Look weekly from a month before, and sow when the first show.`
        }}
      </p>
      <ul>
        <li v-for="(phase, i) in plan.value.phases" :key="i">
          {{ say`${phaseWords[phase.kind]} from ${day(phase.start.p50)}` }}
        </li>
        <li v-if="plan.value.phases.length">
          {{
            say`Begun on the last day, ready in time in ${surely(plan.value.chance)} of lots and years, and not too far on in ${surely(plan.value.chanceNotTooFar)}`
          }}
        </li>
        <li v-if="plan.value.phases.length" class="text-muted">
          {{ say`It wakes as ${wakes.waking.group} do`
          }}<template v-if="wakes.waking.near">{{ say`, the nearest kind known` }}</template
          >.
        </li>
      </ul>
      <ShowWorking :steps="plan.working" />
    </template>
  </section>
</template>
