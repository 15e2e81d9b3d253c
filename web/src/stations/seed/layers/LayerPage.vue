<script setup lang="ts">
import { seenWords } from '../../../words/roots';
import { betaMean, pooledShare, say } from '@kauri/core';
import { rootsSeen, type Layer } from '@kauri/core/contract';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import PlantTag from '../../../parts/PlantTag.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSeason } from '../../../stores/season';
import { useSeed } from '../../../stores/seed';
import { useSession } from '../../../stores/session';
import { dateWords, longDate, yearOf } from '../../../words/dates';
import { percent, surely } from '../../../words/numbers';
import { useSeedAct } from '../useSeedAct';
import LayerBranch from './LayerBranch.vue';
import SeverDialog from './SeverDialog.vue';

const props = defineProps<{ layer: Layer; onBranch: boolean }>();
const nursery = useNursery();
const seed = useSeed();
const season = useSeason();
const session = useSession();
const { show } = usePreferences();
const severing = ref(false);
const outlook = computed(() => seed.layering.get(props.layer.id) ?? null);
const potted = computed(() => [...nursery.lots.values()].find((l) => l.layerId === props.layer.id) ?? null);
const looks = computed(() => seed.recordsOf(props.layer.id, 'look').slice().reverse());
const day = (value: number) => longDate(value, yearOf(season.view));
const { send, sentence } = useSeedAct('checkLayer', { layer: props.layer.id }, {});
const look = (roots: (typeof rootsSeen)[number]) =>
  send({ roots, on: season.todayIso, note: '' }, say`${props.layer.tree}: roots ${roots}.`, { undo: true });

/** Layers of this species that were severed or given up. */
const takes = computed(() => {
  const { layer } = seed.startFor(props.layer.speciesId);
  if (!layer) return null;
  const done = seed.known.layers.filter((l) => l.speciesId === props.layer.speciesId && l.outcome !== null);
  // Severed without roots seen is no success yet.
  const sawRoots = (id: string) => seed.recordsOf(id, 'look').some((r) => r.values.roots !== 'none');
  const outcomes = done.map((l) => ({ k: l.outcome === 'rooted' && sawRoots(l.id) ? 1 : 0, n: 1 }));
  return { share: pooledShare(layer.take, outcomes), done: done.length };
});
const words = computed(() => {
  const { layer } = props;
  if (!props.onBranch)
    return {
      headline: layer.outcome === 'rooted' ? say`Severed and potted` : say`Given up`,
      detail: `${dateWords(layer.severedOn!)}${layer.potL === null ? '' : say`, into ${show(layer.potL, 'volume', 1)}`}.`,
      urgent: false,
    };
  const o = outlook.value?.value;
  if (!o)
    return {
      headline: say`No rooting time is known for this species`,
      detail: say`Look every month.`,
      urgent: false,
    };
  const seen = looks.value[0]?.values.roots;
  if (seen === 'many' && o.severBy >= seed.asOf)
    return {
      headline: say`Sever by ${day(o.severBy)}`,
      detail: say`Roots show through the film: cut below them, soak, pot into ${show(o.potL, 'volume')}, shade for two weeks.`,
      urgent: o.severBy <= seed.asOf + 14,
    };
  if (o.severBy < seed.asOf || o.window.keptOn)
    return {
      headline: say`Keep it on, wrapped, until roots are there next year`,
      detail: say`${o.severBy < seed.asOf ? say`Too late to sever this year.` : say`Roots are there by ${day(o.severBy)}, the last day of this year, in only ${surely(o.chanceInTime)} of forecasts.`} Sever between ${day(o.window.from)} and ${day(o.window.by)}, once roots are seen.`,
      urgent: false,
    };
  return {
    headline: say`Roots around ${day(o.rooted.p50)}; sever by ${day(o.severBy)}`,
    detail: say`Rooted in time: ${surely(o.chanceInTime)}. First frost around ${day(o.firstFrost.p50)}.`,
    urgent: false,
  };
});
const seasonWords = computed(() => {
  const o = outlook.value?.value;
  if (!o || !props.onBranch) return '';
  return o.season === 'good'
    ? say`Begun in season: ${day(o.good.from)} to ${day(o.good.to)} is good.`
    : o.season === 'early'
      ? say`Begun early: nothing happens before the sap moves, around ${day(o.good.from)}.`
      : say`Begun late: after ${day(o.good.to)}, so the autumn leaves ${surely(o.chanceInTime)} of a chance.`;
});
</script>

<template>
  <article class="space-y-4 p-4 md:p-5">
    <div class="flex flex-wrap items-baseline gap-x-3">
      <RouterLink class="quiet lg:hidden" :to="{ name: 'seed-layers' }">{{ say`All layers` }}</RouterLink>
      <h1 class="text-2xl">{{ layer.tree }}</h1>
      <p class="text-lg">{{ seed.speciesOf(layer.speciesId).common }}</p>
      <p class="text-muted">{{ say`made ${dateWords(layer.madeOn)}` }}</p>
    </div>
    <PlantTag v-bind="words" />
    <p v-if="potted">
      {{ say`It goes on as lot` }}
      <RouterLink class="quiet font-bold" :to="{ name: 'grow', params: { lot: potted.id } }">{{
        potted.code
      }}</RouterLink>.
    </p>
    <div v-if="onBranch && session.may('crew')" class="flex flex-wrap items-center gap-2">
      <span class="font-bold">{{ say`Roots through the film:` }}</span>
      <button v-for="roots in rootsSeen" :key="roots" class="act" type="button" @click="look(roots)">
        {{ roots === 'none' ? say`none yet` : roots }}
      </button>
      <button class="act-main" type="button" @click="severing = true">{{ say`Sever, or give up` }}</button>
    </div>
    <p v-if="sentence()" class="text-wrong font-bold" role="alert">{{ sentence() }}</p>
    <p v-if="seasonWords">{{ seasonWords }}</p>
    <div class="grid gap-5 xl:grid-cols-2">
      <LayerBranch :layer="layer" />
      <div class="space-y-3">
        <p>
          {{
            say`Branch ${show(layer.branchMm, 'diameter')}, ring ${show(layer.ringMm, 'timber')} of ${show(layer.freeMm, 'timber')} clear, ${layer.pouch} pouch`
          }}<template v-if="layer.hormone">, {{ layer.hormone }}</template
          >. {{ layer.note }}
        </p>
        <p v-if="takes" data-testid="takes">
          {{ say`Layers of this species that take:` }} <b>{{ percent(betaMean(takes.share.beta)) }}</b>{{
            ' '
          }}
          <span :class="takes.done ? 'text-muted' : 'text-root font-bold'">
            {{ takes.done ? say`from your ${takes.done} and the starting value` : say`starting value` }}</span
          >
        </p>
        <section aria-labelledby="looks">
          <h2 id="looks" class="text-lg">{{ say`Looks` }}</h2>
          <ul v-if="looks.length" class="text-[0.95rem]" data-testid="looks">
            <li v-for="l in looks" :key="l.id" class="border-rule border-t py-1">
              {{ dateWords(l.on) }}:
              <b>{{ l.values.roots === 'none' ? say`no roots` : say`${seenWords[l.values.roots]} roots` }}</b>
              {{ l.note }}
            </li>
          </ul>
          <p v-else class="text-muted">
            {{ say`Not looked at yet. White roots through the film are the sign.` }}
          </p>
        </section>
      </div>
    </div>
    <ShowWorking v-if="outlook" :steps="outlook.working" />
    <SeverDialog
      :roots-seen="looks.some((l) => l.values.roots !== 'none')"
      v-if="severing"
      :layer="layer"
      :pot-l="outlook?.value.potL ?? null"
      @close="severing = false"
    />
  </article>
</template>
