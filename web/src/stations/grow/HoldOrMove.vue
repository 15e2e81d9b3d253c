<script setup lang="ts">
import { homeOf, startingTreePrices, type Choice, type LotForecast, type TreePrices, say } from '@kauri/core';
import { watchDebounced } from '@vueuse/core';
import { computed, ref, shallowRef } from 'vue';
import { call } from '../../api/client';
import FormField from '../../parts/FormField.vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import type { ShownLot } from '../../parts/useLots';
import { useSaving } from '../../parts/useSaving';
import { useForecasts } from '../../stores/forecasts';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { shortDate, yearOf } from '../../words/dates';
import { percent, several, surely } from '../../words/numbers';
import { money } from '../../words/money';
import { holdAnswer } from './holdAnswer';
import { nextSize } from './nextSize';

/** A lot over the seasons ahead, and whether to let it go, hold it or move it up: what each is worth, and how sure. */
const props = defineProps<{ lot: ShownLot }>();
const forecasts = useForecasts();
const nursery = useNursery();
const season = useSeason();
const session = useSession();
const messages = useMessages();
const { show, shown, typed, unit } = usePreferences();

const prices = computed<TreePrices>(() => nursery.catalogue!.prices.list.trees ?? startingTreePrices);
const isStarting = computed(() => nursery.catalogue!.prices.list.trees === undefined);
const currency = computed(() => nursery.catalogue!.prices.list.currency);
const cash = (value: number) => money(value, currency.value);

const target = computed(() => nextSize(props.lot.facts.home, nursery.catalogue!.containers));
const move = computed(() => {
  const { home } = props.lot.facts;
  const { stage } = props.lot.row;
  if (home.kind !== 'container' || home.pitchMm === null || !target.value) return null;
  return {
    from: season.today + 1,
    home: homeOf('', { ...stage, containerTypeId: target.value.id, densityPerM2: null }, nursery.lookup),
  };
});
const seen = shallowRef<{ stays: LotForecast; moves: LotForecast | null } | null>(null);
watchDebounced(
  [() => props.lot.row.id, () => props.lot.facts, move],
  async ([id], [before]) => {
    // Another lot's seasons are never shown as this one's.
    if (id !== before) seen.value = null;
    const answer = await forecasts.seasons(id, move.value);
    if (id === props.lot.row.id) seen.value = answer;
  },
  { immediate: true, debounce: 60 },
);
const answer = computed(() =>
  seen.value
    ? holdAnswer(seen.value, props.lot.facts.home, move.value?.home ?? null, prices.value)
    : { said: null, fault: null },
);
const choiceWords: Record<Choice, string> = {
  now: say`Sell or plant now`,
  hold: say`Hold where it stands`,
  move: say`Move up`,
};
const headline = computed(() => {
  const value = answer.value.said?.value;
  if (!value) return '';
  const best = value.choices.find((c) => c.choice === value.best)!;
  const what =
    value.best === 'hold'
      ? say`Hold it ${several(value.seasons, 'season')}`
      : value.best === 'move'
        ? say`Move it up to ${target.value!.values.name}`
        : say`Let it go now`;
  return say`${what}: the best in ${surely(best.chanceBest)} of forecasts`;
});
const ends = computed(() => seen.value?.stays.seasonEnds?.ends ?? []);
const day = (value: number) => shortDate(value, yearOf(season.today));

/** The square metre, or foot, by which the grower counts ground. */
const perM2 = computed(() => typed(1, 'area'));
const editing = ref(false);
const form = ref({ ladder: '', place: '', care: '', move: '', loss: '' });
const { busy, save, sentence } = useSaving('tree-prices');
const plainText = (n: number) => String(Number(n.toFixed(3)));
function edit() {
  const p = prices.value;
  form.value = {
    ladder: p.ladder.map((s) => `${plainText(shown(s.fromCm, 'height'))}: ${plainText(s.price)}`).join('; '),
    place: plainText(p.placePerM2 * perM2.value),
    care: plainText(p.carePerTree),
    move: plainText(p.moveOnce),
    loss: plainText(p.lossPct),
  };
  editing.value = true;
}
async function keep() {
  const f = form.value;
  const trees: TreePrices = {
    ladder: f.ladder
      .split(';')
      .filter((part) => part.trim())
      .map((part) => {
        const [from, price] = part.split(':');
        return { fromCm: typed(typedNumber(from), 'height'), price: typedNumber(price ?? '') };
      })
      .sort((a, b) => a.fromCm - b.fromCm),
    placePerM2: typedNumber(f.place) / perM2.value,
    carePerTree: typedNumber(f.care),
    moveOnce: typedNumber(f.move),
    lossPct: typedNumber(f.loss),
  };
  const before = nursery.catalogue!.prices;
  const list = { ...before.list, trees };
  const kept = await save({ list }, () =>
    call('setPrices', { params: nursery.params, body: { version: before.version, list } }),
  );
  if (!kept) return;
  nursery.takeCatalogue({ prices: kept });
  editing.value = false;
  messages.say(say`Prices of trees kept.`);
}
</script>

<template>
  <section aria-labelledby="hold-or-move" data-testid="hold-or-move">
    <h2 id="hold-or-move" class="sr-only">{{ say`Seasons ahead: hold, move or let go` }}</h2>
    <p v-if="!seen" role="status" class="text-muted">{{ say`Working out the seasons …` }}</p>
    <template v-else>
      <p v-if="answer.fault" class="font-bold" role="status">{{ answer.fault }}</p>
      <p v-else class="text-lg font-bold" data-testid="hold-answer">{{ headline }}</p>
      <div class="mt-1 grid gap-x-8 gap-y-2 md:grid-cols-2">
        <table v-if="ends.length" class="text-[0.95rem]" data-testid="season-ends">
          <caption class="text-muted text-left">
            {{
              say`Where it stands, at the end of each season`
            }}
          </caption>
          <tbody>
            <tr v-for="end in ends" :key="end.on" class="border-rule border-t">
              <th scope="row" class="py-1 pr-4 text-left font-normal">{{ day(end.on) }}</th>
              <td class="pr-4 text-right">
                <b>{{ show(end.heightCm.p50, 'height') }}</b>
              </td>
              <td class="text-muted pr-4">
                {{ say`${show(end.heightCm.p10, 'height')} to ${show(end.heightCm.p90, 'height')}` }}
              </td>
              <td v-if="end.shareToSize !== null">{{ say`${percent(end.shareToSize)} to size` }}</td>
            </tr>
          </tbody>
        </table>
        <table v-if="answer.said" class="text-[0.95rem]" data-testid="hold-choices">
          <caption class="text-muted text-left">
            {{
              say`What a tree is worth by it, costs off`
            }}
          </caption>
          <tbody>
            <tr v-for="c in answer.said.value.choices" :key="c.choice" class="border-rule border-t">
              <th
                scope="row"
                class="py-1 pr-4 text-left"
                :class="c.choice === answer.said.value.best ? 'font-bold' : 'font-normal'"
              >
                {{ choiceWords[c.choice] }}
              </th>
              <td class="pr-4 text-right font-bold">{{ cash(c.value) }}</td>
              <td class="text-muted">{{ say`best in ${surely(c.chanceBest)}` }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="answer.said" class="mt-1">
        <template v-if="answer.said.value.turnsAt !== null"
          >{{ say`It turns where a season’s place and care costs more than` }}
          <b>{{ cash(answer.said.value.turnsAt) }}</b> {{ say`a tree. ` }}
        </template>
        <template v-if="isStarting"
          ><b>{{ say`Prices are Kauri’s starting values, not yours` }}</b
          >{{ say`: put in your own before you act on this. ` }}
        </template>
        <button v-if="session.may('grower') && !editing" class="quiet" type="button" @click="edit">
          {{ say`Prices of your trees` }}
        </button>
      </p>
      <form
        v-if="editing"
        class="panel mt-2 grid max-w-2xl gap-2 p-3 md:grid-cols-2"
        novalidate
        @submit.prevent="keep"
      >
        <FormField
          v-model="form.ladder"
          class="md:col-span-2"
          :label="say`From ${unit('height')}: price of a tree`"
          :hint="say`Parted by ; as 20: 0.80; 40: 1.30`"
        />
        <FormField
          v-model="form.place"
          :label="say`${show(perM2, 'area', 0)} of ground, a season`"
          :unit="currency"
          inputmode="decimal"
        />
        <FormField
          v-model="form.care"
          :label="say`Care of a tree, a season`"
          :unit="currency"
          inputmode="decimal"
        />
        <FormField
          v-model="form.move"
          :label="say`Moving a tree up once`"
          :unit="currency"
          inputmode="decimal"
        />
        <FormField v-model="form.loss" :label="say`Lost in a season`" unit="%" inputmode="decimal" />
        <SheetActs
          class="md:col-span-2"
          :act="say`Keep prices`"
          :busy="busy"
          :sentence="sentence()"
          @save="keep"
        />
      </form>
      <ShowWorking v-if="answer.said" :steps="answer.said.working" />
    </template>
  </section>
</template>
