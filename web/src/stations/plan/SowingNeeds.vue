<script setup lang="ts">
import { plantsByStage, wakingOf, type RoutePoint, say } from '@kauri/core';
import type { RaisingRoute } from '@kauri/core/contract';
import { watchDebounced } from '@vueuse/core';
import { computed, onMounted, ref, shallowRef } from 'vue';
import { RouterLink } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { useSeed } from '../../stores/seed';
import { longDate, yearOf } from '../../words/dates';
import { count, percent, surely, several } from '../../words/numbers';
import { plain, seedWork } from '../../workers/seedWork';
import { useStageWords } from './routeWords';

/** What the best week asks for: plants at each stage, seed, and the day its treatment begins. */
const props = defineProps<{ route: RaisingRoute; point: RoutePoint; trees: number; chance: number }>();
const nursery = useNursery();
const words = useStageWords();
const seed = useSeed();
const season = useSeason();
const { show } = usePreferences();

const leave = computed(() => Math.ceil(props.trees / Math.max(0.01, props.point.serves)));
const plants = computed(() => plantsByStage(leave.value, props.route.stages));
const fault = ref<string | null>(null);
onMounted(() => seed.load().catch((error: unknown) => (fault.value = sentenceOf(error))));
const seedHere = computed(() => seed.loaded === nursery.nurseryId);
const sown = computed(() => props.route.start !== 'cuttings');
const sowing = shallowRef<{ seeds: number; grams: number } | null>(null);
const begin = ref<number | null>(null);
let asking = 0;
watchDebounced(
  [plants, () => props.route, () => props.point.on, () => props.chance, seedHere],
  async () => {
    const mine = ++asking;
    if (!seedHere.value || !sown.value) return;
    const { speciesId, start } = props.route;
    const species = nursery.lookup.species.get(speciesId)!;
    try {
      const worker = await seedWork();
      // Losses once they are up are the route's own.
      const { viability, emergence } = seed.chainOf(speciesId, null, null);
      const seeds = await worker.seeds(
        plain({
          target: plants.value[0],
          probability: props.chance,
          stages: [viability.next, emergence.next],
        }),
      );
      const { protocols, rootHabit } = seed.startFor(speciesId);
      const phases = start === 'treated seed' ? (protocols[0]?.phases ?? []) : [];
      const treated = phases.length
        ? await worker.plan(
            plain(phases),
            { kind: 'fixed', warmC: 20, coldC: 3 },
            props.point.on,
            season.today,
            plain({ waking: wakingOf(species.latin, protocols), taproot: rootHabit === 'tap' }),
            0.8,
          )
        : null;
      if (mine !== asking) return;
      sowing.value = { seeds, grams: (seeds / species.values.seedsPerKg) * 1000 };
      begin.value = treated?.value.begin ?? null;
      fault.value = null;
    } catch (error) {
      if (mine === asking) fault.value = sentenceOf(error);
    }
  },
  { debounce: 150, immediate: true },
);
const bags = computed(() =>
  seedHere.value
    ? seed.known.lots
        .filter((bag) => bag.speciesId === props.route.speciesId && (seed.held.get(bag.id)?.seeds ?? 0) >= 1)
        .map((bag) => ({ id: bag.id, code: bag.code, ...seed.held.get(bag.id)! }))
    : [],
);
const inStore = computed(() => bags.value.reduce((total, bag) => total + bag.seeds, 0));
const day = (on: number) => longDate(on, yearOf(season.today));
const isLate = computed(() => begin.value !== null && begin.value < season.today);
</script>

<template>
  <section aria-labelledby="needs">
    <h2 id="needs" class="text-lg">{{ say`What that asks for` }}</h2>
    <p v-if="fault" class="font-bold" role="status">{{ fault }}</p>
    <dl class="grid max-w-3xl grid-cols-[auto_1fr] items-baseline gap-x-4 gap-y-1" data-testid="needs">
      <dt class="text-muted">{{ say`To leave` }}</dt>
      <dd>
        {{ say`${several(leave, 'tree')}, so that ${count(trees)} are there to size` }}
        <span class="text-muted">{{
          say`(${percent(point.serves)} kept, losses, size and time together)`
        }}</span>
      </dd>
      <template v-for="(stage, i) in route.stages" :key="i">
        <dt class="text-muted">{{ i === 0 ? say`Up` : day(point.begins[i]) }}</dt>
        <dd>
          {{ say`${count(plants[i])} in ${words(stage)}` }}
          <span class="text-muted">{{ say`(${percent(stage.goesOn)} go on)` }}</span>
        </dd>
      </template>
      <template v-if="sown">
        <dt class="text-muted">{{ say`Seed` }}</dt>
        <dd v-if="sowing">
          {{
            say`${several(sowing.seeds, 'seed')}, ${show(sowing.grams, 'seedMass')}: enough with ${surely(chance)}`
          }}
          <template v-if="bags.length">
            {{ say` · in store ${count(inStore)}:` }}
            <template v-for="(bag, i) in bags" :key="bag.id"
              >{{ i ? ', ' : ''
              }}<RouterLink class="quiet" :to="{ name: 'seed', params: { seedLot: bag.id } }">{{
                bag.code
              }}</RouterLink></template
            >
            <b v-if="inStore < sowing.seeds"> {{ say` · ${count(sowing.seeds - inStore)} short` }}</b>
          </template>
          <b v-else> {{ say` · none in store: to be collected or bought` }}</b>
        </dd>
        <dd v-else class="text-muted">{{ say`Asking the desk …` }}</dd>
        <template v-if="begin !== null">
          <dt class="text-muted">{{ say`Treatment` }}</dt>
          <dd>
            {{ say`begin by ${day(begin)}, to be ready for the week of ${day(point.on)}` }}
            <b v-if="isLate"> {{ say` · that day has gone by: buy seed treated, or take another week` }}</b>
          </dd>
        </template>
      </template>
      <dt class="text-muted">{{ sown ? say`Sown` : say`Stuck` }}</dt>
      <dd>
        {{
          say`${day(point.on)}; up ${Number.isFinite(point.up.p50) ? say`about ${day(Math.round(point.up.p50))}` : say`beyond the horizon`}`
        }}
      </dd>
    </dl>
    <RouterLink v-if="sown" class="quiet" :to="{ name: 'seed-desk', query: { seedLot: bags[0]?.id } }">{{
      say`To the sowing desk`
    }}</RouterLink>
  </section>
</template>
