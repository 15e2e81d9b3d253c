<script setup lang="ts">
import { isoOf, say } from '@kauri/core';
import { computed } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import EmptyState from '../../parts/EmptyState.vue';
import PickRow from '../../parts/PickRow.vue';
import { useThing } from '../../parts/useThing';
import { useNursery } from '../../stores/nursery';
import { usePlantings } from '../../stores/plantings';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { dateWords } from '../../words/dates';
import { several } from '../../words/numbers';
import TableOut from '../../tables/TableOut.vue';
import PlantingDetail from './PlantingDetail.vue';
import PlantingDialog from './PlantingDialog.vue';
import { plantedTable, walkTable } from './plantedFiles';
import { shareWords } from './plantedWords';
import { usePlantingsSeen } from './usePlanting';

const plantings = usePlantings();
const nursery = useNursery();
const season = useSeason();
const session = useSession();
const route = useRoute();
const router = useRouter();
const seen = usePlantingsSeen();
/** What asks for something first, then the newest. */
const sorted = computed(() =>
  [...seen.value].sort(
    (a, b) =>
      Number(b.heat !== null) - Number(a.heat !== null) || (b.since ?? Infinity) - (a.since ?? Infinity),
  ),
);
const chosen = computed(
  () => sorted.value.find(({ planting }) => planting.id === route.params.planting) ?? sorted.value[0] ?? null,
);
useThing(() => chosen.value?.planting.name);
const species = (id: string) => nursery.lookup.species.get(id)?.common ?? '';
const plantingTable = () => plantedTable(plantings.kept.plantings, species);
const walksTable = () => walkTable(plantings.kept.walks, plantings.kept.plantings, species);
const adding = computed(() => route.query.add !== undefined && session.may('crew'));
function added(id: string | null) {
  void router.replace(id ? { name: 'planted', params: { planting: id } } : { query: {} });
}
</script>

<template>
  <EmptyState v-if="!seen.length" :title="say`Nothing is planted out yet`">
    {{
      say`A riverbank, a hedge, a shelter belt: say where trees of yours stand for good, and of which lots. Walks then tell which live, and what that says of how they were raised.`
    }}
    <template #action>
      <RouterLink v-if="session.may('crew')" class="act-main" :to="{ query: { add: '1' } }">{{
        say`Add a planting`
      }}</RouterLink>
    </template>
  </EmptyState>
  <div v-else class="grid min-h-full md:grid-cols-[21rem_1fr]">
    <div class="border-rule md:border-r" :class="route.params.planting ? 'hidden md:block' : ''">
      <div class="flex flex-wrap items-center gap-2 px-4 py-3">
        <h2 class="text-muted mr-auto font-bold">{{ several(seen.length, 'planting') }}</h2>
        <RouterLink v-if="session.may('crew')" class="act" :to="{ query: { add: '1' } }">{{
          say`Add a planting`
        }}</RouterLink>
      </div>
      <ul class="divide-rule divide-y" data-testid="plantings">
        <PickRow
          v-for="one in sorted"
          :key="one.planting.id"
          :to="{ name: 'planted', params: { planting: one.planting.id } }"
          :chosen="one.planting.id === chosen?.planting.id"
        >
          <span class="flex items-baseline justify-between gap-2">
            <b>{{ one.planting.name }}</b>
            <span v-if="one.heat" class="bg-tag text-tag-ink rounded px-1.5 font-bold">{{ say`hot` }}</span>
            <span v-else-if="one.living" class="whitespace-nowrap">{{
              say`${shareWords(one.living)} alive`
            }}</span>
          </span>
          <span class="text-muted block text-[0.93rem]">
            {{ several(one.trees, 'tree')
            }}<template v-if="one.since !== null">{{ say`, from ${dateWords(isoOf(one.since))}` }}</template
            ><template v-if="!one.walks.length && one.trees">{{ say`; not walked yet` }}</template>
          </span>
        </PickRow>
      </ul>
      <p class="flex flex-wrap gap-x-4 px-4 py-2">
        <TableOut
          quiet
          :label="say`Plantings as a table`"
          :name="`plantings-${season.todayIso}`"
          :table="plantingTable"
        />
        <TableOut
          v-if="plantings.kept.walks.length"
          quiet
          :label="say`Walks as a table`"
          :name="`walks-${season.todayIso}`"
          :table="walksTable"
        />
      </p>
    </div>
    <div :class="route.params.planting ? '' : 'hidden md:block'">
      <PlantingDetail v-if="chosen" :key="chosen.planting.id" :seen="chosen" />
    </div>
  </div>
  <PlantingDialog v-if="adding" :planting="null" @close="added" />
</template>
