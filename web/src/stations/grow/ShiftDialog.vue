<script setup lang="ts">
import { dayOf, goneInMoving, homeOf, causesByHand, type LotForecast, type OutCause, say } from '@kauri/core';
import { v7 as newId } from 'uuid';
import { computed, shallowRef, watch } from 'vue';
import { watchDebounced } from '@vueuse/core';
import EntryFields from '../../parts/EntryFields.vue';
import FormDialog from '../../parts/FormDialog.vue';
import DateField from '../../parts/DateField.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import type { ShownLot } from '../../parts/useLots';
import { useRecording } from '../../parts/useRecording';
import { useForecasts } from '../../stores/forecasts';
import { useNursery } from '../../stores/nursery';
import { useSeason } from '../../stores/season';
import { causeWords } from '../../words/causes';
import { count } from '../../words/numbers';
import MoveCompared from './MoveCompared.vue';
import { nextSize } from './nextSize';
import RootsMoving from './RootsMoving.vue';
import { blankRoots, rootsTyped } from './rootsMoving';
import StageFields from './StageFields.vue';
import { useStage } from './useStage';

/** Moves a lot on as a whole, or tries what a move on some day would bring, without keeping it. */
const props = defineProps<{ lot: ShownLot }>();
const emit = defineEmits<{ close: [] }>();
const nursery = useNursery();
const season = useSeason();
const forecasts = useForecasts();
const { stage } = props.lot.row;
const { draft, on, record, busy, sentence, wrong } = useRecording('shiftLot', () => props.lot, {
  placeId: stage.placeId,
  containerTypeId: nextSize(props.lot.facts.home, nursery.catalogue!.containers)!.id,
  trays: '',
  density: '',
  area: '',
  lost: '0',
  cause: 'culled' as OutCause,
  roots: blankRoots(),
  tryOn: '',
  stageId: newId(),
});
const { onBench, holds, densityPerM2, stageOf } = useStage(draft, props.lot.row.id);
const standing = computed(() => props.lot.row.held.standing);
const lost = computed(() => typedNumber(draft.value.lost));
/** What the roots looked like, all that stand looked at unless said otherwise; null where nothing was said. */
const roots = computed(() => rootsTyped(draft.value.roots, standing.value));
/** As far as it is typed: what is no number yet takes nothing away. */
const moving = computed(() => {
  const gone = goneInMoving({ lost: lost.value > 0 ? lost.value : 0, roots: roots.value });
  return Number.isFinite(gone) ? standing.value - gone : standing.value;
});
/** Trays for all, as long as nothing else is typed. */
const needed = computed(() => {
  const cells = nursery.lookup.containers.get(draft.value.containerTypeId)?.values.cellsPerTray ?? 1;
  // The same trays carried elsewhere; a flat holds many to its one cell.
  if (draft.value.containerTypeId === stage.containerTypeId) return stage.trays!;
  return Math.ceil(moving.value / cells);
});
watch(
  () => draft.value.containerTypeId,
  () => (draft.value.trays = String(needed.value)),
  { immediate: draft.value.trays === '' },
);

/** The home typed, and the day it is tried from: the record's, or one still to come. */
const tried = computed(() => {
  if (!onBench.value && !(densityPerM2.value > 0)) return null;
  try {
    const home = homeOf(
      props.lot.row.code,
      {
        placeId: draft.value.placeId,
        containerTypeId: onBench.value ? draft.value.containerTypeId : null,
        densityPerM2: onBench.value ? null : densityPerM2.value,
      },
      nursery.lookup,
    );
    const day = /^\d{4}-\d\d-\d\d$/.test(draft.value.tryOn) ? dayOf(draft.value.tryOn) : season.today + 1;
    return { home, from: Math.min(season.today + 400, Math.max(season.today + 1, day)) };
  } catch {
    return null;
  }
});
const compared = shallowRef<{ stays: LotForecast; moves: LotForecast } | null>(null);
watchDebounced(
  tried,
  async (move) => (compared.value = move ? await forecasts.moved(props.lot.row.id, move) : null),
  { immediate: true, debounce: 80 },
);

async function save() {
  const body = {
    stage: stageOf(draft.value.stageId),
    lost: draft.value.lost.trim() === '' ? 0 : lost.value,
    cause: lost.value > 0 ? draft.value.cause : null,
    roots: roots.value,
  };
  if (await record(body, say`${props.lot.row.code} moved on.`)) emit('close');
}
const causes = causesByHand.map((c) => ({ value: c, words: causeWords(c) }));
</script>

<template>
  <FormDialog
    :title="say`Move on, or try a move`"
    :subtitle="say`${lot.row.code} · ${lot.species}, ${count(standing)} in ${lot.where}`"
    wide
    @close="emit('close')"
  >
    <form class="grid gap-6 md:grid-cols-2" novalidate @submit.prevent="save">
      <div class="space-y-3">
        <StageFields :moving="lot.row.id" v-model="draft" :wrong="wrong" />
        <div class="grid grid-cols-2 gap-3">
          <FormField
            v-model="draft.lost"
            :label="say`Lost in moving`"
            inputmode="numeric"
            :hint="holds > 0 ? say`${count(moving)} move, room for ${count(holds)}` : undefined"
            :fault="wrong('lost')"
          />
          <SelectField
            v-if="lost > 0"
            v-model="draft.cause"
            :label="say`What became of them`"
            :options="causes"
            :fault="wrong('cause')"
          />
        </div>
        <RootsMoving v-model="draft.roots" :standing="standing" :wrong="wrong" />
        <p class="border-ink text-muted border-l-4 pl-3 text-sm">
          {{
            say`Look for J-roots and circling; shave or tease them, and shake off some medium so that tips touch the new one. Wet trays are heavy: carry within your strength, two to a rack. Damp dry mix and wear a mask.`
          }}
        </p>
        <EntryFields
          v-model:on="on"
          v-model:note="draft.note"
          :wrong="wrong"
          :hint="say`Feed added, medium shaken off`"
        />
        <SheetActs :act="say`Move it on`" :busy="busy" :sentence="sentence()" @save="save" />
      </div>
      <div class="space-y-3">
        <DateField
          v-model="draft.tryOn"
          :label="say`Try it as if moved on`"
          :hint="say`Blank: tomorrow. Nothing is kept by trying.`"
        />
        <MoveCompared
          v-if="compared && tried"
          :stays="compared.stays"
          :moves="compared.moves"
          :from="tried.from"
        />
      </div>
    </form>
  </FormDialog>
</template>
