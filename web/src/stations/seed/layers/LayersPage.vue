<script setup lang="ts">
import { say } from '@kauri/core';
import { computed, ref } from 'vue';
import { useRoute } from 'vue-router';
import EmptyState from '../../../parts/EmptyState.vue';
import PickRow from '../../../parts/PickRow.vue';
import { useSeason } from '../../../stores/season';
import { useSeed } from '../../../stores/seed';
import { useSession } from '../../../stores/session';
import { dateWords, shortDate, yearOf } from '../../../words/dates';
import { several } from '../../../words/numbers';
import LayerPage from './LayerPage.vue';
import MakeLayerDialog from './MakeLayerDialog.vue';

const seed = useSeed();
const season = useSeason();
const session = useSession();
const route = useRoute();
const making = ref(false);
const rows = computed(() =>
  seed.known.layers
    .map((layer) => ({
      layer,
      species: seed.speciesOf(layer.speciesId),
      on: seed.known.onBranch.some((l) => l.id === layer.id),
      outlook: seed.layering.get(layer.id)?.value ?? null,
      act: seed.acts.find((a) => a.subjectId === layer.id) ?? null,
    }))
    .sort((a, b) => Number(b.on) - Number(a.on) || b.layer.madeOn.localeCompare(a.layer.madeOn)),
);
const chosen = computed(
  () => rows.value.find((r) => r.layer.id === route.params.layer) ?? rows.value[0] ?? null,
);
const day = (value: number) => shortDate(value, yearOf(season.view));
const marks: Record<string, string> = { sever: 'sever', 'look-layer': 'look', 'keep-on': say`keep on` };
const outcomeWords = { rooted: say`severed, rooted`, failed: say`failed` } as const;
</script>

<template>
  <EmptyState v-if="!rows.length" :title="say`No air layers yet`">
    {{
      say`A ring of bark off, a soaked pouch tied on, and roots in some months. Kauri keeps each branch, says when it is likely rooted, and by when to sever so that it settles before frost.`
    }}
    <template #action
      ><button v-if="session.may('crew')" class="act-main" type="button" @click="making = true">
        {{ say`Make a layer` }}
      </button></template
    >
  </EmptyState>
  <div v-else class="grid min-h-full lg:grid-cols-[24rem_1fr]">
    <div class="border-rule lg:border-r" :class="route.params.layer ? 'max-lg:hidden' : ''">
      <div class="border-rule flex flex-wrap items-center justify-between gap-2 border-b px-4 py-2">
        <p class="text-muted font-bold">
          {{ say`${several(seed.known.onBranch.length, 'layer')} on the branch` }}
        </p>
        <button v-if="session.may('crew')" class="act" type="button" @click="making = true">
          {{ say`Make a layer` }}
        </button>
      </div>
      <ul class="divide-rule divide-y" data-testid="layers">
        <PickRow
          v-for="row in rows"
          :key="row.layer.id"
          :to="{ name: 'seed-layers', params: { layer: row.layer.id } }"
          :chosen="row.layer.id === chosen?.layer.id"
        >
          <span class="flex justify-between gap-2">
            <b>{{ row.layer.tree }}</b>
            <span
              v-if="row.act"
              class="px-1.5 font-bold whitespace-nowrap"
              :class="row.act.when === 'now' ? 'bg-tag text-tag-ink rounded' : 'border-ink border-b-2'"
              >{{ marks[row.act.rule] }}</span
            >
          </span>
          <span class="text-muted flex justify-between gap-2 text-[0.93rem]">
            <span>{{ say`${row.species.common}, made ${dateWords(row.layer.madeOn)}` }}</span>
            <span v-if="row.on && row.outlook" class="whitespace-nowrap">{{
              say`by ${day(row.outlook.severBy)}`
            }}</span>
            <span v-else-if="row.layer.outcome">{{ outcomeWords[row.layer.outcome] }}</span>
          </span>
        </PickRow>
      </ul>
    </div>
    <LayerPage
      v-if="chosen"
      :key="chosen.layer.id"
      :layer="chosen.layer"
      :on-branch="chosen.on"
      :class="route.params.layer ? '' : 'max-lg:hidden'"
    />
  </div>
  <MakeLayerDialog v-if="making" @close="making = false" />
</template>
