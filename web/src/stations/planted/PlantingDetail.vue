<script setup lang="ts">
import {
  dayOf,
  goneOf,
  isoOf,
  nextPlanting,
  placesToReplace,
  plantedCases,
  seedsToSow,
  survivalGroups,
  Unfit,
  type Guard,
  type PlantingSeen,
  say,
} from '@kauri/core';
import type { PlantedPart, Walk, WalkSheet } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { computed, ref, shallowRef, watch } from 'vue';
import { RouterLink } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import PlantTag from '../../parts/PlantTag.vue';
import SelectField from '../../parts/SelectField.vue';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useOrders } from '../../stores/orders';
import { usePlantings } from '../../stores/plantings';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { dateWords } from '../../words/dates';
import { count, several } from '../../words/numbers';
import { deathWords, foundWords, groundWords, guardWords, optionsOf, stakeWords } from '../../words/planted';
import { useGradeWords } from '../lift/parcelWords';
import { formWords } from '../plan/orderWords';
import PlantDialog from './PlantDialog.vue';
import { decisionOf, livingWords } from './plantedWords';
import PlantingDialog from './PlantingDialog.vue';
import PlantingPlan from './PlantingPlan.vue';
import WalkDialog from './WalkDialog.vue';

/** One planting: what it asks for, its ground, what stands there and how it fares. */
const props = defineProps<{ seen: PlantingSeen }>();
const plantings = usePlantings();
const nursery = useNursery();
const orders = useOrders();
const season = useSeason();
const session = useSession();
const messages = useMessages();
const gradeWords = useGradeWords();
const { show } = usePreferences();
const sheetOpen = ref<'change' | 'plant' | 'walk' | null>(null);
const fault = ref<string | null>(null);

const planting = computed(() => props.seen.planting);
const may = computed(() => session.may('crew'));
const species = (id: string) => nursery.lookup.species.get(id)?.common ?? '';
const decision = computed(() => decisionOf(props.seen, season.view, (c) => show(c, 'temperature', 0)));
const about = computed(() =>
  [
    planting.value.where,
    planting.value.purpose,
    groundWords[planting.value.ground],
    planting.value.mulch && say`mulch: ${planting.value.mulch}`,
  ]
    .filter(Boolean)
    .join(' · '),
);

/** The last walk tree by tree, for the drawing; a late answer to an old question is dropped. */
const walked = shallowRef<WalkSheet | null>(null);
watch(
  () => props.seen.walks[0]?.id ?? null,
  async (id) => {
    walked.value = null;
    if (id === null) return;
    try {
      const sheet = await plantings.sheet(id);
      if (props.seen.walks[0]?.id === id) walked.value = sheet;
    } catch (error) {
      fault.value = sentenceOf(error);
    }
  },
  { immediate: true },
);
const replaceAt = computed(() => (walked.value ? placesToReplace(planting.value, walked.value.marks) : []));
const lastFound = (part: PlantedPart) => {
  const of = props.seen.walks[0]?.found.find(({ partId }) => partId === part.id);
  return of ? foundWords(of.found) : props.seen.walks.length ? say`not looked at` : '';
};
const causesOf = (walk: Walk) => {
  const sums = new Map<string, number>();
  for (const { causes } of walk.found)
    for (const { cause, count: n } of causes)
      sums.set(deathWords[cause], (sums.get(deathWords[cause]) ?? 0) + n);
  return [...sums]
    .sort((a, b) => b[1] - a[1])
    .map(([words, n]) => `${words} ${count(n)}`)
    .join(', ');
};
const totalOf = (walk: Walk) => {
  const total: Record<string, number> = {};
  for (const { found } of walk.found)
    for (const [state, n] of Object.entries(found)) total[state] = (total[state] ?? 0) + n;
  return foundWords(total);
};

/** Chance with which what is ordered is to replace what died. */
const CHANCE = 0.9;
/** What to order of each species so that as many live as died, by how its plantings fare. */
const toOrder = computed(() => {
  const cases = plantedCases(plantings.kept, season.view);
  const { groups } = survivalGroups(
    cases.map(({ speciesId, alive, dead }) => ({ group: speciesId, alive, dead })),
  );
  return goneOf(props.seen).map((of) => {
    const { next } = groups.find(({ group }) => group === of.speciesId)!;
    let order: number | null;
    try {
      order = seedsToSow({ target: of.gone, probability: CHANCE, stages: [next] }).value;
    } catch (error) {
      if (!(error instanceof Unfit)) throw error;
      order = null;
    }
    return { ...of, order };
  });
});
const hoped = ref<ReadonlySet<string>>(new Set());
async function hope({ speciesId, part, order }: (typeof toOrder.value)[number]) {
  const { latitudeDeg } = nursery.catalogue!.nursery;
  const { on, until } = nextPlanting(latitudeDeg, season.today);
  fault.value = null;
  try {
    await orders.add(newId(), [
      {
        id: newId(),
        buyer: '',
        reach: '',
        note: say`To replace what died in ${planting.value.name}`,
        lines: [
          {
            id: newId(),
            speciesId,
            provenance: '',
            form: part.form,
            fromCm: part.fromCm,
            toCm: part.toCm,
            count: order!,
            sent: 0,
            on: isoOf(on),
            until: isoOf(until),
            goesTo: planting.value.name,
            price: null,
            state: 'asked',
          },
        ],
      },
    ]);
    hoped.value = new Set([...hoped.value, speciesId]);
    messages.say(say`${count(order!)} ${species(speciesId)} written into Plan as a hope.`);
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}

async function act(work: () => Promise<unknown>, said: string) {
  fault.value = null;
  try {
    await work();
    messages.say(said);
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
const changeGuard = (part: PlantedPart, guard: Guard) =>
  act(
    () => plantings.changeGuard(planting.value.id, part.id, guard),
    say`${part.code}: ${guardWords[guard]} from now on.`,
  );
const takeBack = (part: PlantedPart) =>
  act(() => plantings.takeBack(planting.value.id, part.id), say`Taken back: the trees lie where they lay.`);
const takeBackWalk = (walk: Walk) => act(() => plantings.takeBackWalk(walk.id), say`The walk is taken back.`);
</script>

<template>
  <div class="max-w-5xl space-y-6 p-4 md:p-6">
    <RouterLink class="quiet md:hidden" :to="{ name: 'planted' }">{{ say`All plantings` }}</RouterLink>
    <header>
      <h1 class="text-2xl">{{ planting.name }}</h1>
      <p class="text-muted">{{ about }}</p>
    </header>
    <div class="flex"><PlantTag v-bind="decision" /></div>
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <div v-if="may" class="flex flex-wrap items-center gap-3">
      <RouterLink
        v-if="seen.underWay"
        class="act-main"
        :to="{ name: 'planted-walk', params: { walk: seen.underWay.id } }"
        >{{ say`Go along on the walk` }}</RouterLink
      >
      <button v-else-if="seen.trees" class="act-main" type="button" @click="sheetOpen = 'walk'">
        {{ say`Walk it` }}
      </button>
      <button :class="seen.trees ? 'act' : 'act-main'" type="button" @click="sheetOpen = 'plant'">
        {{ say`Plant trees here` }}
      </button>
      <button class="quiet" type="button" @click="sheetOpen = 'change'">{{ say`Change` }}</button>
    </div>
    <p v-if="seen.living" class="text-lg" data-testid="living">
      <b>{{ livingWords(seen.living) }}</b><template v-if="seen.living.seen < seen.living.trees">{{
        say`: ${count(seen.living.seenAlive)} of ${count(seen.living.seen)} looked at`
      }}</template
      >.
    </p>
    <PlantingPlan :planting="planting" :sheet="walked" />
    <section v-if="toOrder.length" aria-labelledby="replace">
      <h2 id="replace" class="mb-1 text-lg">{{ say`To replace` }}</h2>
      <ul class="divide-rule border-rule divide-y border-y" data-testid="replace">
        <li v-for="one in toOrder" :key="one.speciesId" class="flex flex-wrap items-center gap-x-4 py-2">
          <span class="min-w-0 flex-1 basis-72">
            <b>{{ species(one.speciesId) }}</b>{{ say`: ${count(one.gone)} gone.` }}
            <template v-if="one.order"
              >{{ say`For ${count(one.gone)} that live, nine times in ten, plant` }}
              <b>{{ count(one.order) }}</b>{{ say`, by how your plantings of it fare.` }}</template
            >
            <template v-else>{{ say`So few of it live that no number makes up for them.` }}</template>
          </span>
          <span v-if="hoped.has(one.speciesId)" class="text-muted">{{ say`in Plan` }}</span>
          <button v-else-if="one.order && session.may('grower')" class="act" type="button" @click="hope(one)">
            {{ say`Write into Plan` }}
          </button>
        </li>
      </ul>
      <details v-if="replaceAt.length" class="mt-1">
        <summary class="quiet list-none">{{ say`Where they stood` }}</summary>
        <ul class="columns-2 gap-6 sm:columns-3">
          <li v-for="{ row, at } in replaceAt" :key="row">
            {{ say`Row ${count(row)}: ${at.length === 1 ? say`tree` : say`trees`} ${at.join(', ')}` }}
          </li>
        </ul>
      </details>
    </section>
    <section v-if="seen.parts.length" aria-labelledby="stands">
      <h2 id="stands" class="mb-1 text-lg">{{ say`What was planted` }}</h2>
      <ul class="divide-rule border-rule divide-y border-y" data-testid="planted-parts">
        <li v-for="part in seen.parts" :key="part.id" class="flex flex-wrap items-end gap-x-4 gap-y-1 py-2">
          <span class="min-w-16 self-center text-right text-xl font-bold tabular-nums">{{
            count(part.count)
          }}</span>
          <span class="min-w-0 flex-1 basis-64">
            <span class="block">
              <b>{{ species(part.speciesId) }}</b>, {{ gradeWords(part) }}
              <RouterLink class="quiet ml-1" :to="{ name: 'grow', params: { lot: part.lotId } }">{{
                part.code
              }}</RouterLink>
            </span>
            <span class="text-muted block text-[0.95rem]">
              {{
                say`${formWords[part.form]}${part.raisedIn ? say`, from ${part.raisedIn}` : ''}; planted ${dateWords(part.on)}${part.planter ? say` by ${part.planter}` : ''}; ${stakeWords[part.stake]}`
              }}<template v-if="part.guard !== part.guardNow">{{
                say`; ${guardWords[part.guard]} at first`
              }}</template>
              <span v-if="lastFound(part)" class="block">{{ say`Last walk: ${lastFound(part)}` }}</span>
              <span v-if="part.note" class="block">{{ part.note }}</span>
            </span>
          </span>
          <SelectField
            v-if="may"
            class="w-44"
            :model-value="part.guardNow"
            :label="say`About them now`"
            :options="optionsOf(guardWords)"
            @update:model-value="(guard: Guard) => changeGuard(part, guard)"
          />
          <span v-else class="self-center">{{ guardWords[part.guardNow] }}</span>
          <button v-if="may && !seen.walks.length" class="quiet pb-1" type="button" @click="takeBack(part)">
            {{ say`Take back` }}
          </button>
        </li>
      </ul>
    </section>
    <section v-if="seen.walks.length" aria-labelledby="walks">
      <h2 id="walks" class="mb-1 text-lg">{{ say`Walks` }}</h2>
      <ul class="divide-rule border-rule divide-y border-y" data-testid="walks">
        <li v-for="walk in seen.walks" :key="walk.id" class="flex flex-wrap items-baseline gap-x-4 py-2">
          <span class="w-32 whitespace-nowrap">{{ dateWords(walk.on) }}</span>
          <span class="min-w-0 flex-1 basis-64">
            <b>{{ totalOf(walk) }}</b>{{ causesOf(walk) ? `: ${causesOf(walk)}` : '' }}
            <span class="text-muted block text-[0.95rem]">
              {{
                say`${walk.kind === 'every' ? say`every tree` : say`${several(walk.trees, 'tree')} drawn by lot`}, by ${walk.by}${walk.note ? `; ${walk.note}` : ''}`
              }}
            </span>
          </span>
          <button
            v-if="may && season.today - dayOf(walk.on) < 60"
            class="quiet"
            type="button"
            @click="takeBackWalk(walk)"
          >
            {{ say`Take back` }}
          </button>
        </li>
      </ul>
    </section>
    <PlantingDialog v-if="sheetOpen === 'change'" :planting="planting" @close="sheetOpen = null" />
    <PlantDialog v-if="sheetOpen === 'plant'" :planting="planting" @close="sheetOpen = null" />
    <WalkDialog v-if="sheetOpen === 'walk'" :seen="seen" @close="sheetOpen = null" />
  </div>
</template>
