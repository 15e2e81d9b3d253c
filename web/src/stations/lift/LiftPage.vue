<script setup lang="ts">
import { inForce, liftedOf, say } from '@kauri/core';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import IdeaHelp from '../../help/IdeaHelp.vue';
import SelectField from '../../parts/SelectField.vue';
import PlantTag from '../../parts/PlantTag.vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import StatusMark from '../../parts/StatusMark.vue';
import type { ShownLot } from '../../parts/useLots';
import { useForecasts } from '../../stores/forecasts';
import { useGrading } from '../../stores/grading';
import { useNursery } from '../../stores/nursery';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { decisionWords } from '../../words/decision';
import { dateWords } from '../../words/dates';
import { cullWords } from '../../words/grades';
import { count } from '../../words/numbers';
import GradesAhead from './GradesAhead.vue';
import GradingDialog from './GradingDialog.vue';
import LiftForm from './LiftForm.vue';
import LiftWindow from './LiftWindow.vue';

const props = defineProps<{ lot: ShownLot }>();
const forecasts = useForecasts();
const grading = useGrading();
const nursery = useNursery();
const season = useSeason();
const session = useSession();

const words = computed(() => decisionWords(props.lot.view.standing.decision, season.view));
const held = computed(() => props.lot.row.held);
/** What was lifted and culled, as it stands: what was taken back is gone. */
const lifts = computed(() =>
  inForce(nursery.evidence.get(props.lot.row.id)!.movements)
    .filter((m) => m.from === 'standing' && (m.to === 'lifted' || m.to === 'out:culled'))
    .reverse(),
);
/** The scheme looked at: the one thought of first for the species, until another is chosen. */
const chosen = ref<string | null>(null);
const schemes = computed(() => grading.schemesFor(props.lot.row.speciesId));
const scheme = computed(
  () =>
    schemes.value.find(({ id }) => id === chosen.value) ??
    grading.firstFor(props.lot.row.speciesId) ??
    schemes.value[0] ??
    null,
);
const schemeId = computed({
  get: () => scheme.value?.id ?? '',
  set: (id: string) => (chosen.value = id),
});
const schemeOptions = computed(() => schemes.value.map(({ id, name }) => ({ value: id, words: name })));
const isGrading = ref(false);
const cullsOf = (entry: string) =>
  nursery.evidence
    .get(props.lot.row.id)!
    .culls.find((one) => one.entry === entry)
    ?.reasons.map(({ why, count: trees }) => `${cullWords(why)} ${count(trees)}`)
    .join(', ');
const liftSteps = computed(() => forecasts.selected?.working.filter(({ part }) => part === 'lifting') ?? []);
</script>

<template>
  <article class="p-4 md:p-5">
    <div class="mb-3 flex flex-wrap items-baseline gap-x-3">
      <RouterLink class="quiet md:hidden" :to="{ name: 'lift' }">{{ say`All to lift` }}</RouterLink>
      <h1 class="text-2xl">{{ lot.row.code }}</h1>
      <IdeaHelp idea="window" />
      <p class="text-lg">{{ lot.species }}</p>
      <p class="text-muted">{{ lot.where }}</p>
      <RouterLink class="quiet" :to="{ name: 'grow', params: { lot: lot.row.id } }">{{
        say`Its page`
      }}</RouterLink>
      <StatusMark class="ml-auto" :status="lot.view.standing.status" />
    </div>
    <PlantTag :headline="words.headline" :detail="words.detail" :urgent="lot.view.standing.urgent" />
    <LiftWindow
      v-if="lot.facts.home.kind === 'bed'"
      class="mt-4"
      :window="lot.view.forecast.lifting"
      :view="season.view"
    />
    <ShowWorking
      v-if="lot.facts.home.kind === 'bed' && liftSteps.length"
      data-testid="window-working"
      :steps="liftSteps"
    />

    <div v-if="held.standing > 0" class="mt-4">
      <GradesAhead v-if="scheme" :lot="lot" :scheme="scheme" />
      <div v-if="grading.kept" class="mt-1 flex flex-wrap items-end gap-x-4 gap-y-2">
        <SelectField
          v-if="grading.schemes.length > 1"
          v-model="schemeId"
          class="min-w-56"
          :label="say`By the grades of`"
          :options="schemeOptions"
        />
        <button v-if="session.may('grower')" class="quiet pb-2" type="button" @click="isGrading = true">
          {{ scheme ? say`Change the grades` : say`Say by what you grade, and see what this will give` }}
        </button>
      </div>
    </div>
    <GradingDialog v-if="isGrading" :first="scheme?.id ?? null" @close="isGrading = false" />

    <div class="mt-4 grid gap-6 lg:grid-cols-[minmax(0,26rem)_1fr]">
      <section class="panel p-4" aria-labelledby="lift-now">
        <h2 id="lift-now" class="mb-2 text-lg">{{ say`Lift from this lot` }}</h2>
        <LiftForm v-if="session.may('crew') && held.standing > 0" :lot="lot" />
        <p v-else-if="held.standing > 0" class="text-muted">
          {{ say`${count(held.standing)} stand. Visitors look, crew record.` }}
        </p>
        <p v-else>{{ say`Nothing of this lot stands any more.` }}</p>
      </section>
      <section aria-labelledby="lifted-so-far">
        <h2 id="lifted-so-far" class="mb-2 text-lg">{{ say`Lifted so far` }}</h2>
        <p class="mb-2">
          <span class="font-head text-3xl font-semibold">{{ count(liftedOf(held)) }}</span>
          {{ say`lifted, ${count(held.standing)} standing`
          }}<template v-if="liftedOf(held)"
            >{{ say`; of those lifted ${count(held.sent)} sent, ${count(held.planted)} planted,` }}
            <RouterLink class="quiet" :to="{ name: 'lift-lying' }">{{
              say`${count(held.lifted)} still here`
            }}</RouterLink></template
          >
        </p>
        <table v-if="lifts.length" class="w-full" data-testid="lifts">
          <thead class="sr-only">
            <tr>
              <th scope="col">{{ say`Day` }}</th>
              <th scope="col">{{ say`What` }}</th>
              <th scope="col">{{ say`Count` }}</th>
              <th scope="col">{{ say`Note` }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="m in lifts" :key="m.id" class="border-rule border-t">
              <td class="py-1 pr-3 whitespace-nowrap">{{ dateWords(m.on) }}</td>
              <td>
                {{ m.to === 'lifted' ? say`lifted` : say`culled` }}
                <span v-if="m.to !== 'lifted' && cullsOf(m.entry)" class="text-muted text-sm"
                  >({{ cullsOf(m.entry) }})</span
                >
              </td>
              <td class="text-right">{{ count(m.count) }}</td>
              <td class="text-muted pl-4">{{ m.note }}</td>
            </tr>
          </tbody>
        </table>
        <p v-else class="text-muted">{{ say`None yet.` }}</p>
      </section>
    </div>
  </article>
</template>
