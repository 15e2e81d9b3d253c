<script setup lang="ts">
import { say } from '@kauri/core';
import { computed } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import EmptyState from '../../parts/EmptyState.vue';
import { useSession } from '../../stores/session';
import { useYard } from '../../stores/yard';
import BedDialog from './BedDialog.vue';
import BenchDialog from './BenchDialog.vue';
import PlaceFiles from './PlaceFiles.vue';
import PlaceList from './PlaceList.vue';
import PlacePage from './PlacePage.vue';
import PlanView from './plan/PlanView.vue';
import { useConditions } from './useConditions';
import { usePlaces } from './usePlaces';

const route = useRoute();
const router = useRouter();
const session = useSession();
const yard = useYard();
const { places } = usePlaces();

const notes = useConditions();

const chosen = computed(
  () => places.value.find((p) => p.place.id === route.params.place) ?? places.value[0] ?? null,
);
const may = computed(() => session.may('grower'));
const sheet = computed(() => (may.value ? (route.query.add as string | undefined) : undefined));
const editing = computed(() => (may.value && route.query.edit === '1' ? chosen.value : null));
const close = () => void router.replace({ query: {} });
const choose = (id: string) => void router.replace({ name: 'yard', params: { place: id } });
</script>

<template>
  <div class="h-full md:grid md:grid-cols-[21rem_1fr]">
    <div
      class="border-rule md:overflow-y-auto md:border-r"
      :class="route.params.place ? 'hidden md:block' : ''"
    >
      <PlaceList :places="places" :chosen-id="chosen?.place.id ?? null">
        <template v-if="may">
          <RouterLink class="act" :to="{ query: { add: 'bed' } }">{{ say`Add bed` }}</RouterLink>
          <RouterLink class="act" :to="{ query: { add: 'bench' } }">{{ say`Add bench` }}</RouterLink>
        </template>
      </PlaceList>
      <p class="px-4 py-3"><PlaceFiles /></p>
    </div>
    <div class="md:overflow-y-auto" :class="route.params.place || !places.length ? '' : 'hidden md:block'">
      <template v-if="chosen">
        <PlanView
          class="border-rule h-72 border-b"
          :places="places"
          :elements="yard.elements"
          :chosen="[chosen.place.id]"
          :notes="notes"
          @choose="choose"
        />
        <PlacePage :key="chosen.place.id" :shown="chosen" :places="places" />
      </template>
      <EmptyState v-else :title="say`Build the first bed`">
        {{
          say`A bed or a bench is where lots stand. From its boards Kauri works out what it really holds: settled depth, litres to buy, weight, trees.`
        }}
        <template v-if="may" #action>
          <span class="inline-flex gap-2">
            <RouterLink class="act-main" :to="{ query: { add: 'bed' } }">{{ say`Add a bed` }}</RouterLink>
            <RouterLink class="act" :to="{ query: { add: 'bench' } }">{{ say`Add a bench` }}</RouterLink>
          </span>
        </template>
      </EmptyState>
    </div>
    <BedDialog
      v-if="sheet === 'bed'"
      :places="places"
      :length-mm="Number(route.query.length) || undefined"
      :width-mm="Number(route.query.width) || undefined"
      @close="close"
      @kept="choose"
    />
    <BenchDialog v-if="sheet === 'bench'" :places="places" @close="close" @kept="choose" />
    <BedDialog
      v-if="editing?.place.place.kind === 'bed'"
      :places="places"
      :place="editing.place"
      @close="close"
      @kept="choose"
    />
    <BenchDialog
      v-if="editing && editing.place.place.kind !== 'bed'"
      :places="places"
      :place="editing.place"
      @close="close"
      @kept="choose"
    />
  </div>
</template>
