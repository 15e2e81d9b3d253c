<script setup lang="ts">
import { betaMean, betaProduct, USUAL_DENSITY, type CuttingKind, say } from '@kauri/core';
import { v7 as newId } from 'uuid';
import { computed, onMounted } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import { call } from '../../api/client';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import { useDraft } from '../../parts/useDraft';
import { useSaving } from '../../parts/useSaving';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { useSeed } from '../../stores/seed';
import { count } from '../../words/numbers';
import { usePlaces } from '../yard/usePlaces';
import { asWanted, firstWithRoom, nextCode } from './newLot';
import { patchOf } from './patch';
import PatchFields from './PatchFields.vue';
import { sowingOf } from './sowing';
import SowingFields from './SowingFields.vue';
import { useSowingBack } from './useSowingBack';
import SeedAdvice from './SeedAdvice.vue';
import StageFields from './StageFields.vue';
import { useStage, type FreeRoom, type StageStarts } from './useStage';

const emit = defineEmits<{ close: [] }>();
const nursery = useNursery();
const preferences = usePreferences();
const season = useSeason();
const messages = useMessages();
const seed = useSeed();
const route = useRoute();
const router = useRouter();
const takeBackSowing = useSowingBack();

const { draft, clear } = useDraft('lot.new', {
  speciesId: nursery.catalogue!.species[0].id,
  placeId: firstWithRoom(usePlaces().places.value),
  containerTypeId: nursery.catalogue!.containers[0].id,
  trays: '',
  density: '',
  area: '',
  code: '',
  sownOn: season.view <= season.today ? season.viewIso : season.todayIso,
  seedState: 'ready' as 'ready' | 'fresh',
  seeds: '',
  target: '',
  chance: '0.9',
  height: '',
  note: '',
  origin: 'seed' as 'seed' | 'cuttings',
  seedLotId: '',
  treatmentId: '',
  stockBedId: '',
  cutting: 'hard' as CuttingKind,
  patchFrom: '',
  patchTo: '',
  rows: '',
  stageId: newId(),
});
onMounted(() => seed.load().catch(() => undefined));
if (typeof route.query.in === 'string' && nursery.lookup.places.has(route.query.in))
  draft.value.placeId = route.query.in;
const { busy, save: send, sentence, wrong } = useSaving('lot.new');

const species = computed(() => nursery.lookup.species.get(draft.value.speciesId)!);
const seeds = computed(() => typedNumber(draft.value.seeds));
const bag = computed(() => {
  const lot = seed.lotById.get(draft.value.seedLotId);
  return lot?.speciesId === draft.value.speciesId ? lot : null;
});
const chain = computed(() => {
  const batch = bag.value ? seed.treatmentById.get(draft.value.treatmentId) : undefined;
  return seed.chainOf(draft.value.speciesId, bag.value, batch?.school ?? null);
});
const fromSeed = computed(() => draft.value.origin === 'seed');
/** Of what goes in, the share that is to stand. */
const comeUp = computed(() => {
  if (!fromSeed.value) return 1;
  const { viability, emergence, establishment } = chain.value;
  return betaMean(betaProduct([viability.next, emergence.next, establishment.next]));
});
/** Stands in for what is not typed: as its lots stand here already, on as much ground as what is sown needs. */
function startsIn({ areaM2, trays }: FreeRoom): StageStarts {
  const stood = [...nursery.lots.values()]
    .filter(({ speciesId, stage }) => speciesId === draft.value.speciesId && stage.densityPerM2 !== null)
    .sort((a, b) => b.sownOn.localeCompare(a.sownOn));
  const densityPerM2 = stood[0]?.stage.densityPerM2 ?? USUAL_DENSITY;
  const { cellsPerTray } = nursery.lookup.containers.get(draft.value.containerTypeId)!.values;
  const sown = seeds.value > 0 ? seeds.value : null;
  return {
    densityPerM2,
    areaM2: asWanted(sown === null ? null : (sown * comeUp.value) / densityPerM2, areaM2, 0.01),
    trays: asWanted(sown === null ? null : sown / cellsPerTray, trays, 1),
  };
}
const { places, onBench, holds, stageOf } = useStage(draft, undefined, startsIn);
const code = computed(
  () =>
    draft.value.code.trim() ||
    nextCode(
      species.value.code,
      draft.value.sownOn || season.todayIso,
      [...nursery.index.values()].map((lot) => lot.code),
    ),
);

if (draft.value.seeds === '') draft.value.seedState = species.value.values.winters > 0 ? 'fresh' : 'ready';

async function save() {
  const stage = stageOf(draft.value.stageId);
  const { note, height } = draft.value;
  const body = {
    ...sowingOf(draft.value),
    code: code.value,
    targetHeightCm: height.trim() === '' ? null : preferences.typed(typedNumber(height), 'height'),
    note,
    seeds: seeds.value,
    patch: stage.kind === 'bed' ? patchOf(draft.value, preferences.typed) : null,
    stage,
  };
  const answer = await send(body, (id) => call('sowLot', { params: nursery.params, body: { ...body, id } }));
  if (!answer) return;
  nursery.takeLot(answer);
  if (answer.lot.seedLotId !== null) void seed.load(true);
  clear();
  messages.say(say`${answer.lot.code} sown.`, async () => {
    await takeBackSowing(answer.lot.id);
    await router.push({ name: 'grow' });
  });
  await router.push({ name: 'grow', params: { lot: answer.lot.id } });
}

/** Trees that come up and live, where that is more than there is room for; null where it is not. */
const tooMany = computed(() => {
  if (!fromSeed.value || onBench.value || !(holds.value > 0 && seeds.value > 0)) return null;
  const come = Math.round(seeds.value * comeUp.value);
  return come > 1.1 * holds.value ? come : null;
});
</script>

<template>
  <FormDialog :title="say`Sow a lot`" wide @close="emit('close')">
    <p v-if="!places.length">
      {{ say`A lot needs a place to stand.` }}
      <RouterLink class="quiet" :to="{ name: 'yard', query: { add: 'bed' } }">{{
        say`Add a bed or bench first`
      }}</RouterLink>
    </p>
    <form v-else class="grid gap-6 md:grid-cols-2" novalidate @submit.prevent="save">
      <div class="space-y-3">
        <SowingFields v-model="draft" :own-code="code" :wrong="wrong" />
        <FormField
          v-model="draft.seeds"
          :label="fromSeed ? say`Seeds sown` : say`Cuttings stuck`"
          inputmode="numeric"
          :hint="seeds > 0 && holds > 0 && onBench ? say`${(seeds / holds).toFixed(1)} a cell` : undefined"
          :fault="wrong('seeds')"
        />
        <StageFields v-model="draft" :wrong="wrong" :starts-in="startsIn">
          <PatchFields v-if="!onBench" v-model="draft" :place-id="draft.placeId" />
        </StageFields>
      </div>
      <div class="space-y-3">
        <SeedAdvice
          v-if="fromSeed"
          v-model:target="draft.target"
          v-model:chance="draft.chance"
          :chain="chain"
          :seeds-per-kg="bag?.seedsPerKg ?? species.values.seedsPerKg"
          :seeds="seeds"
          @use="draft.seeds = String($event)"
        />
        <p v-if="tooMany !== null" class="border-ink border-l-4 pl-3" role="status" data-testid="too-many">
          {{
            say`About ${count(tooMany)} are to come up where there is room for ${count(holds)}: sow fewer, take more ground, or thin. It is taken as you write it.`
          }}
        </p>
        <FormField
          v-model="draft.height"
          :label="say`Height wanted`"
          :unit="preferences.unit('height')"
          inputmode="decimal"
          :hint="say`Leave blank for none.`"
          :fault="wrong('targetHeightCm')"
        />
        <FormField
          v-model="draft.note"
          :label="say`Note`"
          :hint="say`Source of the seed, treatment, who sowed`"
          :fault="wrong('note')"
        />
        <SheetActs :act="say`Sow it`" :busy="busy" :sentence="sentence()" @save="save" />
      </div>
    </form>
  </FormDialog>
</template>
