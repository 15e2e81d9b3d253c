<script setup lang="ts">
import { isoOf, say } from '@kauri/core';
import { v7 as newId } from 'uuid';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import { call } from '../../api/client';
import EntryFields from '../../parts/EntryFields.vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import { useDraft } from '../../parts/useDraft';
import { useSaving } from '../../parts/useSaving';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { count, several } from '../../words/numbers';
import { nextCode } from './newLot';
import StageFields from './StageFields.vue';
import { useStage } from './useStage';

/** Sets part of a lot apart as a lot of its own: of what stands, or of a parcel of lifted trees that goes back into the ground. */
const props = defineProps<{
  of: { lotId: string; code: string; speciesId: string; sownOn: string; there: number };
  /** The stage it was seen in, of standing trees; the parcel, of lifted ones. */
  seen?: string;
  parcelId?: string;
}>();
const emit = defineEmits<{ close: [] }>();
const nursery = useNursery();
const season = useSeason();
const messages = useMessages();
const router = useRouter();
const { typed, unit } = usePreferences();

const key = `split.${props.parcelId ?? props.of.lotId}`;
const bed = nursery.catalogue!.places.find(({ place }) => place.kind === 'bed');
const { draft, clear } = useDraft(key, {
  on: '',
  note: '',
  count: '',
  code: '',
  heights: '',
  lotId: newId(),
  stageId: newId(),
  placeId: bed?.id ?? nursery.catalogue!.places[0]?.id ?? '',
  containerTypeId: nursery.catalogue!.containers[0]?.id ?? '',
  trays: '',
  density: '',
  area: '',
});
const { stageOf } = useStage(draft);
const { busy, save: send, sentence, wrong } = useSaving(key);
const on = computed({
  get: () => draft.value.on || isoOf(Math.min(season.view, season.today)),
  set: (day: string) => (draft.value.on = day),
});
const offered = computed(() =>
  nextCode(
    nursery.lookup.species.get(props.of.speciesId)!.code,
    props.of.sownOn,
    [...nursery.index.values()].map(({ code }) => code),
  ),
);
const trees = computed(() => typedNumber(draft.value.count));
const rest = computed(() => props.of.there - trees.value);
/** Heights typed one after another. */
const heights = computed(() =>
  draft.value.heights
    .split(/[\s;]+/)
    .filter(Boolean)
    .map((text) => typed(typedNumber(text), 'height')),
);

async function save() {
  const { note, lotId } = draft.value;
  const code = draft.value.code.trim() || offered.value;
  const body = {
    on: on.value,
    note,
    ...(props.seen && { seen: props.seen }),
    from: props.parcelId ? ('lifted' as const) : ('standing' as const),
    parcelId: props.parcelId ?? null,
    lotId,
    code,
    count: trees.value,
    heightsCm: heights.value,
    stage: stageOf(draft.value.stageId),
  };
  let entry = '';
  const answer = await send(body, (id) => {
    entry = id;
    return call('splitLot', { params: { ...nursery.params, lot: props.of.lotId }, body: { id, ...body } });
  });
  if (!answer) return;
  for (const one of [...answer.lots, answer.parent]) nursery.takeLot(one);
  const said = say`${several(trees.value, 'tree')} of ${props.of.code} are now ${code}.`;
  const undo = { params: { ...nursery.params, lot: props.of.lotId, entry }, on: body.on };
  clear();
  messages.say(said, async () => {
    nursery.takeLot(await call('undoEntry', { params: undo.params, body: { id: newId(), on: undo.on } }));
    await nursery.fetchLots();
  });
  emit('close');
  await router.push({ name: 'grow', params: { lot: answer.lots[0].lot.id } });
}
</script>

<template>
  <FormDialog
    :title="parcelId ? say`Hold over: back into the ground` : say`Set part apart`"
    :subtitle="`${of.code}: ${several(of.there, 'tree')} ${parcelId ? say`lie there` : say`stand`}`"
    wide
    @close="emit('close')"
  >
    <form class="space-y-4" novalidate @submit.prevent="save">
      <div class="grid gap-3 sm:grid-cols-3">
        <FormField
          v-model="draft.count"
          :label="say`Trees set apart`"
          inputmode="numeric"
          :hint="rest >= 0 ? say`${count(rest)} stay in ${of.code}` : undefined"
          :fault="rest < 0 ? say`Only ${count(of.there)} are there.` : wrong('count')"
        />
        <FormField
          v-model="draft.code"
          :label="say`Code of the new lot`"
          :hint="say`${offered} where none is typed`"
          :fault="wrong('code')"
        />
        <FormField
          v-model="draft.heights"
          :label="say`Heights of some`"
          :unit="unit('height')"
          :hint="say`Measured, a space between`"
          :fault="wrong('heightsCm')"
        />
      </div>
      <StageFields v-model="draft" :wrong="wrong" />
      <EntryFields
        v-model:on="on"
        v-model:note="draft.note"
        :hint="say`Why: small ones, a trial, for somebody`"
        :wrong="wrong"
      />
      <p class="text-muted text-[0.95rem]">
        {{
          say`It is as old as ${of.code} and says that it came of it. Its own measurements begin here: without heights it is forecast as an ordinary lot of its age, which small ones are not.`
        }}
      </p>
      <SheetActs :act="say`Set them apart`" :busy="busy" :sentence="sentence()" @save="save" />
    </form>
  </FormDialog>
</template>
