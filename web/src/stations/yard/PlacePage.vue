<script setup lang="ts">
import { bedGeometry, checkPlan, cornersOf, say } from '@kauri/core';
import { computed, defineAsyncComponent, ref } from 'vue';
import { RouterLink } from 'vue-router';
import LotChips from './LotChips.vue';
import PlantTag from '../../parts/PlantTag.vue';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import BedDetail from './BedDetail.vue';
import BenchDetail from './BenchDetail.vue';
import PlaceChecks from './PlaceChecks.vue';
import SpentMedium from './SpentMedium.vue';
import { placeDecision } from './placeDecision';
import { sizeWords } from './placeWords';
import type { ShownPlace } from './usePlaces';

const BedHold = defineAsyncComponent(() => import('../grow/BedHold.vue'));

const props = defineProps<{ shown: ShownPlace; places: readonly ShownPlace[] }>();
const nursery = useNursery();
const preferences = usePreferences();
const session = useSession();
const season = useSeason();

/** Neighbours nearer than a barrow's width, other than those it stands in one block with. */
const tight = computed(() => {
  const { id } = props.shown.place;
  const grounds = props.places.map((p) => ({
    id: p.place.id,
    name: p.place.place.name,
    corners: cornersOf(p.place.place),
  }));
  return checkPlan(grounds, [], new Set([id]))
    .flatMap((fault) => fault.placeIds)
    .filter((other) => other !== id)
    .map((other) => nursery.lookup.places.get(other)?.place.name ?? '');
});
const settling = computed(
  () => nursery.lookup.media.get(props.shown.place.place.mediumId ?? '')?.values.settling,
);
/** Whether the seasons ahead of this bed are asked for. */
const asksSeasons = ref(false);
const decision = computed(() => placeDecision(props.shown, tight.value, preferences, settling.value));
</script>

<template>
  <article class="p-4 md:p-5">
    <div class="mb-3 flex flex-wrap items-baseline gap-x-3">
      <RouterLink class="quiet md:hidden" :to="{ name: 'yard' }">{{ say`All places` }}</RouterLink>
      <h1 class="text-2xl">{{ shown.place.place.name }}</h1>
      <p class="text-muted">{{ sizeWords(shown.place.place, preferences) }}</p>
    </div>
    <div class="flex flex-wrap items-stretch gap-3">
      <PlantTag
        class="min-w-72"
        :headline="decision.headline"
        :detail="decision.detail"
        :urgent="decision.urgent"
      />
      <div v-if="session.may('grower')" class="flex flex-wrap content-start gap-2">
        <RouterLink
          class="act"
          :to="{ name: 'yard', params: { place: shown.place.id }, query: { edit: '1' } }"
          >{{ say`Edit` }}</RouterLink
        >
        <RouterLink
          v-if="shown.place.place.kind !== 'bay'"
          class="act"
          :to="{ name: 'grow', query: { new: '1', in: shown.place.id } }"
          >{{ say`Sow here` }}</RouterLink
        >
      </div>
    </div>
    <section class="mt-4" aria-labelledby="standing-here">
      <h2 id="standing-here" class="mb-1 text-lg">{{ say`Standing here` }}</h2>
      <LotChips v-if="shown.lots.length" :lots="shown.lots" />
      <p v-else class="text-muted">{{ say`Nothing at this date.` }}</p>
      <SpentMedium
        v-if="session.may('crew') && !shown.lots.length && season.view === season.today"
        :key="shown.place.id"
        :place="shown.place"
      />
      <details
        v-if="shown.place.place.kind === 'bed' && shown.lots.length"
        class="mt-2"
        @toggle="asksSeasons ||= ($event.target as HTMLDetailsElement).open"
      >
        <summary class="quiet" data-testid="bed-hold-open">
          {{ say`Seasons ahead: hold this bed or empty it` }}
        </summary>
        <BedHold
          v-if="asksSeasons"
          class="mt-2"
          :lots="shown.lots"
          :area-m2="bedGeometry(shown.place.place.design).value.insideAreaM2"
        />
      </details>
    </section>
    <BedDetail v-if="shown.place.place.kind === 'bed'" class="mt-4" :shown="shown" />
    <BenchDetail v-else-if="shown.place.place.kind !== 'bay'" class="mt-4" :shown="shown" />
    <PlaceChecks class="mt-4" :shown="shown" />
  </article>
</template>
