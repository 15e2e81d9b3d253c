<script setup lang="ts">
import { containerVolume, say } from '@kauri/core';
import type { ContainerType, Layer } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { computed } from 'vue';
import { call } from '../../../api/client';
import EntryFields from '../../../parts/EntryFields.vue';
import FormDialog from '../../../parts/FormDialog.vue';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import { typedNumber } from '../../../parts/typed';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSeason } from '../../../stores/season';
import { nextCode } from '../../grow/newLot';
import { usePlaces } from '../../yard/usePlaces';
import { useSeedAct } from '../useSeedAct';

const props = defineProps<{ layer: Layer; potL: number | null; rootsSeen: boolean }>();
const emit = defineEmits<{ close: [] }>();
const season = useSeason();
const nursery = useNursery();
const { unit, shown, typed } = usePreferences();
const { places } = usePlaces();
const benches = computed(() => places.value.filter((p) => ['bench', 'ground'].includes(p.place.place.kind)));
const { containers } = nursery.catalogue!;
const species = nursery.lookup.species.get(props.layer.speciesId)!;
/** The container closest in size to the pot Kauri recommends. */
function nearest(potL: number | null): string {
  const away = (c: ContainerType) =>
    Math.abs(Math.log(containerVolume(c.values).value / ((potL ?? 3) * 1000)));
  return [...containers].sort((a, b) => away(a) - away(b))[0]?.id ?? '';
}
const { draft, busy, sentence, wrong, send, versionNow } = useSeedAct(
  'severLayer',
  { layer: props.layer.id },
  {
    outcome: 'rooted' as 'rooted' | 'failed',
    pot: props.potL === null ? '' : String(Number(shown(props.potL, 'volume').toFixed(1))),
    severedOn: season.todayIso,
    note: props.layer.note,
    follow: benches.value.length > 0 && containers.length > 0,
    code: nextCode(
      species.code,
      season.todayIso,
      [...nursery.index.values()].map((l) => l.code),
    ),
    height: '',
    unseen: false,
    containerTypeId: nearest(props.potL),
    placeId: benches.value[0]?.place.id ?? '',
    lotId: newId(),
    stageId: newId(),
  },
);
const lotTyped = computed(() => {
  const { outcome, follow, lotId, code, height, containerTypeId, placeId, stageId } = draft.value;
  if (outcome !== 'rooted' || !follow) return null;
  return {
    id: lotId,
    code,
    heightCm: height.trim() === '' ? null : typed(typedNumber(height), 'height'),
    stage: { kind: 'container' as const, id: stageId, containerTypeId, placeId, trays: 1 },
  };
});
async function save() {
  const { outcome, pot, severedOn, note } = draft.value;
  const body = {
    version: versionNow(props.layer.version),
    outcome,
    severedOn,
    note,
    potL: outcome === 'failed' || pot.trim() === '' ? null : typed(typedNumber(pot), 'volume'),
    lot: lotTyped.value,
  };
  const said = `${props.layer.tree}: ${outcome === 'rooted' ? say`severed and potted` : say`given up`}.`;
  if ((await send(body, said)) === null) return;
  if (body.lot) nursery.takeLot(await call('lot', { params: { ...nursery.params, lot: body.lot.id } }));
  emit('close');
}
const placeOptions = computed(() =>
  benches.value.map((b) => ({ value: b.place.id, words: b.place.place.name })),
);
const containerOptions = containers.map((c) => ({ value: c.id, words: c.values.name }));
const outcomes = [
  { value: 'rooted', words: say`Rooted: severed and potted` },
  { value: 'failed', words: say`Failed: healed over, dried or rotted` },
] as const;
</script>

<template>
  <FormDialog :title="say`Sever, or give up`" :subtitle="layer.tree" @close="emit('close')">
    <form class="space-y-3" novalidate @submit.prevent="save">
      <SelectField v-model="draft.outcome" :label="say`What became of it`" :options="outcomes" />
      <FormField
        v-if="draft.outcome === 'rooted'"
        v-model="draft.pot"
        :label="say`Pot`"
        :unit="unit('volume')"
        inputmode="decimal"
        :fault="wrong('potL')"
      />
      <template v-if="draft.outcome === 'rooted' && containerOptions.length && placeOptions.length">
        <label class="flex min-h-11 items-center gap-2 font-bold">
          <input v-model="draft.follow" class="size-5" type="checkbox" />
          {{ say`Follow it as a lot of its own ` }}
        </label>
        <div v-if="draft.follow" class="grid grid-cols-2 gap-3">
          <FormField v-model="draft.code" :label="say`Code`" :fault="wrong('lot.code')" />
          <FormField
            v-model="draft.height"
            :label="say`Height of the plant`"
            :unit="unit('height')"
            inputmode="decimal"
            :hint="say`Blank: not measured`"
            :fault="wrong('lot.heightCm')"
          />
          <SelectField v-model="draft.containerTypeId" :label="say`Container`" :options="containerOptions" />
          <SelectField v-model="draft.placeId" :label="say`Place`" :options="placeOptions" />
        </div>
      </template>
      <label
        v-if="draft.outcome === 'rooted' && !rootsSeen"
        class="border-ink flex min-h-11 items-center gap-2 border-l-4 pl-3"
        data-testid="unseen"
      >
        <input v-model="draft.unseen" class="size-5 shrink-0" type="checkbox" />
        <span
          ><b>{{ say`No roots were seen at any look.` }}</b>
          {{ say`Sever it all the same; it will not count as a success until roots are written down.` }}</span
        >
      </label>
      <EntryFields v-model:on="draft.severedOn" v-model:note="draft.note" :wrong="wrong" />
      <p class="border-ink text-muted border-l-4 pl-3 text-sm">
        {{
          say`Cut below the roots with a sharp saw, away from the hand; hold the branch, not the ball. Soak, pot without teasing, stake, and keep in shade and humid air for two weeks.`
        }}
      </p>
      <SheetActs
        :act="say`Write it down`"
        :busy="busy || (draft.outcome === 'rooted' && !rootsSeen && !draft.unseen)"
        :sentence="sentence()"
        @save="save"
      />
    </form>
  </FormDialog>
</template>
