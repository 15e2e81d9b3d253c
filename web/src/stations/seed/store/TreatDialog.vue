<script setup lang="ts">
import { say } from '@kauri/core';
import type { BatchStore, Protocol, School } from '@kauri/core';
import type { SeedLot } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import EntryFields from '../../../parts/EntryFields.vue';
import FormDialog from '../../../parts/FormDialog.vue';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import { typedNumber } from '../../../parts/typed';
import { useMass } from '../../../parts/useMass';
import { usePreferences } from '../../../stores/preferences';
import { useSeason } from '../../../stores/season';
import { useSeed } from '../../../stores/seed';
import { phasesWords, schoolWords } from '../../../words/seed';
import PhaseRows, { type TypedPhase } from '../PhaseRows.vue';
import { useSeedAct } from '../useSeedAct';

/** Splits a seed lot into arms: parts treated in different ways, to be compared side by side. */
const props = defineProps<{ lot: SeedLot }>();
const emit = defineEmits<{ close: [] }>();
const season = useSeason();
const seed = useSeed();
const preferences = usePreferences();
const mass = useMass();
const router = useRouter();

interface TypedArm {
  id: string;
  name: string;
  school: School;
  grams: string;
  phases: TypedPhase[];
  warmC: string;
  coldC: string;
  warmerByC: string;
}
const start = computed(() => seed.startFor(props.lot.speciesId));
const inUnits = (value: number, of: 'temperature' | 'degrees') =>
  String(Number(preferences.shown(value, of).toFixed(1)));
const names: Record<School, string> = {
  indoors: say`Bag, indoors`,
  tub: say`Leaf tub`,
  sown: say`Sown fresh`,
};
function armOf({ school, phases }: Protocol): TypedArm {
  return {
    id: newId(),
    name: names[school],
    school,
    grams: '',
    phases: phases.map(({ kind, days }) => ({ kind, days: String(days) })),
    warmC: inUnits(20, 'temperature'),
    coldC: inUnits(3, 'temperature'),
    warmerByC: inUnits(school === 'tub' ? 1 : 0, 'degrees'),
  };
}
const { draft, busy, sentence, wrong, send } = useSeedAct(
  'startTreatments',
  {},
  { startedOn: season.todayIso, note: '', arms: [armOf(start.value.protocols[0])] },
  props.lot.id,
);
const protocols = computed(() =>
  start.value.protocols.map((protocol, i) => ({
    value: String(i),
    words: `${schoolWords[protocol.school]}: ${phasesWords(protocol.phases)}`,
  })),
);
function add(i: string) {
  const arm = armOf(start.value.protocols[Number(i)]);
  const same = draft.value.arms.filter((a) => a.name.startsWith(arm.name)).length;
  draft.value.arms.push({ ...arm, name: same ? `${arm.name} ${same + 1}` : arm.name });
}
function useProtocol(arm: TypedArm, i: string) {
  const { name, school, phases, warmerByC } = armOf(start.value.protocols[Number(i)]);
  Object.assign(arm, { name, school, phases, warmerByC });
}
/** The protocol an arm follows to the letter, if it does. */
function protocolOf(arm: TypedArm): string {
  const typed = arm.phases.map(({ kind, days }) => ({ kind, days: typedNumber(days) }));
  const at = start.value.protocols.findIndex(
    (p) => p.school === arm.school && phasesWords(p.phases) === phasesWords(typed),
  );
  return at < 0 ? 'own' : String(at);
}
/** What the other arms leave of the bag, as it would be typed. */
function leftFor(arm: TypedArm): string {
  const others = draft.value.arms
    .filter((a) => a.id !== arm.id)
    .reduce((t, a) => t + preferences.typed(typedNumber(a.grams) || 0, 'seedMass'), 0);
  const left = Math.max(0, seed.held.get(props.lot.id)!.grams - others);
  return String(Number(preferences.shown(left, 'seedMass').toPrecision(6)));
}
const degrees = (text: string) => preferences.typed(typedNumber(text), 'temperature');
const storeOf = (arm: TypedArm): BatchStore =>
  arm.school === 'indoors'
    ? { kind: 'fixed', warmC: degrees(arm.warmC), coldC: degrees(arm.coldC) }
    : { kind: 'outdoors', warmerByC: preferences.typed(typedNumber(arm.warmerByC), 'degrees') };

async function save() {
  const { startedOn, note, arms } = draft.value;
  const body = {
    seedLotId: props.lot.id,
    startedOn,
    note,
    arms: arms.map((arm) => ({
      id: arm.id,
      name: arm.name,
      school: arm.school,
      phases: arm.phases.map(({ kind, days }) => ({ kind, days: typedNumber(days) })),
      store: storeOf(arm),
      grams: preferences.typed(typedNumber(arm.grams), 'seedMass'),
    })),
  };
  const first = arms[0]?.id;
  if (
    (await send(
      body,
      say`${props.lot.code}: ${arms.length === 1 ? say`treatment` : say`${arms.length} arms`} begun.`,
    )) === null
  )
    return;
  await router.push({ name: 'seed-clock', params: { batch: first } });
}
</script>

<template>
  <FormDialog
    :title="say`Treat seed`"
    :subtitle="
      say`${lot.code} holds ${mass(seed.held.get(lot.id)!.grams)}. More than one arm lets you compare.`
    "
    wide
    @close="emit('close')"
  >
    <form class="space-y-4" novalidate @submit.prevent="save">
      <div class="grid gap-4 md:grid-cols-2">
        <fieldset v-for="(arm, i) in draft.arms" :key="arm.id" class="panel space-y-3 p-3">
          <legend class="px-1 font-bold">{{ say`Arm ${i + 1}` }}</legend>
          <div class="grid grid-cols-[1fr_7rem] gap-2">
            <FormField
              v-model="arm.name"
              :label="say`Name of arm ${i + 1}`"
              :fault="wrong(`arms.${i}.name`)"
            />
            <FormField
              v-model="arm.grams"
              :label="say`Mass ${i + 1}`"
              :unit="preferences.unit('seedMass')"
              inputmode="decimal"
              :fault="wrong(`arms.${i}.grams`)"
            />
          </div>
          <button
            v-if="arm.grams.trim() === ''"
            class="quiet"
            type="button"
            @click="arm.grams = leftFor(arm)"
          >
            {{ draft.arms.length > 1 ? say`All that is left` : say`All of the bag` }}
          </button>
          <SelectField
            :model-value="protocolOf(arm)"
            :label="say`Protocol ${i + 1}`"
            :options="[...protocols, { value: 'own', words: say`Your own` }]"
            @update:model-value="$event !== 'own' && useProtocol(arm, $event)"
          />
          <PhaseRows v-model="arm.phases" />
          <div class="grid grid-cols-2 gap-2">
            <template v-if="arm.school === 'indoors'">
              <FormField
                v-model="arm.warmC"
                :label="say`Warm room ${i + 1}`"
                :unit="preferences.unit('temperature')"
                inputmode="decimal"
              />
              <FormField
                v-model="arm.coldC"
                :label="say`Cold room ${i + 1}`"
                :unit="preferences.unit('temperature')"
                inputmode="decimal"
              />
            </template>
            <FormField
              v-else
              v-model="arm.warmerByC"
              :label="say`Warmer than outdoors by ${i + 1}`"
              :unit="preferences.unit('degrees')"
              inputmode="decimal"
            />
          </div>
          <p v-if="arm.school !== 'indoors'" class="text-muted text-sm">
            {{ say`Protect it from mice and birds with mesh; keep it moist, never wet.` }}
          </p>
          <p v-if="arm.phases.some((p) => p.kind === 'hot-water')" class="text-muted text-sm">
            {{ say`Hot water scalds: pour onto the seed, not over hands.` }}
          </p>
          <button v-if="draft.arms.length > 1" class="quiet" type="button" @click="draft.arms.splice(i, 1)">
            {{ say`Remove this arm` }}
          </button>
        </fieldset>
        <div class="space-y-2">
          <p class="font-bold">{{ say`Add an arm` }}</p>
          <p v-for="p in protocols" :key="p.value">
            <button class="act h-auto py-2 text-left !whitespace-normal" type="button" @click="add(p.value)">
              {{ p.words }}
            </button>
          </p>
        </div>
      </div>
      <EntryFields v-model:on="draft.startedOn" v-model:note="draft.note" :wrong="wrong" />
      <SheetActs :act="say`Begin`" :busy="busy" :sentence="sentence()" @save="save" />
    </form>
  </FormDialog>
</template>
