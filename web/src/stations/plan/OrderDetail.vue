<script setup lang="ts">
import { answerAsk, dayOf, heldBy, isoOf, mightServe, type PromiseAnswer, say } from '@kauri/core';
import type { KeptOrder, OrderLine } from '@kauri/core/contract';
import { AlertTriangle, Check } from 'lucide-vue-next';
import { v7 as newId } from 'uuid';
import { computed, ref, shallowRef, watch } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import { useForecasts } from '../../stores/forecasts';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useOrders } from '../../stores/orders';
import { useParcels } from '../../stores/parcels';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { dateWords } from '../../words/dates';
import { count, odds, several } from '../../words/numbers';
import { money } from '../../words/money';
import SetAsideDialog from '../lift/SetAsideDialog.vue';
import LineLots from './LineLots.vue';
import OrderDialog from './OrderDialog.vue';
import { buyerOf, formWords, isOpen, lineStateWords, sizeWords } from './orderWords';

/** One order: its lines, and whether what stands can meet them beside all that is promised. */
const props = defineProps<{ order: KeptOrder }>();
const nursery = useNursery();
const orders = useOrders();
const parcels = useParcels();
const forecasts = useForecasts();
const season = useSeason();
const session = useSession();
const messages = useMessages();
const router = useRouter();
const { shown, unit } = usePreferences();
const changing = ref(false);
const settingAside = ref<OrderLine | null>(null);

const currency = computed(() => nursery.catalogue!.prices.list.currency);
const speciesName = (id: string) =>
  nursery.lookup.species.get(id)?.common ?? say`a species no longer in the list`;
const answers = shallowRef<ReadonlyMap<string, PromiseAnswer>>(new Map());
const fault = ref<string | null>(null);
let asking = 0;
watch(
  [
    () => props.order,
    () => orders.all,
    () => nursery.facts,
    () => nursery.weatherVersion,
    () => season.today,
  ],
  async () => {
    const mine = ++asking;
    try {
      const found = new Map<string, PromiseAnswer>();
      for (const line of props.order.lines.filter(isOpen)) {
        // Wanted since before today: asked as of today.
        const on = Math.max(season.today, dayOf(line.on));
        const until = Math.max(on, dayOf(line.until));
        const { speciesId, form, fromCm, toCm, lots: only } = line;
        const [lots] = await forecasts.promisable({ speciesId, form, fromCm, toCm }, [on]);
        const others = parcels.wanted(line.id);
        found.set(line.id, answerAsk(lots, others, { speciesId, form, fromCm, toCm, on, until, lots: only }));
        if (mine !== asking) return;
      }
      answers.value = found;
      fault.value = null;
    } catch (error) {
      if (mine === asking) fault.value = sentenceOf(error);
    }
  },
  { immediate: true },
);
/** Lifted trees of a line's species and form. */
const lying = (line: OrderLine) =>
  parcels.lying
    .filter(({ speciesId, form }) => speciesId === line.speciesId && form === line.form)
    .reduce((sum, { held }) => sum + held, 0);
const toCome = (line: OrderLine) => Math.max(0, line.count - line.sent - parcels.asideOfLine(line.id));
/** What can be said of a line from what stands. */
function met(line: OrderLine): { ok: boolean; words: string } | null {
  if (!isOpen(line)) return null;
  const answer = answers.value.get(line.id);
  if (!answer) return null;
  if (toCome(line) === 0) return { ok: true, words: say`All that it still wants is set aside for it.` };
  const free = answer.free ?? 0;
  const wanted = toCome(line);
  if (answer.free === null)
    return {
      ok: false,
      words: say`What is promised of these already is ${count(answer.short)} more than stands.`,
    };
  if (free >= wanted)
    return {
      ok: true,
      words: say`Can be met, size and plugs each nine chances in ten: ${answer.from.map(({ lot }) => lot.code).join(', ')}${free > wanted ? say`; ${count(free - wanted)} to spare` : ''}.`,
    };
  const unsure = answer.others.filter(mightServe);
  return {
    ok: false,
    words:
      say`${free > 0 ? say`${count(free)} stand, ${count(wanted - free)} short` : say`None that stand`} for those days, nine chances in ten.` +
      (unsure.length
        ? say` Not sure enough: ${unsure.map((lot) => say`${lot.code}, whose plugs hold in ${odds(lot.holds)} forecasts`).join('; ')}. Plugs pulled would tell.`
        : ''),
  };
}
const promisedTrees = computed(() => props.order.lines.reduce((t, line) => t + heldBy(line), 0));
async function remove() {
  const { id, version, buyer, reach, note, lines } = props.order;
  try {
    await orders.remove(id, version);
    messages.say(say`Order taken out.`, () => orders.add(newId(), [{ id, buyer, reach, note, lines }]));
    await router.replace({ name: 'plan' });
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
const windowWords = (line: OrderLine) =>
  line.until === line.on ? dateWords(line.on) : say`${dateWords(line.on)} to ${dateWords(line.until)}`;
const today = computed(() => isoOf(season.today));
</script>

<template>
  <article class="space-y-4 p-4 md:p-6">
    <header class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <h1 class="text-2xl">{{ buyerOf(order) }}</h1>
      <span v-if="order.reach" class="text-muted">{{ order.reach }}</span>
      <span class="ml-auto flex gap-3">
        <template v-if="session.may('grower')">
          <button class="act" type="button" @click="changing = true">{{ say`Change` }}</button>
          <button class="quiet" type="button" @click="remove">{{ say`Take it out` }}</button>
        </template>
      </span>
    </header>
    <p v-if="order.note" class="border-ink border-l-4 pl-3">{{ order.note }}</p>
    <p v-if="promisedTrees" class="text-lg font-bold">
      {{ say`${several(promisedTrees, 'tree')} promised and not yet sent` }}
    </p>
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <ul class="space-y-3" data-testid="lines">
      <li v-for="line in order.lines" :key="line.id" class="panel p-4">
        <p class="flex flex-wrap items-baseline gap-x-3">
          <b class="text-lg">{{ count(line.count) }} {{ speciesName(line.speciesId) }}</b>
          <span
            >{{ sizeWords(line, (cm) => shown(cm, 'height'), unit('height')) }},
            {{ formWords[line.form] }}</span
          >
          <span class="border-ink ml-auto rounded border px-2 text-sm font-bold">{{
            lineStateWords[line.state]
          }}</span>
        </p>
        <p class="text-muted">
          {{ windowWords(line)
          }}<template v-if="line.provenance">{{ say`; from ${line.provenance}` }}</template
          ><template v-if="line.goesTo">{{ say`; goes to ${line.goesTo}` }}</template
          ><template v-if="line.price !== null">{{ say`; ${money(line.price, currency)} each` }}</template
          ><template v-if="line.sent">{{ say`; ${count(line.sent)} sent` }}</template>
          <b v-if="isOpen(line) && line.until < today" class="text-wrong">
            {{ say` · its last day has gone by` }}</b
          >
        </p>
        <p v-if="met(line)" class="mt-1 flex items-start gap-2" data-testid="met">
          <component
            :is="met(line)!.ok ? Check : AlertTriangle"
            class="mt-0.5 shrink-0"
            :size="18"
            aria-hidden="true"
          />
          <span>{{ met(line)!.words }}</span>
        </p>
        <p v-else-if="isOpen(line)" class="text-muted mt-1" role="status">{{ say`Asking the lots …` }}</p>
        <p v-if="parcels.asideOfLine(line.id)" class="mt-1 font-bold" data-testid="line-aside">
          {{ say`${several(parcels.asideOfLine(line.id), 'lifted tree')} set aside for it` }}
        </p>
        <LineLots v-if="isOpen(line)" :order="order" :line="line" />
        <button
          v-if="isOpen(line) && session.may('crew') && (lying(line) || parcels.asideOfLine(line.id))"
          class="quiet mr-4"
          type="button"
          @click="settingAside = line"
        >
          {{ say`Set aside from ${several(lying(line), 'tree')} that are lifted` }}
        </button>
        <RouterLink
          v-if="isOpen(line) && session.may('crew') && lying(line)"
          class="quiet mr-4"
          :to="{ name: 'lift-lying', query: { line: line.id } }"
          >{{ say`Send them` }}</RouterLink
        >
        <RouterLink
          v-if="isOpen(line)"
          class="quiet"
          :to="{
            name: 'plan-promise',
            query: {
              species: line.speciesId,
              form: line.form,
              from: line.fromCm,
              to: line.toCm,
              on: line.on,
            },
          }"
          >{{ say`What else could be promised of these` }}</RouterLink
        >
      </li>
    </ul>
    <SetAsideDialog v-if="settingAside" :order="order" :line="settingAside" @close="settingAside = null" />
    <OrderDialog v-if="changing" :order="order" @close="changing = false" />
  </article>
</template>
