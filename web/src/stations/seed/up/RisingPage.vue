<script setup lang="ts">
import { say } from '@kauri/core';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { call } from '../../../api/client';
import { sentenceOf } from '../../../api/problem';
import PlantTag from '../../../parts/PlantTag.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { useMessages } from '../../../stores/messages';
import { useNursery } from '../../../stores/nursery';
import { useSeason } from '../../../stores/season';
import { useSeed } from '../../../stores/seed';
import { useSession } from '../../../stores/session';
import { longDate, yearOf } from '../../../words/dates';
import { count, percent } from '../../../words/numbers';
import CountDialog from '../../grow/CountDialog.vue';
import WriteOffDialog from '../../grow/WriteOffDialog.vue';
import ComparePanel from './ComparePanel.vue';
import PrickOutDialog from './PrickOutDialog.vue';
import RisingChart from './RisingChart.vue';
import type { RisingLot } from './useComingUp';

const props = defineProps<{ rising: RisingLot; all: readonly RisingLot[] }>();
const nursery = useNursery();
const seed = useSeed();
const season = useSeason();
const session = useSession();
const messages = useMessages();
const sheet = ref<'count' | 'prick' | 'write-off' | null>(null);

const row = computed(() => props.rising.lot.row);
const tally = computed(() => props.rising.lot.view.standing.tally);
const since = computed(() => props.rising.outlook?.value.since ?? props.rising.lot.facts.sownOn);
const day = (value: number) => longDate(value, yearOf(season.view));
const words = computed(() => {
  const o = props.rising.outlook?.value;
  if (!o) return null;
  if (tally.value.sown === 0)
    return {
      headline: say`${count(o.upNow)} of ${count(props.rising.sown)} came up`,
      detail: say`Its emergence is over; what never came is written down.`,
      urgent: false,
    };
  if (since.value > seed.asOf)
    return {
      headline: say`Nothing is due before ${day(since.value)}`,
      detail: say`Winter is to wake it; warmth counts from then.`,
      urgent: false,
    };
  if (o.late)
    return {
      headline: o.upNow
        ? say`Late: ${count(o.upNow)} up where ${count(o.expectedNow)} are usual by now`
        : say`Late: nothing up where ${count(o.expectedNow)} are usual by now`,
      detail: say`Scratch for seed and cut a few open. Sound seed may come next year: keep it. Rotten or empty: write it off.`,
      urgent: false,
    };
  return {
    headline: say`${count(o.final.p50)} come up in all, of ${count(props.rising.sown)} sown`,
    detail: say`In one case of ten fewer than ${count(o.final.p10)}, in one of ten more than ${count(o.final.p90)}. Count last around ${day(o.countLastOn)}.`,
    urgent: false,
  };
});
/** Seed that did not come is left in the ground for one winter more; the forecast follows. */
async function keepOn() {
  const { id, version, targetHeightCm, leafFallOn, note, extraWinters, code } = row.value;
  const body = { version, targetHeightCm, leafFallOn, note, extraWinters: extraWinters + 1 };
  try {
    nursery.takeLot(await call('editLot', { params: { ...nursery.params, lot: id }, body }));
    messages.say(say`${code} lies another winter.`, async () => {
      nursery.takeLot(
        await call('editLot', {
          params: { ...nursery.params, lot: id },
          body: { ...body, version: version + 1, extraWinters },
        }),
      );
    });
  } catch (error) {
    messages.say(sentenceOf(error));
  }
}
const last = computed(() => nursery.evidence.get(row.value.id)?.counts.at(-1) ?? null);
const arms = computed(() =>
  row.value.seedLotId === null || row.value.origin !== 'seed'
    ? []
    : props.all.filter((r) => r.lot.row.seedLotId === row.value.seedLotId && r.lot.row.origin === 'seed'),
);
</script>

<template>
  <article class="space-y-4 p-4 md:p-5">
    <div class="flex flex-wrap items-baseline gap-x-3">
      <RouterLink class="quiet lg:hidden" :to="{ name: 'seed-up' }">{{ say`All lots coming up` }}</RouterLink>
      <h1 class="text-2xl">{{ row.code }}</h1>
      <p class="text-lg">{{ rising.lot.species }}</p>
      <p class="text-muted">{{ rising.lot.where }}</p>
      <RouterLink class="quiet" :to="{ name: 'grow', params: { lot: row.id } }">{{
        say`The lot’s page`
      }}</RouterLink>
    </div>
    <div class="flex flex-wrap items-stretch gap-3">
      <PlantTag v-if="words" class="min-w-72" v-bind="words" />
      <div v-if="session.may('crew')" class="flex max-w-full flex-wrap content-start gap-2 xl:max-w-80">
        <button class="act" type="button" @click="sheet = 'count'">{{ say`Count` }}</button>
        <button v-if="tally.standing" class="act" type="button" @click="sheet = 'prick'">
          {{ say`Prick out` }}
        </button>
        <button v-if="session.may('grower') && tally.sown" class="act" type="button" @click="keepOn">
          {{ say`Keep another year` }}
        </button>
        <button v-if="tally.sown" class="act" type="button" @click="sheet = 'write-off'">
          {{ say`Write off` }}
        </button>
      </div>
    </div>
    <RisingChart v-if="rising.outlook" :rising="rising" :since="since" />
    <p v-if="last && (last.multi !== null || last.damaged !== null)">
      {{ say`At the last count` }}
      <template v-if="last.multi !== null">{{
        say`${count(last.multi)} had several stems (${percent(last.count ? last.multi / last.count : 0)})`
      }}</template><template v-if="last.multi !== null && last.damaged !== null"> {{ say` and ` }} </template
      ><template v-if="last.damaged !== null">{{ say`${count(last.damaged)} were damaged` }}</template
      >.
    </p>
    <ShowWorking v-if="rising.outlook" :steps="rising.outlook.working" />
    <ComparePanel v-if="arms.length > 1" :arms="arms" />
    <CountDialog v-if="sheet === 'count'" :lot="rising.lot" @close="sheet = null" />
    <PrickOutDialog v-if="sheet === 'prick'" :lot="rising.lot" @close="sheet = null" />
    <WriteOffDialog v-if="sheet === 'write-off'" :lot="rising.lot" @close="sheet = null" />
  </article>
</template>
