<script setup lang="ts">
import { findPlaces, planSowing, type RoutePoint, say, word } from '@kauri/core';
import { AlertTriangle } from 'lucide-vue-next';
import { v7 as newId } from 'uuid';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import IdeaHelp from '../../help/IdeaHelp.vue';
import PlantTag from '../../parts/PlantTag.vue';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { usePlan } from '../../stores/plan';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { longDate, yearOf } from '../../words/dates';
import { percent, several, surely } from '../../words/numbers';
import { formWords } from './orderWords';
import TreesWanted from './TreesWanted.vue';
import { useBoard } from './useBoard';
import { useLineAsked } from './useLineAsked';
import { useStageWords } from './routeWords';
import SowingCurves from './SowingCurves.vue';
import SowingNeeds from './SowingNeeds.vue';
import { useWhen, type JudgedRoute } from './useWhen';

/** When to sow for trees that are wanted: earlier they would be past by then, later they would not be ready. */
const nursery = useNursery();
const season = useSeason();
const session = useSession();
const messages = useMessages();
const plan = usePlan();
const { stays, ready } = useBoard();
const words = useStageWords();
const { asked, ask, days, judged, chosen, fault, done, ofSpecies } = useWhen();

const year = computed(() => yearOf(season.today));
const { line, forWhom } = useLineAsked(asked);

const day = (on: number) => longDate(on, year.value);
/** What is said of a route's window. */
function windowWords({ weeks, points, isWhole, fault: why }: JudgedRoute): string {
  if (why) return why;
  const { best, isOpen: open, earliest, latest } = weeks;
  if (!isWhole) return say`${points.length} of ${days.value.length} weeks …`;
  if (!best) return say`In time in no week to come`;
  const from = Math.max(earliest ?? best.on, days.value[0]);
  if (open) return from === latest ? day(from) : say`${day(from)} to ${day(latest!)}`;
  return say`No week is ${percent(asked.value.chance)} sure; best ${day(best.on)}`;
}
/** Why no week keeps both sides, and what the two sides are. */
function crossWords({ weeks: { earliest, latest } }: JudgedRoute): string {
  const sure = percent(asked.value.chance);
  if (latest === null && earliest === null)
    return say`Sown in no week are they ${sure} sure to be ready, or not to be past.`;
  if (latest === null)
    return say`Sown in no week are they ${sure} sure to be ready by then: a later day, a smaller size, or another route.`;
  if (earliest === null)
    return say`Sown in no week are they ${sure} sure not to be past by then: an earlier day, a larger size, or another route.`;
  return say`To be ready they must be sown by ${day(latest)}, not to be past no earlier than ${day(earliest)}: the two cross.`;
}
const tag = computed(() => {
  const run = chosen.value;
  // A window told before every week was run would be another one later.
  if (!run?.isWhole || !run.weeks.best || !ask.value.value) return null;
  const { best, isOpen: open } = run.weeks;
  const verb = run.route.start === 'cuttings' ? say`Stick` : say`Sow`;
  return {
    headline: open
      ? `${verb} ${windowWords(run)}`
      : say`${verb} about ${day(best.on)}, at ${surely(best.chance)}`,
    detail: open
      ? say`Ready by then, and not bound or too tall, each ${percent(asked.value.chance)} sure. Best in the week of ${day(best.on)}: both in ${surely(best.chance)} of forecasts.`
      : crossWords(run),
    urgent: !open,
  };
});
/** What opens a window that the chosen route leaves shut. */
const openers = computed(() =>
  chosen.value?.weeks.isOpen === false
    ? judged.value.filter((run) => run.route.id !== chosen.value!.route.id && run.weeks.isOpen)
    : [],
);
const movesOf = ({ begins }: RoutePoint) => begins.slice(1).map(day);
const best = computed(() => chosen.value?.weeks.best ?? null);
/** When bare-root trees are lifted, where the days asked for lie outside. */
const lifted = computed(() => {
  const outside = chosen.value?.points.at(-1)?.outsideLifting ?? null;
  return outside && Number.isFinite(outside.until) ? outside : null;
});
const planning = ref(false);
/** Puts the best week of the chosen route into the plan. */
async function planIt() {
  const of = ask.value.value;
  if (!of || !chosen.value || !best.value) return;
  planning.value = true;
  const aim = { lineId: line.value || null, wanted: of.wanted, trees: of.trees };
  try {
    const sowing = planSowing(
      newId(),
      chosen.value.route,
      best.value,
      aim,
      nursery.lookup.containers,
      season.today,
    );
    const placed = findPlaces(sowing, stays.value, nursery.lookup, newId);
    await plan.put(...placed);
    messages.say(
      say`Planned for the week of ${day(best.value.on)}${placed.length > 1 ? say`, in ${placed.length} places` : ''}.`,
      () => plan.remove(...placed.map(({ id }) => id)),
    );
  } catch (error) {
    fault.value = sentenceOf(error);
  } finally {
    planning.value = false;
  }
}
const weeksRun = computed(() => judged.value.reduce((total, run) => total + run.points.length, 0));
const cross = computed(() => ({
  name: 'plan-routes',
  query: { species: asked.value.speciesId },
}));
const wantedOn = computed(() => ask.value.value?.wanted.on ?? null);
</script>

<template>
  <div class="grid min-h-full lg:grid-cols-[22rem_1fr]">
    <div class="border-rule space-y-3 p-4 lg:border-r">
      <TreesWanted :asked="asked" form />
    </div>
    <div class="space-y-5 p-4 md:p-5">
      <div class="flex items-center gap-1">
        <h1 class="text-2xl">{{ say`When to sow` }}</h1>
        <IdeaHelp idea="route" />
      </div>
      <p v-if="forWhom" class="text-muted">{{ say`For: ${forWhom}` }}</p>
      <p v-if="ask.fault ?? fault" class="font-bold" role="status">{{ ask.fault ?? fault }}</p>
      <template v-else>
        <p v-if="!judged.length" class="font-bold" role="status">
          {{ say`No route of this species gives ${formWords[asked.form]}:` }}
          <RouterLink class="quiet" :to="cross">{{ say`write one` }}</RouterLink>.
        </p>
        <PlantTag v-if="tag" v-bind="tag" data-testid="when-tag" />
        <p v-else-if="chosen && done" class="flex items-start gap-2 font-bold" role="status">
          <AlertTriangle class="mt-0.5 shrink-0" :size="18" aria-hidden="true" />
          <template v-if="lifted">
            {{
              say` Bare-root trees are lifted at rest, ${day(Math.ceil(lifted.from))} to ${day(Math.floor(lifted.until))} in most winters: those days lie outside. Ask for days in it, or for plugs.`
            }}
          </template>
          <template v-else>{{
            say`In time in no week to come: ask for a later day, or a smaller size.`
          }}</template>
        </p>
        <p v-else-if="judged.length" class="text-muted" role="status">
          {{ say`Running the weeks ahead: ${weeksRun} of ${days.length * judged.length} …` }}
        </p>
        <p v-if="openers.length" data-testid="openers">
          {{
            say`Open by another route: ${openers.map((run) => `${word(run.route.name)}, ${windowWords(run)}`).join('; ')}.`
          }}
        </p>
        <section v-if="chosen && chosen.points.length > 1" aria-labelledby="weeks">
          <h2 id="weeks" class="text-lg">{{ say`${word(chosen.route.name)}, week by week of sowing` }}</h2>
          <SowingCurves
            :points="chosen.points"
            :weeks="chosen.weeks"
            :chance="asked.chance"
            :from="days[0]"
            :to="days.at(-1)!"
          />
          <p class="text-muted flex flex-wrap gap-x-5 text-sm">
            <span
              ><span class="text-leaf" aria-hidden="true">━━</span>
              {{ say`ready and to size by the last day` }}</span
            >
            <span
              ><span class="text-root" aria-hidden="true">╍╍</span>
              {{ say`not yet bound or too tall on the first` }}</span
            >
            <span><span class="text-ink" aria-hidden="true">──</span> {{ say`both` }}</span>
          </p>
        </section>
        <section v-if="judged.length" aria-labelledby="ways">
          <h2 id="ways" class="text-lg">{{ say`Ways to raise them` }}</h2>
          <p v-if="!ofSpecies.own" class="text-muted text-sm">
            {{ say`Routes that its habit suggests, with rules of thumb for losses:` }}
            <RouterLink class="quiet" :to="cross">{{ say`make them your own` }}</RouterLink>.
          </p>
          <table class="w-full max-w-4xl text-[0.95rem]" data-testid="ways">
            <thead class="text-muted text-left">
              <tr>
                <th scope="col" class="font-normal">{{ say`Route` }}</th>
                <th scope="col" class="font-normal">{{ say`Sow` }}</th>
                <th scope="col" class="text-right font-normal">{{ say`In time, at best` }}</th>
              </tr>
            </thead>
            <tbody>
              <tr
                v-for="run in judged"
                :key="run.route.id"
                class="border-rule border-t align-top"
                :class="run === chosen ? 'bg-tag/20' : ''"
              >
                <th scope="row" class="py-1.5 pr-3 text-left">
                  <button
                    class="text-left font-bold underline underline-offset-4"
                    type="button"
                    :aria-pressed="run === chosen"
                    @click="asked.routeId = run.route.id"
                  >
                    {{ word(run.route.name) }}
                  </button>
                  <span class="text-muted block text-sm font-normal">{{
                    run.route.stages.map((stage) => words(stage)).join(' → ')
                  }}</span>
                </th>
                <td class="py-1.5 pr-3">
                  {{ windowWords(run) }}
                  <span v-if="run.weeks.best && run.route.stages.length > 1" class="text-muted block text-sm">
                    {{ say` then moved ${movesOf(run.weeks.best).join(', ')}` }}
                  </span>
                </td>
                <td class="py-1.5 text-right">
                  {{ run.isWhole && run.weeks.best ? surely(run.weeks.best.chance) : '–' }}
                </td>
              </tr>
            </tbody>
          </table>
        </section>
        <div
          v-if="best && chosen?.isWhole && session.may('grower')"
          class="flex flex-wrap items-center gap-4"
        >
          <button class="act-main" type="button" :disabled="planning || !ready" @click="planIt">
            {{ say`Plan it for the week of ${day(best.on)}` }}
          </button>
          <RouterLink class="quiet" :to="{ name: 'plan-board' }">{{ say`The board` }}</RouterLink>
        </div>
        <SowingNeeds
          v-if="best && chosen && ask.value && wantedOn !== null"
          :route="chosen.route"
          :point="best"
          :trees="ask.value.trees"
          :chance="asked.chance"
        />
        <p v-if="judged.length" class="text-muted max-w-3xl text-sm">
          {{
            say`Each week is run ahead over the weather years and over what lots of its kind are like; nothing has been seen of them yet, so chances are wide until plugs are pulled. To size is counted by half of the plants; ${several(days.length, 'week')} to come.`
          }}
        </p>
      </template>
    </div>
  </div>
</template>
