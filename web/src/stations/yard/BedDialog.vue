<script setup lang="ts">
import { bedSupports, cornersOf, freeSpot, nextSpot, type BedDesign, say } from '@kauri/core';
import type { Place, PlaceBody } from '@kauri/core/contract';
import { computed, ref } from 'vue';
import FormDialog from '../../parts/FormDialog.vue';
import DateField from '../../parts/DateField.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import { typedNumber } from '../../parts/typed';
import { useDraft } from '../../parts/useDraft';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useYard } from '../../stores/yard';
import BedCarpentry from './BedCarpentry.vue';
import BedFigures from './BedFigures.vue';
import BedMore from './BedMore.vue';
import DesignKeeper from './DesignKeeper.vue';
import BedSection from './BedSection.vue';
import BedWalls from './BedWalls.vue';
import KeepActs from './KeepActs.vue';
import SpotFields from './SpotFields.vue';
import { bedAnswers } from './bedAnswers';
import {
  cloths,
  designText,
  fromDesign,
  meshes,
  meshesOrNone,
  toDesign,
  USUAL_DENSITY,
  usualFields,
  type BedForm,
} from './bedForm';
import { spotWarning } from './spotWarning';
import { useKeepPlace } from './useKeepPlace';
import type { ShownPlace } from './usePlaces';

const props = defineProps<{
  places: readonly ShownPlace[];
  place?: Place;
  /** Sizes proposed for a new bed. */
  lengthMm?: number;
  widthMm?: number;
}>();
const emit = defineEmits<{ close: []; kept: [id: string] }>();
const nursery = useNursery();
const yard = useYard();
const preferences = usePreferences();
const metres = (value: number) => String(Number(preferences.shown(value, 'site').toFixed(2)));

/** The number after the highest of its kind. */
function nextName(): string {
  const word = say`Bed ${''}`.trim();
  const numbers = props.places.flatMap(({ place: { place } }) =>
    place.name.startsWith(word) ? [parseInt(place.name.slice(word.length), 10) || 0] : [],
  );
  return say`Bed ${Math.max(0, ...numbers) + 1}`;
}

function initial(): BedForm {
  const grounds = props.places.map((p) => ({
    id: p.place.id,
    name: p.place.place.name,
    corners: cornersOf(p.place.place),
  }));
  const spot =
    freeSpot((props.lengthMm ?? 2400) / 1000, (props.widthMm ?? 1200) / 1000, grounds, yard.elements) ??
    nextSpot(
      props.places.map((p) => p.footprint),
      1.2,
    );
  const usual: BedForm = {
    name: nextName(),
    ...usualFields(preferences, props.lengthMm ?? 2400, props.widthMm ?? 1200),
    mediumId: nursery.catalogue!.media[0].id,
    east: metres(spot.eastM),
    north: metres(spot.northM),
    angle: '0',
    density: String(Number(preferences.shown(USUAL_DENSITY, 'density').toFixed(1))),
    builtOn: '',
  };
  if (props.place?.place.kind !== 'bed') return usual;
  const { name, mediumId, eastM, northM, angleDeg, design } = props.place.place;
  return {
    ...usual,
    ...fromDesign(design, preferences),
    name,
    builtOn: props.place.place.builtOn ?? '',
    mediumId: mediumId ?? usual.mediumId,
    east: metres(eastM),
    north: metres(northM),
    angle: String(angleDeg),
  };
}
const key = props.place
  ? `bed.${props.place.id}.${props.place.version}.${preferences.units}`
  : `bed.new.${preferences.units}${props.lengthMm ? `.${props.lengthMm}x${props.widthMm}` : ''}`;
const { draft, clear } = useDraft<BedForm>(key, initial());
const { keep, busy, theirs, sentence, wrong } = useKeepPlace(
  props.place,
  props.place ? `bed.${props.place.id}` : 'bed.new',
);

/** Whether all else than its name and size is shown. */
const more = ref(props.place !== undefined);
const sizeWords = computed(() =>
  draft.value.walls === 'boards'
    ? { length: say`Length`, width: say`Width` }
    : {
        length: draft.value.walls === 'round' ? say`Across, at the rim` : say`Length, at the rim`,
        width: say`Width, at the rim`,
      },
);
const grounds = [
  { value: 'paving', words: say`Clean paving` },
  { value: 'gravel', words: say`Gravel` },
  { value: 'soil', words: say`Bare soil` },
  { value: 'weeds', words: say`Weedy ground` },
] as const;
const design = computed(() => toDesign(draft.value, preferences));
const body = computed<PlaceBody>(() => ({
  kind: 'bed',
  name: draft.value.name,
  eastM: preferences.typed(typedNumber(draft.value.east), 'site'),
  northM: preferences.typed(typedNumber(draft.value.north), 'site'),
  angleDeg: ((typedNumber(draft.value.angle) % 360) + 360) % 360,
  mediumId: draft.value.mediumId,
  design: { ...design.value, tiers: [...design.value.tiers], layers: [...design.value.layers] } as Extract<
    PlaceBody,
    { kind: 'bed' }
  >['design'],
  builtOn: draft.value.builtOn || null,
  builtFrom: builtFrom.value,
}));
/** The kept design the form now says word for word, if any. */
const builtFrom = computed(() => {
  const typed = designText(design.value);
  const same = nursery.catalogue!.designs.find((d) => designText(d.design as BedDesign) === typed);
  if (same) return { designId: same.id, version: same.version };
  const before = props.place?.place.kind === 'bed' ? props.place.place.builtFrom : null;
  return before && designText((props.place!.place as { design: BedDesign }).design) === typed ? before : null;
});
function startFrom(d: BedDesign) {
  Object.assign(draft.value, fromDesign(d, preferences));
}
const density = computed(() => preferences.typed(typedNumber(draft.value.density), 'density'));
const worked = computed(() => {
  const medium = nursery.lookup.media.get(draft.value.mediumId) ?? nursery.catalogue!.media[0];
  try {
    // What carries it is worked out with the rest: a build that makes no sense says so here too.
    bedSupports(design.value, medium.values);
    return { answers: bedAnswers(design.value, medium.values, density.value), fault: null };
  } catch (error) {
    return { answers: null, fault: error instanceof Error ? error.message : String(error) };
  }
});
const warning = computed(() => spotWarning(body.value, props.place?.id, props.places, yard.elements));

async function save() {
  const kept = await keep(body.value);
  if (!kept) {
    // What is wrong may stand among the rest.
    more.value = true;
    return;
  }
  clear();
  emit('kept', kept.id);
}
</script>

<template>
  <FormDialog :title="place ? say`Edit ${place.place.name}` : say`Add a bed`" wide @close="emit('close')">
    <form class="grid gap-6 md:grid-cols-2" novalidate @submit.prevent="save">
      <div class="space-y-3">
        <FormField v-model="draft.name" :label="say`Name`" :fault="wrong('name')" />
        <div class="grid grid-cols-2 gap-3">
          <FormField
            v-model="draft.length"
            :label="sizeWords.length"
            :unit="preferences.unit('timber')"
            inputmode="decimal"
            :fault="wrong('design.lengthMm')"
          />
          <FormField
            v-if="draft.walls !== 'round'"
            v-model="draft.width"
            :label="sizeWords.width"
            :unit="preferences.unit('timber')"
            inputmode="decimal"
            :fault="wrong('design.widthMm')"
          />
        </div>
        <details :open="more" class="space-y-3" @toggle="more = ($event.target as HTMLDetailsElement).open">
          <summary class="act" data-testid="bed-more">{{ say`All else about it` }}</summary>
          <p v-if="!place" class="text-muted text-sm">
            {{ say`Ordinary values stand here already; all of it can be changed later.` }}
          </p>
          <DesignKeeper
            :design="design"
            :name="draft.name"
            :buildable="!!worked.answers"
            @start="startFrom"
          />
          <BedWalls v-model="draft" :wrong="wrong" />
          <SelectField
            v-model="draft.mediumId"
            :label="say`Filled with`"
            :options="nursery.catalogue!.media.map((m) => ({ value: m.id, words: m.values.name }))"
          />
          <FormField
            v-model="draft.fillBelowRim"
            :label="say`Filled to below the rim`"
            :unit="preferences.unit('timber')"
            inputmode="decimal"
            :fault="wrong('design.fillBelowRimMm')"
          />
          <div class="grid grid-cols-2 gap-3">
            <SelectField
              v-model="draft.mesh"
              :label="say`Mesh`"
              :options="draft.walls === 'boards' ? meshes : meshesOrNone"
            />
            <SelectField v-model="draft.cloth" :label="say`Retaining cloth`" :options="cloths" />
          </div>
          <label class="flex min-h-11 items-center gap-2"
            ><input v-model="draft.grid" type="checkbox" class="size-5" />
            {{ say`Heavy welded grid under the mesh` }}</label
          >
          <div class="grid grid-cols-2 gap-3">
            <SelectField v-model="draft.ground" :label="say`Stands on`" :options="grounds" />
            <FormField
              v-model="draft.airGap"
              :label="say`Air gap`"
              :unit="preferences.unit('timber')"
              inputmode="decimal"
              :fault="wrong('design.airGapMm')"
            />
          </div>
          <label class="flex min-h-11 items-center gap-2"
            ><input v-model="draft.lid" type="checkbox" class="size-5" /> {{ say`Lid or cage` }}</label
          >
          <FormField
            v-if="draft.lid"
            v-model="draft.lidAboveRim"
            :label="say`Lid above the rim`"
            :unit="preferences.unit('timber')"
            inputmode="decimal"
            :fault="wrong('design.lidAboveRimMm')"
          />
          <BedCarpentry v-if="draft.walls === 'boards'" v-model="draft" :open="!place" :wrong="wrong" />
          <DateField
            v-model="draft.builtOn"
            :label="say`Built on`"
            :hint="say`Left empty while it is only planned`"
            :fault="wrong('builtOn')"
          />
          <SpotFields
            v-model:east="draft.east"
            v-model:north="draft.north"
            v-model:angle="draft.angle"
            :wrong="wrong"
            :warning="warning"
          />
        </details>
      </div>
      <div>
        <div class="md:sticky md:top-0">
          <FormField
            v-model="draft.density"
            class="mb-3 max-w-48"
            :label="say`Density asked about`"
            :unit="preferences.unit('density')"
            inputmode="decimal"
          />
          <template v-if="worked.answers">
            <p v-if="!worked.answers.geometry.gapEnough" class="mb-2 font-bold" role="status">
              {{
                say`The gap is too small over this ground: ${preferences.show(worked.answers.geometry.neededGapMm, 'timber')} are needed, or roots bridge it.`
              }}
            </p>
            <BedSection :design="design" :geometry="worked.answers.geometry" />
            <BedFigures
              :answers="worked.answers"
              :density="density"
              :rim-mm="worked.answers.geometry.frameHeightMm + design.airGapMm"
            />
            <ShowWorking :steps="worked.answers.working" />
            <BedMore
              class="mt-4"
              :design="design"
              :medium="(nursery.lookup.media.get(draft.mediumId) ?? nursery.catalogue!.media[0]).values"
              :answers="worked.answers"
              :density-per-m2="density"
            />
          </template>
          <p v-else class="panel p-4" role="status">{{ worked.fault }}</p>
          <p class="border-ink text-muted mt-3 border-l-4 pl-3 text-[0.95rem]">
            {{
              say`Cut mesh has sharp ends: gloves and eye protection. Keep dust of treated timber out of lungs; never burn or compost its offcuts. Whether treated wood may touch medium for food plants depends on the product and the place.`
            }}
          </p>
        </div>
      </div>
      <div class="md:col-span-2">
        <KeepActs
          :act="place ? say`Save` : say`Add the bed`"
          :busy="busy"
          :sentence="sentence()"
          :theirs="theirs"
          @save="save"
        />
      </div>
    </form>
  </FormDialog>
</template>
