<script setup lang="ts">
import { dayOf, findPlaces, isoOf, planSowing, treeForms, type RoutePoint } from '@kauri/core';
import { AlertTriangle } from 'lucide-vue-next';
import { v7 as newId } from 'uuid';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import FormField from '../../parts/FormField.vue';
import PlantTag from '../../parts/PlantTag.vue';
import SelectField from '../../parts/SelectField.vue';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useOrders } from '../../stores/orders';
import { usePlan } from '../../stores/plan';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { longDate, shortDate, yearOf } from '../../words/dates';
import { count, percent, several, surely } from '../../words/numbers';
import { buyerOf, formWords, isOpen, sizeWords } from './orderWords';
import { useBoard } from './useBoard';
import { useStageWords } from './routeWords';
import SowingCurves from './SowingCurves.vue';
import SowingNeeds from './SowingNeeds.vue';
import { useWhen, type JudgedRoute } from './useWhen';

/** When to sow for trees that are wanted: earlier they would be past by then, later they would not be ready. */
const nursery = useNursery();
const orders = useOrders();
const season = useSeason();
const session = useSession();
const messages = useMessages();
const plan = usePlan();
const { stays, ready } = useBoard();
const { shown, unit } = usePreferences();
const words = useStageWords();
const { asked, ask, days, judged, chosen, fault, done, ofSpecies } = useWhen();

const year = computed(() => yearOf(season.today));
const speciesOptions = computed(() =>
  nursery.catalogue!.species.map((s) => ({ value: s.id, words: s.common })),
);
const formOptions = treeForms.map((value) => ({ value, words: formWords[value] }));
const chances = [0.5, 0.8, 0.9, 0.95].map((value) => ({ value, words: percent(value) }));
const inUnits = (cm: number) => shown(cm, 'height');
/** Lines still open that may be asked about. */
const lines = computed(() =>
  orders.all
    .flatMap((order) => order.lines.map((line) => ({ order, line })))
    .filter(({ line }) => isOpen(line) && dayOf(line.until) > season.today && line.count > line.sent)
    .sort((a, b) => a.line.on.localeCompare(b.line.on)),
);
const lineOptions = computed(() => [
  { value: '', words: 'Trees of my own asking' },
  ...lines.value.map(({ order, line }) => ({
    value: line.id,
    words: `${shortDate(dayOf(line.on), year.value)}: ${count(line.count - line.sent)} ${nursery.lookup.species.get(line.speciesId)?.common ?? '?'}, ${sizeWords(line, inUnits, unit('height'))}, ${order.buyer || 'a hope'}`,
  })),
]);
const heightText = (cm: number | null) => (cm === null ? '' : String(Number(inUnits(cm).toFixed(1))));
/** The line that is asked about, where all that was typed is still its own. */
const line = computed({
  get: () =>
    lines.value.find(
      ({ line }) =>
        line.speciesId === asked.value.speciesId &&
        line.form === asked.value.form &&
        heightText(line.fromCm) === asked.value.from &&
        heightText(line.toCm) === asked.value.to &&
        line.on === asked.value.on &&
        line.until === (asked.value.until || asked.value.on) &&
        String(line.count - line.sent) === asked.value.count,
    )?.line.id ?? '',
  set: (id) => {
    const found = lines.value.find(({ line }) => line.id === id)?.line;
    if (!found) return;
    Object.assign(asked.value, {
      speciesId: found.speciesId,
      form: found.form,
      from: heightText(found.fromCm),
      to: heightText(found.toCm),
      on: found.on,
      until: found.until,
      count: String(found.count - found.sent),
      routeId: '',
    });
  },
});
const forWhom = computed(() => {
  const found = lines.value.find(({ line: l }) => l.id === line.value);
  return found ? buyerOf(found.order) : null;
});

const day = (on: number) => longDate(on, year.value);
/** What is said of a route's window. */
function windowWords({ weeks, points, isWhole, fault: why }: JudgedRoute): string {
  if (why) return why;
  const { best, isOpen: open, earliest, latest } = weeks;
  if (!isWhole) return `${points.length} of ${days.value.length} weeks …`;
  if (!best) return 'In time in no week to come';
  const from = Math.max(earliest ?? best.on, days.value[0]);
  if (open) return from === latest ? day(from) : `${day(from)} to ${day(latest!)}`;
  return `No week is ${percent(asked.value.chance)} sure; best ${day(best.on)}`;
}
/** Why no week keeps both sides, and what the two sides are. */
function crossWords({ weeks: { earliest, latest } }: JudgedRoute): string {
  const sure = percent(asked.value.chance);
  if (latest === null && earliest === null)
    return `Sown in no week are they ${sure} sure to be ready, or not to be past.`;
  if (latest === null)
    return `Sown in no week are they ${sure} sure to be ready by then: a later day, a smaller size, or another route.`;
  if (earliest === null)
    return `Sown in no week are they ${sure} sure not to be past by then: an earlier day, a larger size, or another route.`;
  return `To be ready they must be sown by ${day(latest)}, not to be past no earlier than ${day(earliest)}: the two cross.`;
}
const tag = computed(() => {
  const run = chosen.value;
  // A window told before every week was run would be another one later.
  if (!run?.isWhole || !run.weeks.best || !ask.value.value) return null;
  const { best, isOpen: open } = run.weeks;
  const verb = run.route.start === 'cuttings' ? 'Stick' : 'Sow';
  return {
    headline: open
      ? `${verb} ${windowWords(run)}`
      : `${verb} about ${day(best.on)}, at ${surely(best.chance)}`,
    detail: open
      ? `Ready by then, and not bound or too tall, each ${percent(asked.value.chance)} sure. Best in the week of ${day(best.on)}: both in ${surely(best.chance)} of forecasts.`
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
      `Planned for the week of ${day(best.value.on)}${placed.length > 1 ? `, in ${placed.length} places` : ''}.`,
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
const isoToday = computed(() => isoOf(season.today));
</script>

<template>
  <div class="grid min-h-full lg:grid-cols-[22rem_1fr]">
    <div class="border-rule space-y-3 p-4 lg:border-r">
      <h2 class="text-lg">Wanted</h2>
      <SelectField v-model="line" label="For" :options="lineOptions" />
      <SelectField v-model="asked.speciesId" label="Species" :options="speciesOptions" />
      <div class="grid grid-cols-2 gap-3">
        <SelectField v-model="asked.form" label="Form" :options="formOptions" />
        <FormField v-model="asked.count" label="Trees" inputmode="numeric" />
        <FormField v-model="asked.from" label="Size from" :unit="unit('height')" inputmode="decimal" />
        <FormField v-model="asked.to" label="Size to" :unit="unit('height')" inputmode="decimal" />
        <FormField v-model="asked.on" label="First day" type="date" :min="isoToday" />
        <FormField v-model="asked.until" label="Last day" type="date" :min="asked.on" />
      </div>
      <ChoiceRow v-model="asked.chance" label="How sure" :options="chances" />
    </div>
    <div class="space-y-5 p-4 md:p-5">
      <h1 class="text-2xl">When to sow</h1>
      <p v-if="forWhom" class="text-muted">For: {{ forWhom }}</p>
      <p v-if="ask.fault ?? fault" class="font-bold" role="status">{{ ask.fault ?? fault }}</p>
      <template v-else>
        <p v-if="!judged.length" class="font-bold" role="status">
          No route of this species gives {{ formWords[asked.form] }}:
          <RouterLink class="quiet" :to="cross">write one</RouterLink>.
        </p>
        <PlantTag v-if="tag" v-bind="tag" data-testid="when-tag" />
        <p v-else-if="chosen && done" class="flex items-start gap-2 font-bold" role="status">
          <AlertTriangle class="mt-0.5 shrink-0" :size="18" aria-hidden="true" />
          <template v-if="lifted">
            Bare-root trees are lifted at rest, {{ day(Math.ceil(lifted.from)) }} to
            {{ day(Math.floor(lifted.until)) }} in most winters: those days lie outside. Ask for days in it,
            or for plugs.
          </template>
          <template v-else>In time in no week to come: ask for a later day, or a smaller size.</template>
        </p>
        <p v-else-if="judged.length" class="text-muted" role="status">
          Running the weeks ahead: {{ weeksRun }} of {{ days.length * judged.length }} …
        </p>
        <p v-if="openers.length" data-testid="openers">
          Open by another route:
          {{ openers.map((run) => `${run.route.name}, ${windowWords(run)}`).join('; ') }}.
        </p>
        <section v-if="chosen && chosen.points.length > 1" aria-labelledby="weeks">
          <h2 id="weeks" class="text-lg">{{ chosen.route.name }}, week by week of sowing</h2>
          <SowingCurves
            :points="chosen.points"
            :weeks="chosen.weeks"
            :chance="asked.chance"
            :from="days[0]"
            :to="days.at(-1)!"
          />
          <p class="text-muted flex flex-wrap gap-x-5 text-sm">
            <span
              ><span class="text-leaf" aria-hidden="true">━━</span> ready and to size by the last day</span
            >
            <span
              ><span class="text-root" aria-hidden="true">╍╍</span> not yet bound or too tall on the
              first</span
            >
            <span><span class="text-ink" aria-hidden="true">──</span> both</span>
          </p>
        </section>
        <section v-if="judged.length" aria-labelledby="ways">
          <h2 id="ways" class="text-lg">Ways to raise them</h2>
          <p v-if="!ofSpecies.own" class="text-muted text-sm">
            Routes that its habit suggests, with rules of thumb for losses:
            <RouterLink class="quiet" :to="cross">make them your own</RouterLink>.
          </p>
          <table class="w-full max-w-4xl text-[0.95rem]" data-testid="ways">
            <thead class="text-muted text-left">
              <tr>
                <th scope="col" class="font-normal">Route</th>
                <th scope="col" class="font-normal">Sow</th>
                <th scope="col" class="text-right font-normal">In time, at best</th>
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
                    {{ run.route.name }}
                  </button>
                  <span class="text-muted block text-sm font-normal">{{
                    run.route.stages.map((stage) => words(stage)).join(' → ')
                  }}</span>
                </th>
                <td class="py-1.5 pr-3">
                  {{ windowWords(run) }}
                  <span v-if="run.weeks.best && run.route.stages.length > 1" class="text-muted block text-sm">
                    then moved {{ movesOf(run.weeks.best).join(', ') }}
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
            Plan it for the week of {{ day(best.on) }}
          </button>
          <RouterLink class="quiet" :to="{ name: 'plan-board' }">The board</RouterLink>
        </div>
        <SowingNeeds
          v-if="best && chosen && ask.value && wantedOn !== null"
          :route="chosen.route"
          :point="best"
          :trees="ask.value.trees"
          :chance="asked.chance"
        />
        <p v-if="judged.length" class="text-muted max-w-3xl text-sm">
          Each week is run ahead over the weather years and over what lots of its kind are like; nothing has
          been seen of them yet, so chances are wide until plugs are pulled. To size is counted by half of the
          plants;
          {{ several(days.length, 'week') }} to come.
        </p>
      </template>
    </div>
  </div>
</template>
