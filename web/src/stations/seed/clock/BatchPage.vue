<script setup lang="ts">
import { RADICLE_DAYS, say } from '@kauri/core';
import IdeaHelp from '../../../help/IdeaHelp.vue';
import type { SeedLot, Treatment } from '@kauri/core/contract';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import PlantTag from '../../../parts/PlantTag.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { useMass } from '../../../parts/useMass';
import { usePreferences } from '../../../stores/preferences';
import { useSeason } from '../../../stores/season';
import { useSeed } from '../../../stores/seed';
import { useSession } from '../../../stores/session';
import { dateWords, longDate, yearOf } from '../../../words/dates';
import { count, percent } from '../../../words/numbers';
import { phasesWords, phaseWords, schoolWords, batchStateWords, phaseStateWords } from '../../../words/seed';
import CheckDialog from './CheckDialog.vue';
import ClockStrip from './ClockStrip.vue';
import EndDialog from './EndDialog.vue';

const props = defineProps<{ batch: Treatment; lot: SeedLot }>();
const seed = useSeed();
const season = useSeason();
const session = useSession();
const preferences = usePreferences();
const mass = useMass();
const sheet = ref<'check' | 'end' | null>(null);

const clock = computed(() => seed.clocks.get(props.batch.id) ?? null);
const species = computed(() => seed.speciesOf(props.lot.speciesId));
const checks = computed(() => seed.recordsOf(props.batch.id, 'check').slice().reverse());
const sisters = computed(() =>
  seed.known.treatments.filter((t) => t.seedLotId === props.batch.seedLotId && t.id !== props.batch.id),
);
const day = (value: number) => longDate(value, yearOf(season.view));
const words = computed(() => {
  if (!clock.value) return null;
  const { ready, radiclesSeenOn, nextCheck, weeks, asOf, lastToSow } = clock.value.value;
  if (radiclesSeenOn !== null)
    return {
      headline: say`Radicles are out: sow at once`,
      detail: say`Seen ${day(radiclesSeenOn)}. Sow by ${day(radiclesSeenOn + RADICLE_DAYS)}: root down, barely covered, then mulch and a cover against rodents.`,
      urgent: true,
    };
  if (ready.p50 <= asOf)
    return {
      headline: say`Ready since ${day(ready.p50)}: sow by ${day(Math.max(asOf, lastToSow.p50))}, or keep it colder`,
      detail: say`Radicles within a week: ${percent(weeks[0].chance)}. Look again by ${day(nextCheck)}.`,
      urgent: weeks[0].chance > 0.5,
    };
  return {
    headline: Number.isFinite(ready.p50) ? say`Ready ${day(ready.p50)}` : say`Never ready in this store`,
    detail: Number.isFinite(ready.p50)
      ? say`Early ${day(ready.p10)}, late ${Number.isFinite(ready.p90) ? day(ready.p90) : say`not within the year`}, over weather years and lots of its kind. ${Number.isFinite(lastToSow.p50) ? say`Too far on to sow about ${day(lastToSow.p50)}. ` : ''}Look for radicles by ${day(nextCheck)}.`
      : say`No day there counts for the phase it is in: move it, or change the room.`,
    urgent: !Number.isFinite(ready.p50),
  };
});
const storeWords = computed(() =>
  props.batch.store.kind === 'fixed'
    ? say`warm room ${preferences.show(props.batch.store.warmC, 'temperature')}, cold room ${preferences.show(props.batch.store.coldC, 'temperature')}`
    : say`outdoors${props.batch.store.warmerByC ? say`, ${preferences.show(props.batch.store.warmerByC, 'degrees', 0)} warmer than the station` : ''}`,
);
const ready = computed(() => clock.value !== null && clock.value.value.ready.p50 <= seed.asOf);
</script>

<template>
  <article class="space-y-4 p-4 md:p-5">
    <div class="flex flex-wrap items-baseline gap-x-3">
      <RouterLink class="quiet lg:hidden" :to="{ name: 'seed-clock' }">{{ say`All batches` }}</RouterLink>
      <h1 class="text-2xl">{{ batch.name }}</h1>
      <IdeaHelp idea="dormancy" />
      <p class="text-lg">{{ species.common }}</p>
      <RouterLink class="quiet" :to="{ name: 'seed', params: { seedLot: lot.id } }">{{
        lot.code
      }}</RouterLink>
    </div>
    <div class="flex flex-wrap items-stretch gap-3">
      <PlantTag v-if="words" class="min-w-72" v-bind="words" />
      <div v-if="session.may('crew')" class="flex flex-wrap content-start gap-2">
        <button class="act" type="button" @click="sheet = 'check'">{{ say`Look for radicles` }}</button>
        <template v-if="session.may('grower') && batch.state === 'under way'">
          <RouterLink class="act" :to="{ name: 'seed-desk', query: { seedLot: lot.id, batch: batch.id } }">{{
            say`Sow it`
          }}</RouterLink>
          <button class="act" type="button" @click="sheet = 'end'">{{ say`End` }}</button>
        </template>
      </div>
    </div>
    <p v-if="clock?.value.surprising" class="border-ink border-l-4 pl-3 font-bold" role="status">
      {{ say`The last look is more than this weather explains: measure the tub, or was it chilled before?` }}
    </p>
    <p v-if="clock && !ready && clock.value.radiclesSeenOn === null" class="text-muted">
      {{
        say`Sown now, about ${percent(clock.value.readyNow)} of the living would come up soon; the rest lies until it is woken, or never comes.`
      }}
    </p>
    <p v-if="clock && clock.value.chilled.of > 0">
      {{
        say`Cold so far: ${clock.value.chilled.days.toFixed(0)} of the ${clock.value.chilled.of.toFixed(0)} days the middle seed needs${clock.value.chilled.dormancy > 0 ? '' : say`; it wakes as soon as it is warm`}.`
      }}
    </p>
    <ClockStrip v-if="clock" :batch="batch" :clock="clock.value" />
    <p>
      {{
        say`${mass(batch.grams)}, about ${count(batch.seeds)} seeds, in since ${dateWords(batch.startedOn)}: ${phasesWords(batch.phases)}; ${schoolWords[batch.school]}, ${storeWords}. ${batch.note}`
      }}
    </p>
    <table v-if="clock" class="text-[0.95rem]" data-testid="phases">
      <caption class="sr-only">
        {{
          say`Phases of the batch`
        }}
      </caption>
      <tbody>
        <tr v-for="(phase, i) in clock.value.phases" :key="i" class="border-rule border-t">
          <th scope="row" class="py-1 pr-6 text-left">{{ phaseWords[phase.kind] }}</th>
          <td class="pr-6">{{ phaseStateWords[phase.state] }}</td>
          <td class="pr-6">{{ say`begins ${day(phase.start.p50)}` }}</td>
          <td>
            {{
              say`${phase.effective.toFixed(phase.effective % 1 ? 1 : 0)} of ${phase.days} days that count`
            }}
          </td>
        </tr>
      </tbody>
    </table>
    <ShowWorking v-if="clock" :steps="clock.working" />
    <section aria-labelledby="checks">
      <h2 id="checks" class="text-lg">{{ say`Looks` }}</h2>
      <ul v-if="checks.length" class="text-[0.95rem]" data-testid="checks">
        <li v-for="check in checks" :key="check.id" class="border-rule border-t py-1">
          {{ dateWords(check.on) }}:
          <b>{{
            check.values.radicles
              ? say`${check.values.radicles} of ${check.values.n} show a radicle`
              : say`no radicle in ${check.values.n}`
          }}</b>
          <span class="text-muted">{{ check.note }}</span>
        </li>
      </ul>
      <p v-else class="text-muted">
        {{ say`Not looked at yet. Fifty seeds spread on a white cloth are enough.` }}
      </p>
    </section>
    <section v-if="sisters.length" aria-labelledby="sisters">
      <h2 id="sisters" class="text-lg">{{ say`Sister batches of ${lot.code}` }}</h2>
      <ul class="text-[0.95rem]">
        <li v-for="s in sisters" :key="s.id" class="border-rule border-t py-1">
          <b>{{ s.name }}</b>: {{ phasesWords(s.phases) }}. {{ batchStateWords[s.state]
          }}<template v-if="s.endedOn"> {{ dateWords(s.endedOn) }}</template>
        </li>
      </ul>
    </section>
    <CheckDialog v-if="sheet === 'check'" :batch="batch" @close="sheet = null" />
    <EndDialog v-if="sheet === 'end'" :batch="batch" @close="sheet = null" />
  </article>
</template>
