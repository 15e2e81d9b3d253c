<script setup lang="ts">
import { emergenceActs, rootActs, type Act, type SeedAct, type Status, type When } from '@kauri/core';
import { Asterisk, Bean } from 'lucide-vue-next';
import { computed, onMounted } from 'vue';
import { RouterLink, type RouteLocationRaw } from 'vue-router';
import EmptyState from '../../parts/EmptyState.vue';
import SectionGlyph from '../../parts/SectionGlyph.vue';
import StatusMark from '../../parts/StatusMark.vue';
import { useLots } from '../../parts/useLots';
import { useForecasts } from '../../stores/forecasts';
import { useSeason } from '../../stores/season';
import { useRoots } from '../../stores/roots';
import { useSeed } from '../../stores/seed';
import { longDate, yearOf } from '../../words/dates';
import { actWords } from '../../words/decision';
import { count, several } from '../../words/numbers';
import { rootActWords } from '../../words/roots';
import { seedActWords } from '../../words/seed';
import { useComingUp } from '../seed/up/useComingUp';

const forecasts = useForecasts();
const season = useSeason();
const seed = useSeed();
const roots = useRoots();
const { lots } = useLots();

const groups: readonly { when: When; words: string }[] = [
  { when: 'now', words: 'Act now' },
  { when: 'week', words: 'This week' },
  { when: 'weeks', words: 'The next four weeks' },
  { when: 'watch', words: 'Watch' },
];
const byId = computed(() => new Map(lots.value.map((lot) => [lot.row.id, lot])));
const { shown: rising } = useComingUp();
const lateActs = computed(() =>
  rising.value.flatMap(({ lot, outlook }) =>
    outlook && lot.view.standing.tally.sown > 0 && lot.view.standing.decision.kind !== 'write-off'
      ? emergenceActs(lot.row.id, outlook.value)
      : [],
  ),
);
/** What the Seed station asks for, with where it leads. */
const seedActs = computed(() =>
  [...seed.acts, ...lateActs.value].map((act) => ({
    ...act,
    words: seedActWords(act, seedName(act), season.view),
    to: seedPlace(act),
  })),
);
function seedName({ part, subjectId }: SeedAct): string {
  if (part === 'layers') return seed.room.layers.find((l) => l.id === subjectId)?.tree ?? '';
  if (part === 'up') return byId.value.get(subjectId)?.row.code ?? '';
  const batch = part === 'clock' ? seed.treatmentById.get(subjectId) : undefined;
  const lot = seed.lotById.get(batch?.seedLotId ?? subjectId);
  const species = lot ? seed.speciesOf(lot.speciesId).common.toLowerCase() : '';
  return batch ? `${species}, “${batch.name}”` : `${species} ${lot?.code ?? ''}`;
}
function seedPlace({ part, subjectId }: SeedAct): RouteLocationRaw {
  if (part === 'layers') return { name: 'seed-layers', params: { layer: subjectId } };
  if (part === 'up') return { name: 'seed-up', params: { lot: subjectId } };
  if (part === 'clock') return { name: 'seed-clock', params: { batch: subjectId } };
  return { name: 'seed', params: { seedLot: subjectId } };
}
onMounted(() => roots.load().catch(() => undefined));
/** What the root bench asks for, with where it leads. */
const fromRoots = computed(() => {
  const judged = lots.value.flatMap(({ row, view }) => {
    const verdict = roots.verdictOf(row.id)?.value.sequential;
    return verdict ? [{ lotId: row.id, standing: view.standing, verdict }] : [];
  });
  return rootActs(judged, Math.min(season.view, season.today)).map((act) => {
    const only = act.rule === 'roots-rejected' ? act.lotIds[0] : null;
    return {
      ...act,
      words: rootActWords(act, only === null ? '' : byId.value.get(only)!.row.code),
      to: { name: 'roots', params: { lot: only ?? '' } } satisfies RouteLocationRaw,
    };
  });
});
const shown = computed(() =>
  groups
    .map((group) => ({
      ...group,
      acts: forecasts.acts.filter((act) => act.when === group.when && byId.value.has(act.lotId)),
      seed: seedActs.value.filter((act) => act.when === group.when),
      roots: fromRoots.value.filter((act) => act.when === group.when),
    }))
    .filter((group) => group.acts.length + group.seed.length + group.roots.length),
);
const wordsOf = (act: Act) => actWords(act, byId.value.get(act.lotId)!.row.code, season.view);

const order: Status[] = [
  'bound',
  'holding',
  'ready',
  'filling',
  'growing',
  'lift',
  'waiting',
  'failed',
  'lifted',
  'ended',
];
const tallies = computed(() =>
  order
    .map((status) => {
      const these = lots.value.filter((lot) => lot.view.standing.status === status);
      return {
        status,
        lots: these.length,
        trees: these.reduce((sum, lot) => sum + lot.view.standing.tally.standing, 0),
      };
    })
    .filter((tally) => tally.lots),
);
const standing = computed(() => lots.value.reduce((sum, lot) => sum + lot.view.standing.tally.standing, 0));
</script>

<template>
  <div class="grid gap-6 p-4 md:p-6 lg:grid-cols-[1fr_19rem]">
    <div>
      <h1 class="mb-3 text-2xl">
        {{ season.isToday ? 'Today' : 'On' }}, {{ longDate(season.view, yearOf(season.today)) }}
      </h1>
      <EmptyState v-if="forecasts.viewsOf !== null && !lots.length" title="No lot has been sown by this date">
        Here Kauri says what needs doing, why, and what waiting costs. It reads lots, their records and the
        weather.
        <template #action
          ><RouterLink class="act-main" :to="{ name: 'grow', query: { new: '1' } }"
            >Sow the first lot</RouterLink
          ></template
        >
      </EmptyState>
      <p v-else-if="forecasts.viewsOf !== null && !shown.length" class="text-muted">
        Nothing presses on this date.
      </p>
      <section v-for="group in shown" :key="group.when" class="mb-5" :aria-labelledby="`when-${group.when}`">
        <h2 :id="`when-${group.when}`" class="mb-2 flex items-center gap-2 text-lg">
          <span v-if="group.when === 'now'" class="bg-tag text-tag-ink rounded px-2 py-0.5">{{
            group.words
          }}</span>
          <template v-else>{{ group.words }}</template>
          <span class="text-muted font-sans text-base font-normal">{{
            group.acts.length + group.seed.length + group.roots.length
          }}</span>
        </h2>
        <ul class="panel divide-rule divide-y">
          <li v-for="act in group.seed" :key="act.subjectId + act.rule" data-testid="seed-act">
            <RouterLink :to="act.to" class="hover:bg-leaf-pale flex items-center gap-4 px-4 py-2.5">
              <Bean class="text-root w-10 shrink-0" :size="26" aria-hidden="true" />
              <span class="min-w-0 flex-1">
                <span class="block font-bold">{{ act.words.title }}</span>
                <span class="block">{{ act.words.reason }}</span>
              </span>
              <span class="text-muted hidden w-40 text-right text-sm sm:block">Seed room</span>
            </RouterLink>
          </li>
          <li v-for="act in group.roots" :key="act.rule + act.lotIds[0]" data-testid="root-act">
            <RouterLink :to="act.to" class="hover:bg-leaf-pale flex items-center gap-4 px-4 py-2.5">
              <Asterisk class="text-root w-10 shrink-0" :size="26" aria-hidden="true" />
              <span class="min-w-0 flex-1">
                <span class="block font-bold">{{ act.words.title }}</span>
                <span class="block">{{ act.words.reason }}</span>
              </span>
              <span class="text-muted hidden w-40 text-right text-sm sm:block">Root bench</span>
            </RouterLink>
          </li>
          <li v-for="act in group.acts" :key="act.lotId + act.rule">
            <RouterLink
              :to="{ name: 'grow', params: { lot: act.lotId } }"
              class="hover:bg-leaf-pale flex items-center gap-4 px-4 py-2.5"
            >
              <SectionGlyph :facts="byId.get(act.lotId)!.facts" :view="byId.get(act.lotId)!.view" />
              <span class="min-w-0 flex-1">
                <span class="block font-bold">{{ wordsOf(act).title }}</span>
                <span class="block">{{ wordsOf(act).reason }}</span>
                <span class="text-muted block">{{ wordsOf(act).waiting }}</span>
              </span>
              <span class="text-muted hidden w-40 text-right text-sm sm:block">
                {{ byId.get(act.lotId)!.species }}<br />{{ byId.get(act.lotId)!.where }}
              </span>
            </RouterLink>
          </li>
        </ul>
      </section>
    </div>
    <aside v-if="tallies.length" class="lg:pt-12">
      <section class="panel p-4" aria-labelledby="standing">
        <h2 id="standing" class="mb-1 text-lg">Standing</h2>
        <p class="mb-3">
          <span class="font-head text-3xl font-semibold">{{ count(standing) }}</span>
          {{ standing === 1 ? 'tree' : 'trees' }}
        </p>
        <table class="w-full">
          <caption class="sr-only">
            Lots and trees by what they are at this date
          </caption>
          <tbody>
            <tr v-for="tally in tallies" :key="tally.status" class="border-rule border-t">
              <th class="py-1.5 text-left font-normal" scope="row"><StatusMark :status="tally.status" /></th>
              <td class="py-1.5 text-right">{{ several(tally.lots, 'lot') }}</td>
              <td class="text-muted py-1.5 text-right">{{ count(tally.trees) }}</td>
            </tr>
          </tbody>
        </table>
      </section>
    </aside>
  </div>
</template>
