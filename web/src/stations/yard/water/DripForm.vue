<script setup lang="ts">
import { say } from '@kauri/core';
import type { Drip, WaterPlan } from '@kauri/core/contract';
import { computed, reactive, watch } from 'vue';
import FormField from '../../../parts/FormField.vue';
import { typedNumber } from '../../../parts/typed';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import DripDrawing from './DripDrawing.vue';
import type { WaterDesk } from './useWatering';
import type { LaidDrip, WateredPlace } from './wateredPlace';

/** The drip on one place: drawn, and changed for it or for all of its kind. */
const props = defineProps<{ w: WaterDesk; chosen: LaidDrip; may: boolean }>();
const nursery = useNursery();
const { shown, typed, unit } = usePreferences();
const { plan, busy } = props.w;
const chosenGood = computed(() => ('grid' in props.chosen ? (props.chosen as WateredPlace) : null));

const form = reactive({
  line: '',
  spacing: '',
  flow: '',
  diameter: '',
  pressure: '',
  cover: '',
  rain: '',
  looped: false,
});
watch(
  () => props.chosen.drip,
  (d) => {
    if (!d) return;
    const mm = (x: number) => String(Number(shown(x, 'timber').toFixed(2)));
    Object.assign(form, {
      line: mm(d.lineSpacingMm),
      spacing: mm(d.emitterSpacingMm),
      flow: String(Number(shown(d.emitterFlowLph, 'flow').toFixed(3))),
      diameter: mm(d.insideDiameterMm),
      pressure: String(Number(shown(d.nominalPressureM, 'site').toFixed(2))),
      cover: String(Math.round(d.canopyCover * 100)),
      rain: String(Math.round(d.rainShare * 100)),
      looped: !!d.looped,
    });
  },
  { immediate: true },
);
function keepDrip(everywhere = false) {
  const mm = (text: string) => typed(typedNumber(text), 'timber');
  const change = {
    lineSpacingMm: mm(form.line),
    emitterSpacingMm: mm(form.spacing),
    emitterFlowLph: typed(typedNumber(form.flow), 'flow'),
    insideDiameterMm: mm(form.diameter),
    nominalPressureM: typed(typedNumber(form.pressure), 'site'),
    canopyCover: typedNumber(form.cover) / 100,
    rainShare: typedNumber(form.rain) / 100,
    looped: form.looped,
  };
  const kind = props.chosen.shown.place.place.kind;
  const kindOf = (d: Drip) => nursery.lookup.places.get(d.placeId)?.place.kind;
  void props.w.keep({
    ...plan.value!,
    drips: plan.value!.drips.map((d) =>
      d.placeId === props.chosen.drip.placeId || (everywhere && kindOf(d) === kind) ? { ...d, ...change } : d,
    ),
  });
}
function takeUp() {
  const id = props.chosen.drip.placeId;
  void props.w.keep({
    ...plan.value!,
    drips: plan.value!.drips.filter((d) => d.placeId !== id),
    zones: plan.value!.zones.map((z) => ({ ...z, placeIds: z.placeIds.filter((p) => p !== id) })),
  } satisfies WaterPlan);
}
</script>

<template>
  <section aria-labelledby="drip-of">
    <h2 id="drip-of" class="text-lg">{{ say`Drip on ${chosen.shown.place.place.name}` }}</h2>
    <DripDrawing v-if="chosenGood" :watered="chosenGood" />
    <p v-else class="panel p-3" role="status">{{ chosen.fault }}</p>
    <form class="mt-2 grid grid-cols-3 gap-2" novalidate @submit.prevent="keepDrip()">
      <FormField v-model="form.line" :label="say`Lines apart`" :unit="unit('timber')" inputmode="decimal" />
      <FormField
        v-model="form.spacing"
        :label="say`Emitters apart`"
        :unit="unit('timber')"
        inputmode="decimal"
      />
      <FormField v-model="form.flow" :label="say`Each gives`" :unit="unit('flow')" inputmode="decimal" />
      <FormField
        v-model="form.diameter"
        :label="say`Pipe inside`"
        :unit="unit('timber')"
        inputmode="decimal"
      />
      <FormField v-model="form.pressure" :label="say`Rated at`" :unit="unit('site')" inputmode="decimal" />
      <FormField v-model="form.cover" :label="say`Leaf cover`" unit="%" inputmode="decimal" />
      <FormField v-model="form.rain" :label="say`Rain reaching`" unit="%" inputmode="decimal" />
      <label class="col-span-2 flex min-h-11 items-center gap-2 self-end"
        ><input v-model="form.looped" type="checkbox" class="size-5" />
        {{ say`Ends joined to a loop` }}</label
      >
      <div v-if="may" class="col-span-3 flex flex-wrap gap-2">
        <button class="act" type="submit" :disabled="busy">{{ say`Keep` }}</button>
        <button class="act" type="button" :disabled="busy" @click="keepDrip(true)">
          {{ say`Keep for all of its kind` }}
        </button>
        <button class="act" type="button" :disabled="busy" @click="takeUp">
          {{ say`Take the drip up` }}
        </button>
      </div>
    </form>
  </section>
</template>
