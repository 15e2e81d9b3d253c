<script setup lang="ts">
import { liftedOf, stockPlants, stockYield, takenThisSeason, say } from '@kauri/core';
import type { StockBed } from '@kauri/core/contract';
import { computed, ref } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import EmptyState from '../../../parts/EmptyState.vue';
import PickRow from '../../../parts/PickRow.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { useNursery } from '../../../stores/nursery';
import { useSeed, type RecordOf } from '../../../stores/seed';
import { useSession } from '../../../stores/session';
import { dateWords } from '../../../words/dates';
import { count, percent, several } from '../../../words/numbers';
import { cuttingWords } from '../../../words/seed';
import CutDialog from './CutDialog.vue';
import CuttingDesk from './CuttingDesk.vue';
import StockBedDialog from './StockBedDialog.vue';

const nursery = useNursery();
const seed = useSeed();
const session = useSession();
const route = useRoute();
const sheet = ref<'add' | 'edit' | 'cut' | null>(null);

/** Seasons since planting, and seasons in a row it has been cut, at the date looked at. */
const { latitudeDeg } = nursery.catalogue!.nursery;
const stockOf = (bed: StockBed) => stockPlants(bed, seed.known, seed.asOf, latitudeDeg);
const rows = computed(() =>
  seed.known.stockBeds.map((bed) => ({
    bed,
    species: seed.speciesOf(bed.speciesId),
    stock: stockOf(bed),
    gives: stockYield(stockOf(bed)),
    cuts: seed.recordsOf(bed.id, 'cut').slice().reverse(),
  })),
);
const chosen = computed(() => rows.value.find((r) => r.bed.id === route.params.bed) ?? rows.value[0] ?? null);
/** Cuttings already taken since the last autumn. */
const takenNow = computed(() =>
  chosen.value ? takenThisSeason(chosen.value.bed, seed.known, seed.asOf, latitudeDeg) : 0,
);
/** What was done with a cut, as far as it was written down. */
function cutWords({ values: { bundle, hormone, medium }, note }: RecordOf<'cut'>): string {
  const parts = [
    bundle ? say`bundles of ${bundle}` : '',
    hormone ? say`hormone: ${hormone}` : '',
    medium ? say`into ${medium}` : '',
    note,
  ];
  return parts.filter(Boolean).join(', ');
}
const stuck = computed(() =>
  [...nursery.lots.values()].filter(
    (lot) => lot.origin === 'cuttings' && lot.stockBedId === chosen.value?.bed.id,
  ),
);
</script>

<template>
  <div class="grid min-h-full lg:grid-cols-[22rem_1fr]">
    <div class="border-rule lg:border-r">
      <div class="border-rule flex flex-wrap items-center justify-between gap-2 border-b px-4 py-2">
        <p class="text-muted font-bold">
          {{ rows.length ? several(rows.length, 'stock bed') : say`No stock bed yet` }}
        </p>
        <button v-if="session.may('grower')" class="act" type="button" @click="sheet = 'add'">
          {{ say`Add a stock bed` }}
        </button>
      </div>
      <ul class="divide-rule divide-y" data-testid="stock-beds">
        <PickRow
          v-for="row in rows"
          :key="row.bed.id"
          :to="{ name: 'seed-cuttings', params: { bed: row.bed.id } }"
          :chosen="row.bed.id === chosen?.bed.id"
        >
          <span class="flex justify-between gap-2">
            <b>{{ row.bed.name }}</b> <b>{{ count(row.gives.value) }}</b>
          </span>
          <span class="text-muted flex justify-between gap-2 text-[0.93rem]">
            <span>{{ row.species.common }}, {{ several(row.bed.plants, 'plant') }}</span>
            <span>{{ say`cuttings a cut` }}</span>
          </span>
        </PickRow>
      </ul>
    </div>
    <div class="space-y-4 p-4 md:p-5">
      <EmptyState v-if="!chosen" :title="say`No stock kept for cuttings yet`">
        {{
          say`Plants kept for cuttings go here, with what each gives. They limit how many true-to-type plants a year can bring.`
        }}
      </EmptyState>
      <template v-else>
        <div class="flex flex-wrap items-baseline gap-x-3">
          <h1 class="text-2xl">{{ chosen.bed.name }}</h1>
          <p class="text-lg">{{ chosen.species.common }}</p>
          <p class="text-muted">{{ say`planted ${dateWords(chosen.bed.plantedOn)}` }}</p>
        </div>
        <p class="text-lg" data-testid="stock-gives">
          {{ say`Gives` }} <b>{{ count(chosen.gives.value) }}</b> {{ say`cuttings at a cut`
          }}<template v-if="takenNow"
            >{{ say`; ${count(takenNow)} taken since autumn,` }}
            <b>{{ count(Math.max(0, chosen.gives.value - takenNow)) }}</b> {{ say`left` }}</template
          >.
        </p>
        <p>
          {{
            say`${several(chosen.stock.ageSeasons, 'season')} old, ${
              chosen.stock.cutsInARow
                ? say`cut ${several(chosen.stock.cutsInARow, 'season')} in a row`
                : say`rested last season`
            }, ${percent(chosen.bed.restShare)} of its plants at rest. ${chosen.bed.note}`
          }}
        </p>
        <div class="flex flex-wrap gap-2">
          <button v-if="session.may('crew')" class="act" type="button" @click="sheet = 'cut'">
            {{ say`Take cuttings` }}
          </button>
          <button v-if="session.may('grower')" class="act" type="button" @click="sheet = 'edit'">
            {{ say`Change the bed` }}
          </button>
        </div>
        <ShowWorking :steps="chosen.gives.working" />
        <CuttingDesk
          :key="chosen.bed.id"
          :bed="chosen.bed"
          :held="Math.max(0, chosen.gives.value - takenNow)"
        />
        <div class="grid gap-5 xl:grid-cols-2">
          <section aria-labelledby="cuts">
            <h2 id="cuts" class="text-lg">{{ say`Cuts` }}</h2>
            <ul v-if="chosen.cuts.length" class="text-[0.95rem]">
              <li v-for="cut in chosen.cuts" :key="cut.id" class="border-rule border-t py-1">
                {{ dateWords(cut.on) }}: <b>{{ count(cut.values.cuttings) }}</b>
                {{ say`${cuttingWords[cut.values.cutting]}, ${cut.values.nodes} nodes` }}
                <span class="text-muted">{{ cutWords(cut) }}</span>
              </li>
            </ul>
            <p v-else class="text-muted">{{ say`Not cut yet.` }}</p>
          </section>
          <section v-if="stuck.length" aria-labelledby="stuck">
            <h2 id="stuck" class="text-lg">{{ say`Stuck` }}</h2>
            <ul class="text-[0.95rem]">
              <li v-for="lot in stuck" :key="lot.id" class="border-rule border-t py-1">
                <RouterLink class="quiet font-bold" :to="{ name: 'seed-up', params: { lot: lot.id } }">{{
                  lot.code
                }}</RouterLink>
                {{
                  say`${dateWords(lot.sownOn)}: ${count(lot.held.standing + liftedOf(lot.held))} rooted, ${count(lot.held.sown)} still to root`
                }}
              </li>
            </ul>
          </section>
        </div>
      </template>
    </div>
    <StockBedDialog v-if="sheet === 'add'" @close="sheet = null" />
    <StockBedDialog v-if="sheet === 'edit' && chosen" :bed="chosen.bed" @close="sheet = null" />
    <CutDialog
      v-if="sheet === 'cut' && chosen"
      :bed="chosen.bed"
      :left="chosen.gives.value - takenNow"
      @close="sheet = null"
    />
  </div>
</template>
