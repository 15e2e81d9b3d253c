<script setup lang="ts">
import { routeStarts, stageEnds, startOf, type RouteStart, type StageEnd, say } from '@kauri/core';
import { RaisingRoute, type RouteStage } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { computed, ref } from 'vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import { typedNumber } from '../../parts/typed';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import SheetActs from '../../parts/SheetActs.vue';
import { useDraft } from '../../parts/useDraft';
import { cuttingWords } from '../../words/seed';
import { endWords, startWords } from './routeWords';

/** Writes a route, stage by stage. */
const props = defineProps<{
  speciesId: string;
  route: RaisingRoute | null;
  /** Keeps it; says what is wrong, or null once it is kept. */
  write: (route: RaisingRoute) => Promise<string | null>;
}>();
const emit = defineEmits<{ close: [] }>();
const nursery = useNursery();
const { shown, typed, unit } = usePreferences();
const densityText = (perM2: number) => String(Number(shown(perM2, 'density').toFixed(1)));

type Cutting = NonNullable<RaisingRoute['cutting']>;
interface TypedStage {
  placeId: string;
  containerTypeId: string;
  density: string;
  ends: StageEnd | '';
  goesOn: string;
  hours: string;
}
const places = computed(() => nursery.catalogue!.places.filter(({ place }) => place.kind !== 'bay'));
const isBed = (placeId: string) => nursery.lookup.places.get(placeId)?.place.kind === 'bed';
const typedStage = (stage: RouteStage): TypedStage => ({
  placeId: stage.placeId,
  containerTypeId: stage.containerTypeId ?? containers.value[0]?.value ?? '',
  density: densityText(stage.densityPerM2 ?? 150),
  ends: stage.ends ?? '',
  goesOn: String(Math.round(stage.goesOn * 100)),
  hours: String(stage.hoursPer100),
});
const blankStage = (): TypedStage => ({
  placeId: places.value[0]?.id ?? '',
  containerTypeId: containers.value[0]?.value ?? '',
  density: densityText(150),
  ends: '',
  goesOn: '90',
  hours: '1',
});
const containers = computed(() =>
  nursery.catalogue!.containers.map(({ id, values }) => ({ value: id, words: values.name })),
);
const placeOptions = computed(() => places.value.map(({ id, place }) => ({ value: id, words: place.name })));
const startOptions = routeStarts.map((value) => ({ value, words: startWords[value] }));
const endOptions = stageEnds.map((value) => ({ value, words: endWords[value] }));
const cuttingOptions = computed(() => {
  const species = nursery.lookup.species.get(props.speciesId)!;
  return (Object.keys(startOf(species).cuttings) as Cutting[]).map((value) => ({
    value,
    words: cuttingWords[value],
  }));
});

const { draft, clear } = useDraft(`route.${props.route?.id ?? `new.${props.speciesId}`}`, {
  name: props.route?.name ?? '',
  start: props.route?.start ?? ('treated seed' as RouteStart),
  cutting: props.route?.cutting ?? cuttingOptions.value[0]?.value ?? ('hard' as Cutting),
  stages: props.route ? props.route.stages.map(typedStage) : [blankStage()],
});
const fault = ref<string | null>(null);
const busy = ref(false);

function addStage() {
  const { stages } = draft.value;
  stages[stages.length - 1].ends ||= 'plug holds';
  stages.push(blankStage());
}
async function keep() {
  const { name, start, cutting, stages } = draft.value;
  const read = RaisingRoute.safeParse({
    id: props.route?.id ?? newId(),
    speciesId: props.speciesId,
    name,
    start,
    cutting: start === 'cuttings' ? cutting : null,
    stages: stages.map((stage, i) => ({
      placeId: stage.placeId,
      containerTypeId: isBed(stage.placeId) ? null : stage.containerTypeId,
      densityPerM2: isBed(stage.placeId) ? typed(typedNumber(stage.density), 'density') : null,
      ends: i === stages.length - 1 ? null : stage.ends || null,
      goesOn: typedNumber(stage.goesOn) / 100,
      hoursPer100: typedNumber(stage.hours),
    })),
  });
  if (!read.success) {
    const [issue] = read.error.issues;
    const at = issue.path[0] === 'stages' && typeof issue.path[1] === 'number' ? issue.path[1] + 1 : null;
    fault.value = at === null ? issue.message : say`Stage ${at}: ${issue.message}`;
    return;
  }
  busy.value = true;
  fault.value = await props.write(read.data);
  busy.value = false;
  if (fault.value !== null) return;
  clear();
  emit('close');
}
</script>

<template>
  <FormDialog :title="route ? say`Change a route` : say`Add a route`" wide @close="emit('close')">
    <form class="space-y-4" novalidate @submit.prevent="keep">
      <div class="grid gap-3 sm:grid-cols-3">
        <FormField v-model="draft.name" :label="say`Name`" />
        <SelectField v-model="draft.start" :label="say`Begins with`" :options="startOptions" />
        <SelectField
          v-if="draft.start === 'cuttings'"
          v-model="draft.cutting"
          :label="say`Cuttings`"
          :options="cuttingOptions"
        />
      </div>
      <fieldset v-for="(stage, i) in draft.stages" :key="i" class="panel grid gap-3 p-4 sm:grid-cols-3">
        <legend class="px-1 font-bold">{{ say`Stage ${i + 1}` }}</legend>
        <SelectField v-model="stage.placeId" :label="say`Where it is like`" :options="placeOptions" />
        <FormField
          v-if="isBed(stage.placeId)"
          v-model="stage.density"
          :label="say`Plants`"
          :unit="unit('density')"
          inputmode="numeric"
        />
        <SelectField v-else v-model="stage.containerTypeId" :label="say`In`" :options="containers" />
        <SelectField
          v-if="i < draft.stages.length - 1"
          :model-value="stage.ends || 'plug holds'"
          :label="say`It ends`"
          :options="endOptions"
          @update:model-value="(ends) => (stage.ends = ends)"
        />
        <p v-else class="text-muted self-end pb-2">{{ say`They leave from here.` }}</p>
        <FormField
          v-model="stage.goesOn"
          :label="i < draft.stages.length - 1 ? say`Go on` : say`Leave`"
          unit="%"
          inputmode="decimal"
        />
        <FormField v-model="stage.hours" :label="say`Work a hundred plants`" unit="h" inputmode="decimal" />
        <button
          v-if="draft.stages.length > 1"
          class="quiet self-end pb-2"
          type="button"
          @click="draft.stages.splice(i, 1)"
        >
          {{ say`Take this stage out` }}
        </button>
      </fieldset>
      <button v-if="draft.stages.length < 6" class="act" type="button" @click="addStage">
        {{ say`Add a stage` }}
      </button>
      <SheetActs :act="say`Keep the route`" :busy="busy" :sentence="fault" @save="keep" />
    </form>
  </FormDialog>
</template>
