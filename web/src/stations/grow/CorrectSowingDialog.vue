<script setup lang="ts">
import { tallyAt, say } from '@kauri/core';
import type { BodyInputOf, LotDetail, LotRow } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { computed, onMounted, ref } from 'vue';
import { useRouter } from 'vue-router';
import { call } from '../../api/client';
import { ProblemError } from '../../api/problem';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { keptUnlessTyped, typedNumber } from '../../parts/typed';
import { useDraft } from '../../parts/useDraft';
import type { ShownLot } from '../../parts/useLots';
import { useSaving } from '../../parts/useSaving';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { useSeed } from '../../stores/seed';
import { count } from '../../words/numbers';
import { patchOf } from './patch';
import PatchFields from './PatchFields.vue';
import { sowingOf, typedPatch, type TypedSowing } from './sowing';
import SowingFields from './SowingFields.vue';
import StageFields from './StageFields.vue';
import { useSowingBack } from './useSowingBack';
import { useStage } from './useStage';

/** What was written down wrong when a lot was sown, put right; or the sowing taken back as a whole. */
const props = defineProps<{ lot: ShownLot }>();
const emit = defineEmits<{ close: [] }>();
const nursery = useNursery();
const preferences = usePreferences();
const season = useSeason();
const messages = useMessages();
const seed = useSeed();
const router = useRouter();
const takeBackSowing = useSowingBack();
onMounted(() => seed.load().catch(() => undefined));

const { row } = props.lot;
const { stage } = row;
const sown = tallyAt(props.lot.facts.movements, season.today).seeds;
const asTyped = (value: number, quantity: 'density' | 'area' | 'timber') =>
  String(Number(preferences.shown(value, quantity).toFixed(quantity === 'area' ? 2 : 1)));
/** It stands where it was sown. */
const isInFirstPlace = nursery.evidence.get(row.id)!.stages.length === 1;

const written: TypedSowing = {
  speciesId: row.speciesId,
  sownOn: row.sownOn,
  code: row.code,
  seedState: row.seedState,
  origin: row.origin === 'cuttings' ? 'cuttings' : 'seed',
  seedLotId: row.seedLotId ?? '',
  treatmentId: row.treatmentId ?? '',
  stockBedId: row.stockBedId ?? '',
  cutting: row.cutting ?? 'hard',
  seeds: String(sown),
  placeId: stage.placeId,
  containerTypeId: stage.containerTypeId ?? nursery.catalogue!.containers[0].id,
  trays: stage.trays === null ? '' : String(stage.trays),
  density: stage.densityPerM2 === null ? '' : asTyped(stage.densityPerM2, 'density'),
  area: stage.areaM2 === null ? '' : asTyped(stage.areaM2, 'area'),
  ...typedPatch(row.patch, (mm) => asTyped(mm, 'timber')),
};
const { draft, clear } = useDraft(`sowing.${row.id}.${row.version}`, { ...written });
const { busy, fault, save: send, sentence, wrong } = useSaving(`sowing.${row.id}`);
const { onBench, stageOf } = useStage(draft, row.id);
const fromSeed = computed(() => draft.value.origin === 'seed');
const isAsWritten = (...fields: (keyof TypedSowing)[]) =>
  fields.every((field) => draft.value[field] === written[field]);

/** Where it was sown, if that was wrong. */
function stageTyped() {
  if (!isInFirstPlace || isAsWritten('placeId', 'containerTypeId', 'trays', 'density', 'area')) return null;
  const typed = stageOf(stage.id);
  if (typed.kind === 'container') return typed;
  const exact = (field: 'density' | 'area', was: number | null) =>
    keptUnlessTyped(
      draft.value[field],
      was,
      (value) => asTyped(value, field),
      (value) => preferences.typed(value, field),
    ) ?? NaN;
  return {
    ...typed,
    densityPerM2: exact('density', stage.densityPerM2),
    areaM2: exact('area', stage.areaM2),
  };
}

type Sowing = Omit<BodyInputOf<'correctSowing'>, 'id' | 'version'>;
const write = (version: number, id: string, body: Sowing): Promise<LotDetail> =>
  call('correctSowing', { params: { ...nursery.params, lot: row.id }, body: { id, version, ...body } });

/** How it was written down before, to go back to. */
function before(): Sowing {
  const { code, speciesId, sownOn, seedState, seedLotId, treatmentId, stockBedId, cutting, patch } = row;
  const values = { code, speciesId, sownOn, seedState, seedLotId, treatmentId, stockBedId, cutting, patch };
  const { id, placeId, containerTypeId, trays, densityPerM2, areaM2 } = stage;
  const stood =
    containerTypeId === null
      ? ({ kind: 'bed', id, placeId, densityPerM2: densityPerM2!, areaM2: areaM2! } as const)
      : ({ kind: 'container', id, placeId, containerTypeId, trays: trays! } as const);
  return { ...values, origin: written.origin, seeds: sown, stage: isInFirstPlace ? stood : null };
}

async function taken(detail: LotDetail) {
  nursery.takeLot(detail);
  // What came of it went with it.
  if ([...nursery.index.keys()].some((id) => nursery.lots.get(id)?.parentLotId === row.id))
    await nursery.fetchLots();
  void seed.load(true).catch(() => undefined);
}

async function save() {
  const body: Sowing = {
    ...sowingOf(draft.value),
    code: draft.value.code.trim() || row.code,
    seeds: typedNumber(draft.value.seeds),
    patch:
      !isInFirstPlace || isAsWritten('patchFrom', 'patchTo', 'rows')
        ? row.patch
        : onBench.value
          ? null
          : patchOf(draft.value, preferences.typed),
    stage: stageTyped(),
  };
  const answer = await send(body, (id) => write(row.version, id, body));
  if (!answer) {
    // The sheet is made anew from what somebody else left.
    if (fault.value instanceof ProblemError && fault.value.kind === 'stale-edit')
      theirs.value = fault.value.problem.current as LotRow;
    return;
  }
  await taken(answer);
  clear();
  const { code, version } = answer.lot;
  messages.say(say`Sowing of ${code} corrected.`, async () =>
    taken(await write(nursery.lots.get(row.id)?.version ?? version, newId(), before())),
  );
  emit('close');
}

/** As somebody else left it meanwhile. */
const theirs = ref<LotRow | null>(null);
async function showTheirs() {
  await nursery.fetchLots();
  clear();
  emit('close');
}

/** Asked twice: the whole lot goes. */
const asked = ref(false);
async function takeBack() {
  const done = await send({ takeBack: row.id }, (id) => takeBackSowing(row.id, id).then(() => true));
  if (!done) return void (asked.value = false);
  clear();
  messages.say(
    say`Sowing of ${row.code} taken back${row.seedLotId ? say`; its seed is in the store again` : ''}.`,
  );
  await router.push({ name: 'grow' });
}
</script>

<template>
  <FormDialog
    :title="say`Correct the sowing of ${row.code}`"
    :subtitle="say`As it should have been written down; what was recorded since stays.`"
    wide
    @close="emit('close')"
  >
    <form class="grid gap-6 md:grid-cols-2" novalidate @submit.prevent="save">
      <div class="space-y-3">
        <SowingFields v-model="draft" :own-code="row.code" :wrong="wrong" />
      </div>
      <div class="space-y-3">
        <FormField
          v-model="draft.seeds"
          :label="fromSeed ? say`Seeds sown` : say`Cuttings stuck`"
          inputmode="numeric"
          :hint="
            sown > row.held.sown
              ? say`${count(sown - row.held.sown)} of them came up or were lost`
              : undefined
          "
          :fault="wrong('seeds')"
        />
        <StageFields v-if="isInFirstPlace" v-model="draft" :wrong="wrong" :moving="row.id">
          <PatchFields v-if="!onBench" v-model="draft" :place-id="draft.placeId" />
        </StageFields>
        <p v-else class="text-muted">
          {{
            say`It was moved on since: where it stands is changed by moving it on, or by taking a move back.`
          }}
        </p>
        <div v-if="theirs" class="panel p-3" role="status" data-testid="theirs">
          <p class="font-bold">{{ say`Somebody else changed ${theirs.code} meanwhile.` }}</p>
          <button class="quiet" type="button" @click="showTheirs">
            {{ say`Close, and begin again from theirs` }}
          </button>
        </div>
        <SheetActs :act="say`Keep it so`" :busy="busy" :sentence="sentence()" @save="save" />
        <p class="border-rule border-t pt-3">
          <button v-if="!asked" class="quiet" type="button" @click="asked = true">
            {{ say`It was never sown: take the sowing back` }}
          </button>
          <template v-else>
            {{ say`${row.code} goes${row.seedLotId ? say`, and its seed is in the store again` : ''}.` }}
            <button class="act ml-2" type="button" :disabled="busy" @click="takeBack">
              {{ say`Take it back` }}
            </button>
            <button class="quiet ml-2" type="button" @click="asked = false">{{ say`Leave it` }}</button>
          </template>
        </p>
      </div>
    </form>
  </FormDialog>
</template>
