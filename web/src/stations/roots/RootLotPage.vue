<script setup lang="ts">
import { roleWords } from '../../words/people';
import IdeaHelp from '../../help/IdeaHelp.vue';
import { rootFigures, type RootFigure, type RootSchool, say, inSentence } from '@kauri/core';
import { Check, X } from 'lucide-vue-next';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import PlantTag from '../../parts/PlantTag.vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import type { ShownLot } from '../../parts/useLots';
import { useKeys } from '../../shell/useKeys';
import { useRoots } from '../../stores/roots';
import { useMessages } from '../../stores/messages';
import { useSession } from '../../stores/session';
import { dateWords } from '../../words/dates';
import { several } from '../../words/numbers';
import {
  boundWords,
  callWords,
  figureWords,
  rootSchoolWords,
  schoolSays,
  verdictWords,
  seenWords,
} from '../../words/roots';
import BenchDialog from './BenchDialog.vue';
import RootRosette from './RootRosette.vue';
import RulesDialog from './RulesDialog.vue';
import SequentialChart from './SequentialChart.vue';

const props = defineProps<{ lot: ShownLot }>();
const roots = useRoots();
const session = useSession();
const messages = useMessages();
const sheet = ref<'bench' | 'rules' | null>(null);
const school = ref<RootSchool>(roots.rules!.school);
const schools = (Object.keys(rootSchoolWords) as RootSchool[]).map((value) => ({
  value,
  words: rootSchoolWords[value],
}));
const verdict = computed(() => roots.verdictOf(props.lot.row.id, school.value)!);
const words = computed(() => verdictWords(verdict.value.value));
const wants = (figure: RootFigure) =>
  boundWords(roots.rules!.cards[school.value].criteria.find((c) => c.figure === figure)!);
const others = computed(() =>
  schools
    .filter((s) => s.value !== school.value)
    .map((s) => ({ ...s, call: roots.verdictOf(props.lot.row.id, s.value)!.value.sequential.call })),
);
const fails = computed(() => verdict.value.value.plants.map((p) => !p.score.passes));
const records = computed(() => new Map(roots.plantsOf(props.lot.row.id).map((r) => [r.entry, r])));
const plants = computed(() =>
  verdict.value.value.plants
    .map((p, i) => ({ ...p, nth: i + 1, record: records.value.get(p.id)!, figures: rootFigures(p.plant) }))
    .reverse(),
);
const mayPull = computed(() => session.may('crew') && props.lot.row.held.standing > 0);
const whyNot = computed(() =>
  session.may('crew')
    ? say`Nothing of ${props.lot.row.code} stands: there is no plant to pull.`
    : say`Recording needs the role of crew; yours is ${roleWords[session.membership!.role]}.`,
);
useKeys({ r: () => (mayPull.value ? (sheet.value = 'bench') : messages.say(whyNot.value)) });
</script>

<template>
  <article class="space-y-4 p-4 md:p-5">
    <div class="flex flex-wrap items-baseline gap-x-3">
      <RouterLink class="quiet md:hidden" :to="{ name: 'roots' }">{{ say`All lots` }}</RouterLink>
      <h1 class="text-2xl">{{ lot.row.code }}</h1>
      <p class="text-lg">{{ lot.species }}</p>
      <p class="text-muted">{{ lot.where }}</p>
      <RouterLink class="quiet" :to="{ name: 'grow', params: { lot: lot.row.id } }">{{
        say`The lot’s page`
      }}</RouterLink>
    </div>
    <div class="flex flex-wrap items-stretch gap-3">
      <PlantTag v-bind="words" class="min-w-72" />
      <div class="flex flex-wrap items-start gap-2">
        <button v-if="mayPull" class="act-main" type="button" @click="sheet = 'bench'">
          {{ say`Pull a plant` }} <span class="key" aria-hidden="true">R</span>
        </button>
        <button v-if="session.may('grower')" class="act" type="button" @click="sheet = 'rules'">
          {{ say`Scorecards and terms` }}
        </button>
      </div>
    </div>
    <ChoiceRow v-model="school" :label="say`Judged by`" :options="schools" />
    <p class="text-muted">{{ schoolSays[school] }}</p>
    <p data-testid="other-schools">
      <template v-for="(o, i) in others" :key="o.value"
        >{{ say`${i ? '; ' : ''}${o.words} would say` }} <b>{{ inSentence(callWords[o.call]) }}</b></template
      >.
    </p>
    <div class="grid gap-5 xl:grid-cols-2">
      <div>
        <IdeaHelp idea="verdict" />
        <SequentialChart :terms="roots.rules!.terms" :fails="fails" :cap="roots.rules!.cap" />
      </div>
      <section aria-labelledby="defects">
        <h2 id="defects" class="text-lg">{{ say`What fails them` }}</h2>
        <ul v-if="verdict.value.defects.length" data-testid="defects">
          <li v-for="d in verdict.value.defects" :key="d.figure" class="border-rule border-t py-1">
            <b>{{ figureWords[d.figure].words }}</b>{{
              say`, wants ${wants(d.figure)}: missed by ${several(d.plants, 'plant')}`
            }}
            <span v-if="d.fatal" class="text-muted">{{ say`(fails alone)` }}</span>
          </li>
        </ul>
        <p v-else class="text-muted">{{ say`Nothing yet.` }}</p>
        <p v-if="verdict.value.unjudged" class="text-muted">
          {{ say`${several(verdict.value.unjudged, 'plant')} tell nothing of what this card asks.` }}
        </p>
      </section>
    </div>
    <ShowWorking :steps="verdict.working" />
    <section aria-labelledby="plants">
      <h2 id="plants" class="text-lg">{{ say`Plants pulled` }}</h2>
      <ul v-if="plants.length" class="grid gap-3 lg:grid-cols-2" data-testid="plants">
        <li v-for="p in plants" :key="p.id" class="panel flex gap-3 p-3">
          <svg
            v-if="p.plant.kind === 'drawn'"
            viewBox="0 0 200 200"
            class="size-24 shrink-0"
            aria-hidden="true"
          >
            <RootRosette :laterals="p.plant.laterals" plain />
          </svg>
          <div class="min-w-0 text-[0.93rem]">
            <p class="flex items-center gap-1 font-bold">
              <component :is="p.score.passes ? Check : X" :size="18" aria-hidden="true" />
              {{ say`Plant ${p.nth} ${p.score.passes ? say`passes` : say`fails`}` }}
            </p>
            <p class="text-muted">{{ dateWords(p.record.on) }}{{ p.record.spoiled ? say`, spoiled` : '' }}</p>
            <p v-if="p.plant.kind === 'quick'">
              {{ seenWords[p.plant.look.round] }}, {{ seenWords[p.plant.look.runs] }},
              {{ seenWords[p.plant.look.surface] }}
            </p>
            <p v-for="m in p.score.missed" :key="m.figure">
              {{
                say`${figureWords[m.figure].words} ${figureWords[m.figure].show(p.figures[m.figure]!)}, wants ${boundWords(m)}`
              }}
            </p>
            <p v-if="p.record.note" class="text-muted">{{ p.record.note }}</p>
          </div>
        </li>
      </ul>
      <p v-else class="text-muted">
        {{
          say`No plant looked at by this date. Lift one by the stem, shake or wash the collar free, and lay its roots as they stand.`
        }}
      </p>
    </section>
    <BenchDialog v-if="sheet === 'bench'" :lot="lot" :nth="records.size + 1" @close="sheet = null" />
    <RulesDialog v-if="sheet === 'rules'" :school="school" @close="sheet = null" />
  </article>
</template>
