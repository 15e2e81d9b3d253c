<script setup lang="ts">
import {
  bedGeometry,
  bedSowing,
  betaMean,
  betaProduct,
  collarAtDensity,
  densityForCollar,
  rowSpacingFor,
  sowingWays,
  type BedDesign,
  type SowingWay,
  say,
} from '@kauri/core';
import { useSessionStorage } from '@vueuse/core';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { typedNumber } from '../../../parts/typed';
import { makePdf, offerFile } from '../../../print/pdf';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSeed } from '../../../stores/seed';
import { useSession } from '../../../stores/session';
import { count } from '../../../words/numbers';
import { usePlaces } from '../../yard/usePlaces';
import CollarCurve from './CollarCurve.vue';
import { presetOf, sowPreset } from './presetLot';
import { spacingTemplate } from './spacingTemplate';
import type { Desk } from './useDesk';
import { keptKey } from '../../../stores/kept';

const props = defineProps<{ desk: Desk; seeds: number }>();
const nursery = useNursery();
const seed = useSeed();
const session = useSession();
const router = useRouter();
const { show, unit, typed } = usePreferences();
const { places } = usePlaces();

const beds = computed(() => places.value.filter((p) => p.place.place.kind === 'bed'));
const asked = useSessionStorage(keptKey('desk.bed'), {
  placeId: '',
  way: 'rows' as SowingWay,
  collar: '',
  rowSpacing: '',
});
const bed = computed(
  () => beds.value.find((b) => b.place.id === asked.value.placeId) ?? beds.value[0] ?? null,
);
const geometry = computed(() => {
  if (!bed.value) return null;
  const { design, mediumId } = bed.value.place.place as { design: BedDesign; mediumId: string | null };
  const settling = mediumId === null ? undefined : nursery.lookup.media.get(mediumId)?.values.settling;
  return bedGeometry(design, settling).value;
});
const values = computed(() => props.desk.species.value.values);
const start = computed(() => seed.startFor(props.desk.species.value.id));
const stages = computed(() => Object.values(props.desk.chain.value).map((l) => l.next));
/** Up and living on: what stands, before grading. */
const standing = computed(() => betaMean(betaProduct(stages.value.slice(0, 3))));
const depth = computed(() => geometry.value?.settledDepthMm ?? 250);
const collarMm = computed(() =>
  asked.value.collar.trim() === ''
    ? collarAtDensity(values.value, 200, depth.value)
    : typed(typedNumber(asked.value.collar), 'diameter'),
);
const density = computed(() => {
  try {
    return densityForCollar(values.value, collarMm.value, depth.value);
  } catch {
    return null;
  }
});
const rowMm = computed(() => {
  if (asked.value.rowSpacing.trim() !== '') return typed(typedNumber(asked.value.rowSpacing), 'timber');
  return rowSpacingFor({
    way: asked.value.way,
    standingPerM2: density.value?.value ?? 200,
    standingShare: standing.value,
    thicknessMm: start.value.thicknessMm,
  });
});
const answer = computed(() => {
  try {
    const density = densityForCollar(values.value, collarMm.value, depth.value);
    const areaM2 = (props.seeds * standing.value) / density.value;
    const width = geometry.value?.insideWidthMm ?? 1000;
    const lengthMm = (areaM2 * 1e6) / width;
    const plan = bedSowing({
      way: asked.value.way,
      standingPerM2: density.value,
      standingShare: standing.value,
      areaM2,
      lengthMm,
      rowSpacingMm: rowMm.value,
      thicknessMm: start.value.thicknessMm,
    });
    return {
      fault: null,
      density: density.value,
      areaM2,
      lengthMm,
      width,
      plan: plan.value,
      working: [...density.working, ...plan.working],
    };
  } catch (error) {
    return { fault: error instanceof Error ? error.message : String(error) };
  }
});
/** Small seed is sown by the tenth of a millimetre, or the hundredth of an inch. */
const fine = computed(() => (start.value.thicknessMm < 5 ? (unit('timber') === 'mm' ? 1 : 2) : undefined));
const fitting = computed(() => {
  if (answer.value.fault !== null || !geometry.value || bed.value?.occupancy.kind !== 'bed') return null;
  return answer.value.areaM2! - bed.value.occupancy.freeM2;
});

async function template() {
  const a = answer.value;
  if (a.fault !== null || !a.plan?.gapMm) return;
  const pdf = await makePdf(
    spacingTemplate({
      title: say`${props.desk.species.value.common}: rows ${show(rowMm.value, 'timber')} apart, seeds ${show(a.plan.gapMm, 'timber', 1)} apart`,
      rowMm: rowMm.value,
      gapMm: a.plan.gapMm,
      depth: say`Sow ${show(a.plan.depthMm.least, 'timber')} to ${show(a.plan.depthMm.most, 'timber')} deep.`,
    }),
  );
  offerFile('spacing-template.pdf', pdf, 'application/pdf');
}

function sow() {
  const a = answer.value;
  if (a.fault !== null || !bed.value) return;
  const metric = (value: number, quantity: 'density' | 'area') =>
    String(
      Number(
        usePreferences()
          .shown(value, quantity)
          .toFixed(quantity === 'area' ? 3 : 1),
      ),
    );
  sowPreset(router, {
    ...presetOf(props.desk, props.seeds),
    placeId: bed.value.place.id,
    density: metric(a.density!, 'density'),
    area: metric(a.areaM2!, 'area'),
    rows: a.plan!.rows ? String(a.plan!.rows) : '',
  });
}
const wayWords: Record<SowingWay, string> = {
  rows: say`In rows`,
  drills: say`In drills`,
  broadcast: say`Broadcast`,
};
const ways = sowingWays.map((value) => ({ value, words: wayWords[value] }));
const bedOptions = computed(() => beds.value.map((b) => ({ value: b.place.id, words: b.place.place.name })));
</script>

<template>
  <div class="grid gap-5 xl:grid-cols-2">
    <div class="space-y-3">
      <div class="grid grid-cols-2 gap-3">
        <SelectField
          v-if="bedOptions.length"
          :model-value="bed?.place.id ?? ''"
          :label="say`Bed`"
          :options="bedOptions"
          @update:model-value="asked.placeId = $event"
        />
        <SelectField v-model="asked.way" :label="say`How`" :options="ways" />
        <FormField
          v-model="asked.collar"
          :label="say`Collar wanted`"
          :unit="unit('diameter')"
          inputmode="decimal"
          :hint="asked.collar.trim() ? undefined : say`Blank: ${show(collarMm, 'diameter')}`"
        />
        <FormField
          v-if="asked.way !== 'broadcast'"
          v-model="asked.rowSpacing"
          :label="say`Between rows`"
          :unit="unit('timber')"
          inputmode="decimal"
          :hint="asked.rowSpacing.trim() ? undefined : say`Blank: ${show(rowMm, 'timber')}`"
        />
      </div>
      <p v-if="answer.fault !== null" class="font-bold" role="status">{{ answer.fault }}</p>
      <template v-else>
        <p class="text-lg" data-testid="bed-answer">
          <b>{{ show(answer.areaM2!, 'area') }}</b>{{
            say`, ${show(answer.lengthMm! / 1000, 'site')} of the bed, at ${show(answer.density!, 'density')} standing;`
          }}
          <template v-if="answer.plan!.gapMm !== null">{{
            say`${count(answer.plan!.rows)} rows, a seed every ${show(answer.plan!.gapMm!, 'timber', 1)}.`
          }}</template>
          <template v-else>{{ say`${count(answer.plan!.seedsPerM2)} seeds a square metre.` }}</template>
        </p>
        <p>
          {{
            say`Sow ${show(answer.plan!.depthMm.least, 'timber', fine)} to ${show(answer.plan!.depthMm.most, 'timber', fine)} deep, once to twice the seed’s thickness; mulch ${show(answer.plan!.mulchMm, 'timber')}; cage it against mice and birds the same day.`
          }}
        </p>
        <p v-if="fitting !== null && fitting > 0.005" class="font-bold" role="status">
          {{ say`${show(fitting, 'area')} more than is free in ${bed!.place.place.name}.` }}
        </p>
        <div class="flex flex-wrap gap-2">
          <button v-if="session.may('grower')" class="act-main" type="button" @click="sow">
            {{ say`Sow it` }}
          </button>
          <button v-if="answer.plan!.gapMm !== null" class="act" type="button" @click="template">
            {{ say`Spacing template, 1:1` }}
          </button>
        </div>
        <ShowWorking :steps="answer.working!" />
      </template>
    </div>
    <CollarCurve
      v-if="answer.fault === null"
      :species="values"
      :depth-mm="depth"
      :density="answer.density!"
      :collar-mm="collarMm"
    />
  </div>
</template>
