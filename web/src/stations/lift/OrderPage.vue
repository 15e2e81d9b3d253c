<script setup lang="ts">
import { DOWNPOUR_MM, DRYING_MINUTES, decimals, isoOf, say, type Hands, type LiftingOdds } from '@kauri/core';
import { watchDebounced } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { RouterLink } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import EmptyState from '../../parts/EmptyState.vue';
import FormField from '../../parts/FormField.vue';
import PlantTag from '../../parts/PlantTag.vue';
import { typedNumber } from '../../parts/typed';
import { useForecasts } from '../../stores/forecasts';
import { useLiftingPlan } from '../../stores/liftingPlan';
import { useMessages } from '../../stores/messages';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { shortDate, yearOf } from '../../words/dates';
import { count, odds as oddsWords, percent, several } from '../../words/numbers';
import LiftingBlocks from './LiftingBlocks.vue';
import { hoursWritten } from './liftingWords';
import { useLiftingOrder } from './useLiftingOrder';

/** Which lots are lifted first with the people there are, and whether all are out before their buds move. */
const season = useSeason();
const session = useSession();
const forecasts = useForecasts();
const plan = useLiftingPlan();
const messages = useMessages();
const preferences = usePreferences();
/** A whole figure: the rule is no finer. */
const downpour = computed(() => preferences.show(DOWNPOUR_MM, 'rain', preferences.units === 'us' ? 1 : 0));
const dayNames = [say`Mon`, say`Tue`, say`Wed`, say`Thu`, say`Fri`, say`Sat`, say`Sun`];
/** Hands as they are typed; what is wrong among them is not kept, and asked for. */
const draft = ref({ people: '', hours: '', weekdays: [] as number[] });

const hands = computed<Hands | null>(() => {
  const [people, hoursADay] = [typedNumber(draft.value.people), typedNumber(draft.value.hours)];
  const isRight =
    Number.isInteger(people) && people >= 1 && people <= 200 && hoursADay >= 0.25 && hoursADay <= 16;
  return isRight && draft.value.weekdays.length
    ? { people, hoursADay, weekdays: [...draft.value.weekdays].sort((a, b) => a - b) }
    : null;
});
const isSame = (a: Hands | null, b: Hands | null) => JSON.stringify(a) === JSON.stringify(b);
// Only hands that somebody changed: a lot that others move meanwhile takes nothing from who is typing.
watch(
  () => JSON.stringify(plan.hands),
  () => {
    const kept = plan.hands;
    if (kept && !isSame(kept, hands.value))
      draft.value = {
        people: String(kept.people),
        hours: decimals(String(kept.hoursADay)),
        weekdays: [...kept.weekdays],
      };
  },
  { immediate: true },
);
watchDebounced(
  hands,
  async (typed) => {
    if (!typed || isSame(typed, plan.hands) || !session.may('crew')) return;
    await plan
      .change((now) => ({ ...now, hands: { ...typed, weekdays: [...typed.weekdays] } }))
      .catch((error: unknown) => messages.say(sentenceOf(error)));
  },
  { debounce: 600 },
);
const { toLift, odds, fault, rate } = useLiftingOrder(hands);

function toggle(day: number) {
  const { weekdays } = draft.value;
  draft.value.weekdays = weekdays.includes(day) ? weekdays.filter((d) => d !== day) : [...weekdays, day];
}
const hours = computed(() => toLift.value.reduce((sum, lot) => sum + lot.hours, 0));
const trees = computed(() => toLift.value.reduce((sum, { lot }) => sum + lot.row.held.standing, 0));
const byId = computed(() => new Map(toLift.value.map((one) => [one.id, one])));
/** The lots in the order they are lifted, with what the weather years say of each. */
const ranked = computed(() => {
  const found = new Map(odds.value?.lots.map((one) => [one.id, one]));
  return [...toLift.value]
    .sort((a, b) => a.by - b.by || a.from - b.from)
    .flatMap((one) => {
      const of = found.get(one.id);
      return of ? [{ ...one, ...of }] : [];
    });
});
const words = computed(() => {
  if (!odds.value || !toLift.value.length) return null;
  const { through, withOneMore, atBest, unfit } = odds.value;
  const late = ranked.value.filter(({ chance }) => chance < 0.9);
  const more =
    withOneMore > through
      ? say` One more pair of hands: ${oddsWords(withOneMore)}.`
      : through < 0.9
        ? say` One more pair of hands does not change that.`
        : '';
  const moved =
    atBest > through
      ? say` In the order of what must be out first, nothing moved by hand: ${oddsWords(atBest)}.`
      : '';
  return {
    headline:
      through >= 0.9
        ? say`All of them can be out in time`
        : late.length
          ? say`${several(late.length, 'lot')} will hardly be out in time`
          : say`Together they may be late`,
    detail: say`${several(trees.value, 'tree')} in ${several(toLift.value.length, 'lot')}, some ${several(Math.round(hours.value), 'hour')} of lifting: in time in ${oddsWords(through)} winters.${lost(unfit)}${moved}${more}`,
    urgent: through < 0.5,
  };
});
/** What the weather takes of the working days. */
function lost({ frozen, downpour, drying }: LiftingOdds['unfit']) {
  const whole = [
    frozen > 0 && say`${percent(frozen)} to frozen medium`,
    downpour > 0 && say`${percent(downpour)} to downpours`,
  ].filter((one) => one !== false);
  return [
    whole.length ? say` Of the working days the weather takes ${whole.join(say` and `)}.` : '',
    drying > 0 ? say` On ${percent(drying)} midday dries bare roots too fast: those are half days.` : '',
  ].join('');
}
const movedCount = computed(() => toLift.value.filter(({ moved }) => moved !== undefined).length);
async function unmoveAll() {
  const before = [...plan.moved];
  const keep = (moved: { lotId: string; day: string }[]) => plan.change((now) => ({ ...now, moved }));
  try {
    await keep([]);
    messages.say(say`Nothing is moved by hand any more`, () =>
      keep(before.map(([lotId, day]) => ({ lotId, day: isoOf(day) }))),
    );
  } catch (error) {
    messages.say(sentenceOf(error));
  }
}
const year = computed(() => yearOf(season.today));
</script>

<template>
  <div class="grid min-h-full lg:grid-cols-[20rem_1fr]">
    <form class="border-rule space-y-3 p-4 lg:border-r" @submit.prevent>
      <h2 class="text-lg">{{ say`Hands for lifting` }}</h2>
      <div class="grid grid-cols-2 gap-3">
        <FormField v-model="draft.people" :label="say`People`" inputmode="numeric" />
        <FormField v-model="draft.hours" :label="say`Hours a day`" inputmode="decimal" />
      </div>
      <fieldset>
        <legend class="mb-1 font-bold">{{ say`Days` }}</legend>
        <div class="flex flex-wrap gap-1">
          <label
            v-for="(name, day) in dayNames"
            :key="name"
            class="border-ink has-focus-visible:outline-frost flex min-h-11 cursor-pointer items-center rounded-md border px-2.5 has-focus-visible:outline-3"
            :class="draft.weekdays.includes(day) ? 'bg-ink text-paper font-bold' : ''"
          >
            <input
              class="sr-only"
              type="checkbox"
              :checked="draft.weekdays.includes(day)"
              @change="toggle(day)"
            />
            {{ name }}
          </label>
        </div>
      </fieldset>
      <p class="text-muted text-sm">
        {{
          say`Bed lots at rest, or within two months of it. Those that must be out first are lifted first: before buds are near in one year of ten, or by the last day of a line they are set against. No other order has a smaller greatest delay. The medium is taken to be frozen after three days whose mean lies below freezing, nobody lifts in ${downpour} of rain, and where midday dries bare roots within ${DRYING_MINUTES} minutes half the day is left: rules of thumb. Hours are ${
            rate.times
              ? say`yours, recorded ${several(rate.times, 'time')}`
              : say`a rule of thumb until you write down how long a lift took`
          }.`
        }}
      </p>
    </form>
    <div class="min-w-0 space-y-5 p-4 md:p-5">
      <h1 class="text-2xl">{{ say`In what order` }}</h1>
      <p v-if="!hands" class="font-bold" role="status">
        {{ say`Say how many people, for how many hours, on which days: one at least of each.` }}
      </p>
      <p v-else-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
      <EmptyState v-else-if="forecasts.viewsOf !== null && !toLift.length" :title="say`Nothing to lift`">
        {{ say`No bed lot is at rest, or will be within two months.` }}
      </EmptyState>
      <template v-else-if="words">
        <PlantTag v-bind="words" />
        <section aria-labelledby="next-days">
          <h2 id="next-days" class="text-lg">{{ say`The next two weeks, if all days are fit` }}</h2>
          <p class="text-muted mb-2 text-[0.95rem]">
            {{
              say`Each block is a day’s work on a lot. Move one to another day, and what that costs is said above.`
            }}
            <button v-if="movedCount && session.may('crew')" class="quiet" type="button" @click="unmoveAll">
              {{ say`Put ${several(movedCount, 'lot')} back in the order` }}
            </button>
          </p>
          <LiftingBlocks :odds="odds!" :lots="byId" />
        </section>
        <section aria-labelledby="each-lot">
          <h2 id="each-lot" class="text-lg">{{ say`Each lot` }}</h2>
          <div class="overflow-x-auto">
            <table class="w-full max-w-4xl text-[0.95rem]" data-testid="lifting-order">
              <thead class="text-muted">
                <tr>
                  <th scope="col" class="text-left font-normal">{{ say`Lot` }}</th>
                  <th scope="col" class="text-right font-normal">{{ say`Trees` }}</th>
                  <th scope="col" class="text-right font-normal">{{ say`Hours` }}</th>
                  <th scope="col" class="pl-4 text-left font-normal">{{ say`From` }}</th>
                  <th scope="col" class="pl-4 text-left font-normal">{{ say`Out by` }}</th>
                  <th scope="col" class="pl-4 text-left font-normal">{{ say`Done, nine in ten` }}</th>
                  <th scope="col" class="pl-4 text-left font-normal">{{ say`In time` }}</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="one in ranked" :key="one.id" class="border-rule border-t">
                  <th scope="row" class="py-1 text-left">
                    <RouterLink class="quiet" :to="{ name: 'lift', params: { lot: one.id } }">{{
                      one.lot.row.code
                    }}</RouterLink>
                    <span class="ml-2 font-normal">{{ one.lot.species }}</span>
                  </th>
                  <td class="text-right">{{ count(one.lot.row.held.standing) }}</td>
                  <td class="text-right">{{ hoursWritten(one.hours) }}</td>
                  <td class="pl-4 whitespace-nowrap">{{ shortDate(one.from, year) }}</td>
                  <td class="pl-4 whitespace-nowrap">
                    {{ shortDate(one.by, year) }}<span v-if="one.byOrder"> {{ say` (an order)` }}</span>
                  </td>
                  <td class="pl-4 whitespace-nowrap">
                    {{ Number.isFinite(one.done.p90) ? shortDate(one.done.p90, year) : say`not in time` }}
                  </td>
                  <td class="pl-4" :class="one.chance < 0.9 ? 'font-bold' : ''">
                    {{ oddsWords(one.chance) }}
                  </td>
                </tr>
              </tbody>
            </table>
          </div>
        </section>
      </template>
      <p v-else class="text-muted" role="status">{{ say`Asking the weather years …` }}</p>
    </div>
  </div>
</template>
