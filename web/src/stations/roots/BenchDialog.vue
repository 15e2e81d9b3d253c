<script setup lang="ts">
import { say } from '@kauri/core';
import type { LateralRoot, PlugSeen, QuickLook, RootPlant, TapForm } from '@kauri/core';
import { computed, defineAsyncComponent, ref } from 'vue';
import EntryFields from '../../parts/EntryFields.vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import type { ShownLot } from '../../parts/useLots';
import { useRecording } from '../../parts/useRecording';
import { usePreferences } from '../../stores/preferences';
import { useSeed } from '../../stores/seed';
import PlantFigures from './PlantFigures.vue';
import PlugSide from './PlugSide.vue';
import QuickLookFields from './QuickLookFields.vue';
import RosetteEditor from './RosetteEditor.vue';

const PhotoMeterDialog = defineAsyncComponent(() => import('./PhotoMeterDialog.vue'));

/** One plant at the bench: drawn root by root, or at a glance. */
const props = defineProps<{ lot: ShownLot; nth: number }>();
const emit = defineEmits<{ close: [] }>();
const { unit, typed } = usePreferences();
const seed = useSeed();
const hasPlug = computed(() => props.lot.facts.home.kind === 'container');
const nodulates = computed(() => seed.startFor(props.lot.row.speciesId).nodules !== 'none');
/** A plant nobody has looked at yet. */
const unseen = {
  laterals: [] as LateralRoot[],
  tap: 'stopped' as TapForm,
  plug: {
    score: 2,
    fibre: { top: 2, middle: 2, low: 2 },
    surface: 1,
    tips: 'white',
    nodules: 'none',
  } as PlugSeen,
  look: {
    score: 2,
    round: 'all round',
    runs: 'straight',
    surface: 'clean',
    tips: 'white',
  } as QuickLook,
};
const { draft, on, record, busy, sentence, wrong } = useRecording('inspectRoots', () => props.lot, {
  kind: 'drawn' as RootPlant['kind'],
  ...unseen,
  height: '',
  diameter: '',
  shoot: '',
  root: '',
  spoiled: false,
});
const asUnseen = JSON.stringify(unseen);
/** Whether anything of this plant was set yet: what a sheet begins with is nobody's look. */
const looked = computed(() => {
  const { laterals, tap, plug, look } = draft.value;
  return JSON.stringify({ laterals, tap, plug, look }) !== asUnseen;
});
const size = (text: string, quantity: 'height' | 'diameter') =>
  text.trim() === '' ? null : typed(typedNumber(text), quantity);
const mass = (text: string) => (text.trim() === '' ? null : typedNumber(text));
const plant = computed<RootPlant>(() => {
  const d = draft.value;
  const sizes = {
    heightCm: size(d.height, 'height'),
    diameterMm: size(d.diameter, 'diameter'),
    shootDryG: mass(d.shoot),
    rootDryG: mass(d.root),
  };
  const score = <T extends { score: PlugSeen['score'] }>(seen: T): T =>
    hasPlug.value ? seen : { ...seen, score: null };
  return d.kind === 'drawn'
    ? {
        kind: 'drawn',
        laterals: d.laterals,
        tap: d.tap,
        plug: { ...score(d.plug), nodules: nodulates.value ? d.plug.nodules : null },
        ...sizes,
      }
    : { kind: 'quick', look: score(d.look), ...sizes };
});
async function save() {
  const said = say`Plant ${props.nth} of ${props.lot.row.code} kept.`;
  if (await record({ plant: plant.value, spoiled: draft.value.spoiled }, said)) emit('close');
}
const metering = ref(false);
/** Grades a photo suggests, taken by whoever holds the plant. */
function useGrades({
  top,
  middle,
  low,
  surface,
}: {
  top: number;
  middle: number;
  low: number;
  surface: number;
}) {
  draft.value.plug.fibre = { top, middle, low };
  draft.value.plug.surface = surface;
  metering.value = false;
}
const depthMm = computed(() => {
  const { home } = props.lot.facts;
  return home.kind === 'container' ? home.depthMm : null;
});
const kinds = [
  { value: 'drawn', words: say`Root by root` },
  { value: 'quick', words: say`At a glance` },
] as const;
</script>

<template>
  <FormDialog
    :title="say`Plant ${nth} at the bench`"
    :subtitle="`${lot.row.code} · ${lot.species}`"
    wide
    @close="emit('close')"
  >
    <form class="space-y-4" novalidate @submit.prevent="save">
      <div class="flex flex-wrap gap-2" role="radiogroup" :aria-label="say`How it is looked at`">
        <label
          v-for="k in kinds"
          :key="k.value"
          class="act has-checked:bg-ink has-checked:text-paper has-focus-visible:outline-3"
        >
          <input v-model="draft.kind" class="sr-only" type="radio" name="look" :value="k.value" />{{
            k.words
          }}
        </label>
      </div>
      <div class="grid gap-5 md:grid-cols-[1fr_16rem]">
        <div class="space-y-4">
          <template v-if="draft.kind === 'drawn'">
            <RosetteEditor v-model="draft.laterals" />
            <button class="act" type="button" @click="metering = true">{{ say`Grades from a photo` }}</button>
            <PlugSide
              v-model="draft.plug"
              v-model:tap="draft.tap"
              :has-plug="hasPlug"
              :nodulates="nodulates"
            />
          </template>
          <QuickLookFields v-else v-model="draft.look" :has-plug="hasPlug" />
          <div class="grid grid-cols-2 gap-3 sm:grid-cols-4">
            <FormField
              v-model="draft.height"
              :label="say`Height`"
              :unit="unit('height')"
              inputmode="decimal"
              :fault="wrong('plant.heightCm')"
            />
            <FormField
              v-model="draft.diameter"
              :label="say`Collar`"
              :unit="unit('diameter')"
              inputmode="decimal"
              :fault="wrong('plant.diameterMm')"
            />
            <FormField
              v-model="draft.shoot"
              :label="say`Dry shoot`"
              unit="g"
              inputmode="decimal"
              :fault="wrong('plant.shootDryG')"
            />
            <FormField
              v-model="draft.root"
              :label="say`Dry root`"
              unit="g"
              inputmode="decimal"
              :fault="wrong('plant.rootDryG')"
            />
          </div>
          <label class="flex min-h-11 items-center gap-2">
            <input v-model="draft.spoiled" class="size-5" type="checkbox" />
            {{ say`Spoiled by pulling: it leaves the lot ` }}
          </label>
          <EntryFields
            v-model:on="on"
            v-model:note="draft.note"
            :wrong="wrong"
            :hint="say`Smell, pests, what was done`"
          />
        </div>
        <PlantFigures v-if="looked" class="md:sticky md:top-4 md:self-start" :plant="plant" />
        <p v-else class="text-muted" data-testid="not-looked">
          {{ say`Nothing is judged before something of this plant is drawn or set.` }}
        </p>
      </div>
      <SheetActs :act="say`Keep the plant`" :busy="busy" :sentence="sentence()" @save="save" />
    </form>
    <PhotoMeterDialog v-if="metering" :depth-mm="depthMm" @close="metering = false" @use="useGrades" />
  </FormDialog>
</template>
