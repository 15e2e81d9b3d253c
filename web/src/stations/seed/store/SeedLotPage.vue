<script setup lang="ts">
import { liftedOf, say } from '@kauri/core';
import type { SeedLot } from '@kauri/core/contract';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import PlantTag from '../../../parts/PlantTag.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { useThing } from '../../../parts/useThing';
import { usePreferences } from '../../../stores/preferences';
import { useSeason } from '../../../stores/season';
import { useMass } from '../../../parts/useMass';
import { useSeed } from '../../../stores/seed';
import { useSession } from '../../../stores/session';
import { dateWords, longDate, yearOf } from '../../../words/dates';
import { count, percent } from '../../../words/numbers';
import {
  phasesWords,
  reasonWords,
  shareBand,
  storageWords,
  storeWords,
  batchStateWords,
  storageNames,
} from '../../../words/seed';
import { money } from '../../../words/money';
import { useNursery } from '../../../stores/nursery';
import SeedLotDialog from './SeedLotDialog.vue';
import SeedTests from './SeedTests.vue';
import TakeDialog from './TakeDialog.vue';
import TestDialog from './TestDialog.vue';
import TreatDialog from './TreatDialog.vue';
import ViabilityChart from './ViabilityChart.vue';

const props = defineProps<{ lot: SeedLot }>();
const seed = useSeed();
const mass = useMass();
const season = useSeason();
const session = useSession();
const preferences = usePreferences();
const nursery = useNursery();
const sheet = ref<'test' | 'take' | 'treat' | 'edit' | null>(null);

useThing(() => props.lot.code);
const species = computed(() => seed.speciesOf(props.lot.speciesId));
const start = computed(() => seed.startFor(props.lot.speciesId));
const held = computed(() => seed.held.get(props.lot.id)!);
const alive = computed(() => seed.viability.get(props.lot.id) ?? null);
const year = computed(() => yearOf(season.view));

const words = computed(() => {
  if (held.value.seeds < 1)
    return { headline: say`This bag is empty`, detail: say`What it became is below.`, urgent: false };
  if (!alive.value) return null;
  const { now, deadOn, retestOn, tested } = alive.value.value;
  const day = (d: number) => longDate(d, year.value);
  if (deadOn <= seed.asOf)
    return {
      headline: say`Likely dead: about ${percent(now.mean)} alive`,
      detail: say`Fewer than a tenth since ${day(deadOn)}. Test it before it takes bench room.`,
      urgent: false,
    };
  return {
    headline:
      retestOn <= seed.asOf
        ? tested
          ? say`Test it again now: ${shareBand(now)} alive`
          : say`Not tested yet: ${shareBand(now)} alive by its kind`
        : say`${shareBand(now)} alive; test again by ${day(retestOn)}`,
    detail: Number.isFinite(deadOn)
      ? say`At this rate fewer than a tenth live from ${day(deadOn)}.`
      : say`It keeps for ten years and more in this store.`,
    urgent: false,
  };
});
const place = computed(() => {
  const p = props.lot.provenance;
  return [
    p.place,
    p.latitudeDeg !== null && p.longitudeDeg !== null
      ? `${Math.abs(p.latitudeDeg)}° ${p.latitudeDeg < 0 ? 'S' : 'N'}, ${Math.abs(p.longitudeDeg)}° ${p.longitudeDeg < 0 ? 'W' : 'E'}`
      : '',
    p.altitudeM !== null ? preferences.show(p.altitudeM, 'site', 0) : '',
    p.zone && say`zone ${p.zone}`,
    p.collector && say`collected by ${p.collector}`,
    p.parents !== null ? say`${p.parents} parents` : '',
  ]
    .filter(Boolean)
    .join(', ');
});
const moves = computed(() =>
  seed.known.moves
    .filter((move) => move.seedLotId === props.lot.id)
    .slice()
    .reverse(),
);
const batches = computed(() => seed.known.treatments.filter((t) => t.seedLotId === props.lot.id));
const sown = computed(() => seed.sownOf(props.lot.id));
</script>

<template>
  <article class="space-y-4 p-4 md:p-5">
    <div class="flex flex-wrap items-baseline gap-x-3">
      <RouterLink class="quiet lg:hidden" :to="{ name: 'seed' }">{{ say`All seed` }}</RouterLink>
      <h1 class="text-2xl">{{ species.common }}</h1>
      <p class="text-lg">{{ lot.code }}</p>
      <p class="text-muted italic">{{ species.latin }}</p>
    </div>
    <div class="flex flex-wrap items-stretch gap-3">
      <PlantTag v-if="words" class="min-w-72" v-bind="words" />
      <div v-if="session.may('crew')" class="flex max-w-full flex-wrap content-start gap-2 xl:max-w-96">
        <button class="act" type="button" :disabled="held.seeds < 1" @click="sheet = 'test'">
          {{ say`Test` }}
        </button>
        <button class="act" type="button" @click="sheet = 'take'">{{ say`Take out or weigh` }}</button>
        <template v-if="session.may('grower')">
          <button class="act" type="button" :disabled="held.seeds < 1" @click="sheet = 'treat'">
            {{ say`Treat` }}
          </button>
          <RouterLink
            v-if="held.seeds >= 1"
            class="act"
            :to="{ name: 'seed-desk', query: { seedLot: lot.id } }"
            >{{ say`Sow` }}</RouterLink
          >
        </template>
      </div>
    </div>
    <dl class="grid grid-cols-2 gap-x-6 gap-y-1 sm:grid-cols-4">
      <div>
        <dt class="text-muted text-sm">{{ say`In the bag` }}</dt>
        <dd class="text-lg font-bold" data-testid="seed-held">{{ mass(held.grams) }}</dd>
      </div>
      <div>
        <dt class="text-muted text-sm">{{ say`Seeds, about` }}</dt>
        <dd class="text-lg font-bold">{{ count(Math.max(0, held.seeds)) }}</dd>
      </div>
      <div>
        <dt class="text-muted text-sm">{{ say`Alive of them` }}</dt>
        <dd class="text-lg font-bold">{{ alive ? count(held.seeds * alive.value.now.mean) : '…' }}</dd>
      </div>
      <div>
        <dt class="text-muted text-sm">{{ say`Seeds a kilogram` }}</dt>
        <dd class="text-lg font-bold">{{ count(lot.seedsPerKg) }}</dd>
      </div>
    </dl>
    <p class="text-[0.95rem]">
      {{ place }}<template v-if="place">. </template>
      <template v-if="lot.collectedOn"
        >{{ say`Collected ${dateWords(lot.collectedOn)}, received ` }}
      </template>
      <template v-else>{{ say`Received ` }} </template>{{ dateWords(lot.receivedOn) }}.
      {{ storeWords[lot.store]
      }}<template v-if="lot.storeTempC !== null">
        {{ say` at ${preferences.show(lot.storeTempC, 'temperature')}` }}</template
      ><template v-if="lot.moisturePct !== null">{{ say`, ${lot.moisturePct} % moist` }}</template
      >{{ say`; ${storageNames[start.storage]} seed: it ${storageWords[start.storage]}.` }}
      <template v-if="lot.price !== null">
        {{ say`${money(lot.price, nursery.catalogue!.prices.list.currency)} a kilogram. ` }}
      </template>
      {{ lot.note }}
      <button v-if="session.may('grower')" class="quiet" type="button" @click="sheet = 'edit'">
        {{ say`Change` }}
      </button>
    </p>
    <ViabilityChart :lot="lot" />
    <ShowWorking v-if="alive" :steps="alive.working" />

    <div class="grid gap-5 xl:grid-cols-2">
      <SeedTests :lot="lot" />
      <section aria-labelledby="moves">
        <h2 id="moves" class="text-lg">{{ say`In and out` }}</h2>
        <table class="w-full text-[0.95rem]" data-testid="seed-moves">
          <tbody>
            <tr v-for="move in moves" :key="move.id" class="border-rule border-t">
              <td class="py-1 pr-3 whitespace-nowrap">{{ dateWords(move.on) }}</td>
              <td class="w-full pr-3">
                {{ reasonWords[move.why] }} <span class="text-muted">{{ move.note }}</span>
              </td>
              <td class="text-right whitespace-nowrap">
                {{ move.grams < 0 ? '−' : '+' }}{{ mass(Math.abs(move.grams)) }}
              </td>
            </tr>
          </tbody>
        </table>
      </section>
      <section v-if="batches.length" aria-labelledby="batches">
        <h2 id="batches" class="text-lg">{{ say`Under treatment` }}</h2>
        <ul class="text-[0.95rem]">
          <li v-for="batch in batches" :key="batch.id" class="border-rule border-t py-1">
            <RouterLink class="quiet font-bold" :to="{ name: 'seed-clock', params: { batch: batch.id } }">{{
              batch.name
            }}</RouterLink>
            {{
              say`since ${dateWords(batch.startedOn)}: ${phasesWords(batch.phases)}. ${batchStateWords[batch.state]}`
            }}
          </li>
        </ul>
      </section>
      <section v-if="sown.length" aria-labelledby="sown">
        <h2 id="sown" class="text-lg">{{ say`Sown` }}</h2>
        <ul class="text-[0.95rem]">
          <li v-for="row in sown" :key="row.id" class="border-rule border-t py-1">
            <RouterLink class="quiet font-bold" :to="{ name: 'grow', params: { lot: row.id } }">{{
              row.code
            }}</RouterLink>
            {{
              say`${dateWords(row.sownOn)}, ${count(row.held.standing + liftedOf(row.held))} stand or were lifted`
            }}
          </li>
        </ul>
      </section>
    </div>
    <TestDialog v-if="sheet === 'test'" :lot="lot" @close="sheet = null" />
    <TakeDialog v-if="sheet === 'take'" :lot="lot" @close="sheet = null" />
    <TreatDialog v-if="sheet === 'treat'" :lot="lot" @close="sheet = null" />
    <SeedLotDialog v-if="sheet === 'edit'" :lot="lot" @close="sheet = null" />
  </article>
</template>
