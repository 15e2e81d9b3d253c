<script setup lang="ts">
import { bedGeometry, traysOnBench, type CuttingKind } from '@kauri/core';
import type { BodyInputOf } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { computed, onMounted, watch } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import { call } from '../../api/client';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
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
import { nextCode } from './newLot';
import { patchOf } from './patch';
import PatchFields from './PatchFields.vue';
import SeedAdvice from './SeedAdvice.vue';
import StartFields from './StartFields.vue';

const emit = defineEmits<{ close: [] }>();
const nursery = useNursery();
const preferences = usePreferences();
const season = useSeason();
const messages = useMessages();
const seed = useSeed();
const route = useRoute();
const router = useRouter();
const { places: all } = usePlaces();
/** Heel-in bays are for lifted trees: nothing is sown there. */
const places = computed(() => all.value.filter((p) => p.place.place.kind !== 'bay'));

const { draft, clear } = useDraft('lot.new', {
  speciesId: nursery.catalogue!.species[0].id,
  placeId: nursery.catalogue!.places[0]?.id ?? '',
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
});
onMounted(() => seed.load().catch(() => undefined));
if (typeof route.query.in === 'string' && nursery.lookup.places.has(route.query.in))
  draft.value.placeId = route.query.in;
const { busy, save: send, sentence, wrong } = useSaving('lot.new');
const stageId = newId();

const species = computed(() => nursery.lookup.species.get(draft.value.speciesId)!);
const place = computed(() => places.value.find((p) => p.place.id === draft.value.placeId) ?? null);
const container = computed(() => nursery.lookup.containers.get(draft.value.containerTypeId)!);
const code = computed(
  () =>
    draft.value.code.trim() ||
    nextCode(
      species.value.code,
      draft.value.sownOn,
      [...nursery.lots.values()].map((lot) => lot.code),
    ),
);
const seeds = computed(() => typedNumber(draft.value.seeds));

watch(
  () => draft.value.speciesId,
  (_now, before) => {
    draft.value.seedState = species.value.values.winters > 0 ? 'fresh' : 'ready';
    // Another species' bag is not sown under this one.
    if (before !== undefined) Object.assign(draft.value, { seedLotId: '', treatmentId: '', stockBedId: '' });
  },
  { immediate: draft.value.seeds === '' },
);

/** Room in the place chosen, in the words of what is to stand there. */
const room = computed(() => {
  const here = place.value;
  if (!here) return null;
  if (here.occupancy.kind === 'bed') {
    const { insideAreaM2 } = bedGeometry(
      (here.place.place as { design: Parameters<typeof bedGeometry>[0] }).design,
    ).value;
    const free = Math.max(0, here.occupancy.freeM2);
    const wanted = preferences.typed(typedNumber(draft.value.area), 'area');
    return {
      words: `${preferences.show(free, 'area')} of ${preferences.show(insideAreaM2, 'area')} free`,
      over:
        wanted > free + 0.005
          ? `That is ${preferences.show(wanted - free, 'area')} more than is free; it is kept, but check what still stands there.`
          : null,
    };
  }
  const bench = here.place.place.design;
  const tray = { lengthMm: container.value.values.trayLengthMm, widthMm: container.value.values.trayWidthMm };
  const left = Math.max(0, here.occupancy.layout.freeLengthMm);
  const more = left > 0 ? traysOnBench({ lengthMm: left, widthMm: bench.widthMm }, tray).value : 0;
  const wanted = typedNumber(draft.value.trays);
  return {
    words: `${count(more)} more fit, ${count(more * container.value.values.cellsPerTray)} cells`,
    over:
      wanted > more
        ? `That is ${count(wanted - more)} more than fit in the room left; it is kept, but check what still stands there.`
        : null,
  };
});
/** Cells or trees this stage has room for. */
const holds = computed(() => {
  if (place.value?.occupancy.kind === 'bench')
    return typedNumber(draft.value.trays) * container.value.values.cellsPerTray;
  return Math.floor(
    preferences.typed(typedNumber(draft.value.density), 'density') *
      preferences.typed(typedNumber(draft.value.area), 'area') +
      1e-9,
  );
});

async function save() {
  const stage: BodyInputOf<'sowLot'>['stage'] =
    place.value?.occupancy.kind === 'bench'
      ? {
          kind: 'container',
          id: stageId,
          placeId: draft.value.placeId,
          containerTypeId: draft.value.containerTypeId,
          trays: typedNumber(draft.value.trays),
        }
      : {
          kind: 'bed',
          id: stageId,
          placeId: draft.value.placeId,
          densityPerM2: preferences.typed(typedNumber(draft.value.density), 'density'),
          areaM2: Math.round(preferences.typed(typedNumber(draft.value.area), 'area') * 1e4) / 1e4,
        };
  const { speciesId, sownOn, seedState, note, height } = draft.value;
  const body = {
    code: code.value,
    speciesId,
    sownOn,
    seedState,
    targetHeightCm: height.trim() === '' ? null : preferences.typed(typedNumber(height), 'height'),
    note,
    seeds: seeds.value,
    origin: draft.value.origin,
    seedLotId: fromSeed.value ? draft.value.seedLotId || null : null,
    treatmentId: fromSeed.value && draft.value.seedLotId ? draft.value.treatmentId || null : null,
    stockBedId: fromSeed.value ? null : draft.value.stockBedId || null,
    cutting: fromSeed.value ? null : draft.value.cutting,
    patch: stage.kind === 'bed' ? patchOf(draft.value, preferences.typed) : null,
    stage,
  };
  const answer = await send(body, (id) => call('sowLot', { params: nursery.params, body: { ...body, id } }));
  if (!answer) return;
  nursery.takeLot(answer);
  if (answer.lot.seedLotId !== null) void seed.load(true);
  clear();
  messages.say(`${answer.lot.code} sown.`);
  await router.push({ name: 'grow', params: { lot: answer.lot.id } });
}

const bag = computed(() => {
  const lot = seed.lotById.get(draft.value.seedLotId);
  return lot?.speciesId === draft.value.speciesId ? lot : null;
});
const chain = computed(() => {
  const batch = bag.value ? seed.treatmentById.get(draft.value.treatmentId) : undefined;
  return seed.chainOf(draft.value.speciesId, bag.value, batch?.school ?? null);
});
const fromSeed = computed(() => draft.value.origin === 'seed');
const speciesOptions = nursery.catalogue!.species.map((s) => ({
  value: s.id,
  words: `${s.common}, ${s.latin}`,
}));
const placeOptions = computed(() =>
  places.value.map((p) => ({ value: p.place.id, words: p.place.place.name })),
);
const containerOptions = nursery.catalogue!.containers.map((c) => ({ value: c.id, words: c.values.name }));
const states = [
  { value: 'ready', words: 'Ready to grow: treated, or needs nothing' },
  { value: 'fresh', words: 'Fresh: winter is to wake it' },
] as const;
</script>

<template>
  <FormDialog title="Sow a lot" wide @close="emit('close')">
    <p v-if="!places.length">
      A lot needs a place to stand.
      <RouterLink class="quiet" :to="{ name: 'yard', query: { add: 'bed' } }"
        >Add a bed or bench first</RouterLink
      >
    </p>
    <form v-else class="grid gap-6 md:grid-cols-2" novalidate @submit.prevent="save">
      <div class="space-y-3">
        <SelectField
          v-model="draft.speciesId"
          label="Species"
          :options="speciesOptions"
          :fault="wrong('speciesId')"
        />
        <div class="grid grid-cols-2 gap-3">
          <FormField
            v-model="draft.sownOn"
            label="Sown on"
            type="date"
            :max="season.todayIso"
            :fault="wrong('sownOn')"
          />
          <FormField
            v-model="draft.code"
            label="Code"
            :hint="draft.code.trim() ? undefined : `Blank: ${code}`"
            :fault="wrong('code')"
          />
        </div>
        <StartFields v-model="draft" />
        <SelectField
          v-if="fromSeed"
          v-model="draft.seedState"
          label="The seed is"
          :options="states"
          :hint="
            draft.seedState === 'fresh' && species.values.winters > 0
              ? `It lies ${species.values.winters === 1 ? 'one winter' : `${species.values.winters} winters`} before it comes up.`
              : undefined
          "
        />
        <SelectField
          v-model="draft.placeId"
          label="Place"
          :options="placeOptions"
          :fault="wrong('stage.placeId')"
          :hint="room?.words"
        />
        <template v-if="place?.occupancy.kind === 'bench'">
          <SelectField
            v-model="draft.containerTypeId"
            label="Container"
            :options="containerOptions"
            :fault="wrong('stage.containerTypeId')"
          />
          <FormField
            v-model="draft.trays"
            label="Trays"
            inputmode="numeric"
            :hint="holds > 0 ? `${count(holds)} cells` : `${container.values.cellsPerTray} cells a tray`"
            :fault="wrong('stage.trays')"
          />
        </template>
        <div v-else class="grid grid-cols-2 gap-3">
          <FormField
            v-model="draft.density"
            label="Density"
            :unit="preferences.unit('density')"
            inputmode="decimal"
            :fault="wrong('stage.densityPerM2')"
          />
          <FormField
            v-model="draft.area"
            label="Area of bed"
            :unit="preferences.unit('area')"
            inputmode="decimal"
            :hint="holds > 0 ? `room for ${count(holds)} trees` : undefined"
            :fault="wrong('stage.areaM2')"
          />
        </div>
        <PatchFields v-if="place?.occupancy.kind === 'bed'" v-model="draft" :place-id="draft.placeId" />
        <p v-if="room?.over" class="font-bold" role="status">{{ room.over }}</p>
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
        <FormField
          v-model="draft.seeds"
          :label="fromSeed ? 'Seeds sown' : 'Cuttings stuck'"
          inputmode="numeric"
          :hint="
            seeds > 0 && holds > 0 && place?.occupancy.kind === 'bench'
              ? `${(seeds / holds).toFixed(1)} a cell`
              : undefined
          "
          :fault="wrong('seeds')"
        />
        <FormField
          v-model="draft.height"
          label="Height wanted"
          :unit="preferences.unit('height')"
          inputmode="decimal"
          hint="Leave blank for none."
          :fault="wrong('targetHeightCm')"
        />
        <FormField
          v-model="draft.note"
          label="Note"
          hint="Source of the seed, treatment, who sowed"
          :fault="wrong('note')"
        />
        <SheetActs act="Sow it" :busy="busy" :sentence="sentence()" @save="save" />
      </div>
    </form>
  </FormDialog>
</template>
