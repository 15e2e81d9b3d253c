<script setup lang="ts">
import { costParts, perLiving, say, word } from '@kauri/core';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import ShowWorking from '../../parts/ShowWorking.vue';
import { livedWords, useLived } from '../../parts/useLived';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { shortDate, yearOf } from '../../words/dates';
import { percent, several, surely } from '../../words/numbers';
import { money } from '../../words/money';
import { partWords } from './costWords';
import GroundWorth from './GroundWorth.vue';
import { formWords } from './orderWords';
import { useStageWords } from './routeWords';
import TreesWanted from './TreesWanted.vue';
import { useCosts, type CostRow } from './useCosts';
import { useLineAsked } from './useLineAsked';
import { useWhen } from './useWhen';

/** Beds or pots: what the trees wanted cost by every route of the species, and what they must fetch. */
const nursery = useNursery();
const season = useSeason();
const { show } = usePreferences();
const words = useStageWords();
const when = useWhen(true);
const { asked, ask, days, judged, fault, done } = when;
const { found, forWhom } = useLineAsked(asked);
const costFault = ref<string | null>(null);
const { rows } = useCosts(when, costFault);

const currency = computed(() => nursery.catalogue!.prices.list.currency);
const cash = (amount: number) => money(amount, currency.value);
const day = (on: number) => shortDate(on, yearOf(season.today));
const price = computed(() => found.value?.line.price ?? null);
/** The dearest bar fills its width. */
const widest = computed(() => Math.max(1e-9, ...rows.value.map(({ of }) => of?.each.mustFetch ?? 0)));
const bar = ({ of }: CostRow) =>
  of
    ? costParts.flatMap((part) => {
        const share = of.cost.value.parts[part] / of.sowing.wanted.trees / widest.value;
        return share > 0 ? [{ part, share, ...partWords[part] }] : [];
      })
    : [];
const partsSeen = computed(() =>
  costParts.filter((part) => rows.value.some(({ of }) => of && of.cost.value.parts[part] > 0)),
);
const unpriced = ({ of }: CostRow) =>
  of?.cost.value.unpriced.length
    ? say`No price of ${of.cost.value.unpriced.map((part) => partWords[part].words).join(', ')} is written down: not counted.`
    : null;
/** What a tree costs over forecasts, in words that say so where some have none. */
function bandWords({ of }: CostRow): string {
  if (!of) return '';
  const { least, middle, most, mustFetch } = of.each;
  if (!Number.isFinite(middle))
    return say`In most forecasts none is in time; where they are, a tree costs ${cash(mustFetch)} at most in nine of ten of those.`;
  if (!Number.isFinite(most))
    return say`A tree costs ${cash(middle)} in the middle of forecasts, ${cash(least)} at least; in some none is in time.`;
  return say`A tree costs ${cash(middle)} in the middle of forecasts, ${cash(least)} to ${cash(most)} in eight of ten.`;
}
const { by } = useLived();
const lived = computed(() => by(({ speciesId, form }) => `${speciesId} ${form}`));
/** What a tree costs that lives once it is planted, by walks of this species in this form; null where none was walked. */
function livingWords({ form, of }: CostRow): string | null {
  const group = form && of ? lived.value.get(`${asked.value.speciesId} ${form}`) : undefined;
  if (!group || !of || !Number.isFinite(of.each.middle)) return null;
  const { least, middle, most } = perLiving(of.each.middle, group);
  return say`${livedWords(group)}: a living tree costs ${cash(middle)}, ${cash(least)} to ${cash(most)}, planting not counted.`;
}
const weeksRun = computed(() => judged.value.reduce((total, run) => total + run.points.length, 0));
const opened = ref('');
</script>

<template>
  <div class="grid min-h-full lg:grid-cols-[22rem_1fr]">
    <div class="border-rule space-y-3 p-4 lg:border-r">
      <TreesWanted :asked="asked" />
      <p class="text-muted text-sm">
        {{
          say`Hands at ${cash(nursery.catalogue!.prices.list.hour)} an hour; ground and care as the prices of the yard say.`
        }}
      </p>
    </div>
    <div class="min-w-0 space-y-5 p-4 md:p-5">
      <h1 class="text-2xl">{{ say`Beds or pots` }}</h1>
      <p v-if="forWhom" class="text-muted">
        {{ say`For: ${forWhom}`
        }}<template v-if="price !== null">{{ say`, at ${cash(price)} a tree` }}</template>
      </p>
      <p v-if="ask.fault ?? fault ?? costFault" class="font-bold" role="status">
        {{ ask.fault ?? fault ?? costFault }}
      </p>
      <template v-else>
        <p v-if="!done" class="text-muted" role="status">
          {{ say`Running the weeks ahead: ${weeksRun} of ${days.length * judged.length} …` }}
        </p>
        <p v-if="!judged.length" class="font-bold" role="status">
          {{ say`No route of this species is known here:` }}
          <RouterLink class="quiet" :to="{ name: 'plan-routes', query: { species: asked.speciesId } }">{{
            say`write one`
          }}</RouterLink>.
        </p>
        <section v-if="judged.length" aria-labelledby="by-route">
          <h2 id="by-route" class="text-lg">
            {{ say`What a tree must fetch, to pay its way in ${percent(asked.chance)} of forecasts` }}
          </h2>
          <p class="text-muted flex flex-wrap gap-x-4 text-sm" aria-hidden="true">
            <span v-for="part in partsSeen" :key="part" class="flex items-center gap-1.5"
              ><i class="inline-block size-3 rounded-xs" :class="partWords[part].colour" />{{
                partWords[part].words
              }}</span
            >
          </p>
          <ul class="max-w-5xl" data-testid="costs">
            <li v-for="row in rows" :key="row.run.route.id" class="border-rule border-t py-3">
              <div class="flex flex-wrap items-baseline gap-x-3">
                <b>{{ word(row.run.route.name) }}</b>
                <span v-if="row.form" class="text-muted">{{ formWords[row.form] }}</span>
                <span v-if="row.of" class="text-muted">{{
                  say`sown ${day(row.of.point.on)}, in time ${surely(row.of.point.chance)}`
                }}</span>
                <b v-if="row.of?.isSure" class="ml-auto text-xl">{{ cash(row.of.each.mustFetch) }}</b>
                <b v-else-if="row.of" class="ml-auto">{{ say`not so surely in time` }}</b>
              </div>
              <p class="text-muted text-sm">
                {{ row.run.route.stages.map((stage) => words(stage)).join(' → ') }}
              </p>
              <template v-if="row.of">
                <div class="my-1.5 flex h-4 overflow-hidden rounded-xs" aria-hidden="true">
                  <i
                    v-for="{ part, share, colour } in bar(row)"
                    :key="part"
                    class="block"
                    :class="colour"
                    :style="{ width: `${100 * share}%` }"
                  />
                </div>
                <p class="text-[0.95rem]">
                  {{ bandWords(row) }}
                  <template v-if="price !== null && row.of.isSure">
                    <b v-if="price >= row.of.each.mustFetch">{{
                      say`It leaves ${cash(price - row.of.each.mustFetch)}.`
                    }}</b>
                    <b v-else class="text-wrong">{{
                      say`It fetches ${cash(row.of.each.mustFetch - price)} less than that.`
                    }}</b>
                  </template>
                </p>
                <p v-if="livingWords(row)" class="text-[0.95rem]" data-testid="living-cost">
                  {{ livingWords(row) }}
                </p>
                <p class="text-muted flex flex-wrap gap-x-4 text-sm">
                  <span>{{ say`${Number(row.of.cost.value.hours.toFixed(1))} h of sowing and moving` }}</span>
                  <span>{{ say`${show(row.of.cost.value.groundM2, 'area', 1)} of ground at most` }}</span>
                  <span v-if="row.of.cost.value.waterL !== null">{{
                    say`${show(row.of.cost.value.waterL, 'volume', 0)} of water`
                  }}</span>
                  <span v-if="row.of.cost.value.mediumL">{{
                    say`${show(row.of.cost.value.mediumL, 'volume', 0)} of filling`
                  }}</span>
                  <span v-if="row.of.cost.value.carriedKg === 0">{{ say`carried off bare-root` }}</span>
                  <span v-else-if="row.of.cost.value.carriedKg !== null">{{
                    say`${show(100 * row.of.cost.value.carriedKg, 'mass', 0)} carried off with a hundred`
                  }}</span>
                </p>
                <p v-if="unpriced(row)" class="text-sm">{{ unpriced(row) }}</p>
                <button
                  class="quiet text-sm"
                  type="button"
                  :aria-expanded="opened === row.run.route.id"
                  @click="opened = opened === row.run.route.id ? '' : row.run.route.id"
                >
                  {{ say`What it is made of` }}
                </button>
                <div v-if="opened === row.run.route.id" class="mt-2 space-y-2">
                  <dl class="grid max-w-md grid-cols-[1fr_auto] gap-x-6">
                    <template v-for="part in costParts" :key="part">
                      <template v-if="row.of.cost.value.parts[part] > 0">
                        <dt class="text-muted first-letter:uppercase">{{ partWords[part].words }}</dt>
                        <dd class="text-right">{{ cash(row.of.cost.value.parts[part]) }}</dd>
                      </template>
                    </template>
                    <dt class="font-bold">
                      {{ say`${several(row.of.sowing.wanted.trees, 'tree')} together` }}
                    </dt>
                    <dd class="text-right font-bold">{{ cash(row.of.cost.value.total) }}</dd>
                  </dl>
                  <ShowWorking :steps="row.of.cost.working" />
                </div>
              </template>
              <p v-else-if="row.run.fault" class="font-bold">{{ row.run.fault }}</p>
              <p v-else-if="row.run.isWhole" class="text-muted">{{ say`In time in no week to come.` }}</p>
            </li>
          </ul>
          <p class="text-muted max-w-3xl text-sm">
            {{
              say`Each in its best week, with plants enough for losses, size and time, ${percent(asked.chance)} sure. Losses and hours are the routes’ own; trays are spread over their uses, beds over their life; benches count by the time they are taken, beds by a season at least. Water is a rule of thumb over the weather years; its price is within care.`
            }}
          </p>
        </section>
        <GroundWorth />
      </template>
    </div>
  </div>
</template>
