<script setup lang="ts">
import { say } from '@kauri/core';
import type { BodyInputOf } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import { call } from '../../../api/client';
import EntryFields from '../../../parts/EntryFields.vue';
import FormDialog from '../../../parts/FormDialog.vue';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import { typedNumber } from '../../../parts/typed';
import { useDraft } from '../../../parts/useDraft';
import type { ShownLot } from '../../../parts/useLots';
import { useSaving } from '../../../parts/useSaving';
import { useTakeBack } from '../../../parts/useTakeBack';
import { useMessages } from '../../../stores/messages';
import { useNursery } from '../../../stores/nursery';
import { useSeason } from '../../../stores/season';
import { count, several } from '../../../words/numbers';
import { nextCode } from '../../grow/newLot';
import { usePlaces } from '../../yard/usePlaces';

/** Pricks a flat out by size: bigger seedlings into bigger cells, each size a lot of its own. */
const props = defineProps<{ lot: ShownLot }>();
const emit = defineEmits<{ close: [] }>();
const nursery = useNursery();
const season = useSeason();
const messages = useMessages();
const { takeBack } = useTakeBack();
const router = useRouter();
const { places } = usePlaces();

interface TypedBatch {
  id: string;
  stageId: string;
  size: string;
  count: string;
  containerTypeId: string;
  placeId: string;
}
const benches = computed(() => places.value.filter((p) => ['bench', 'ground'].includes(p.place.place.kind)));
const containers = nursery.catalogue!.containers.filter((c) => c.values.cellsPerTray > 1);
const batchOf = (size: string, at: number): TypedBatch => ({
  id: newId(),
  stageId: newId(),
  size,
  count: '',
  containerTypeId: containers[Math.min(at, containers.length - 1)]?.id ?? '',
  placeId: benches.value[0]?.place.id ?? '',
});
const key = `prick.${props.lot.row.id}`;
const { draft, clear } = useDraft(key, {
  on: season.todayIso,
  note: '',
  batches: [batchOf('large', 1), batchOf('small', 0)],
});
const { busy, save: send, sentence, wrong } = useSaving(key);
const traysOf = (b: TypedBatch) => {
  const cells = nursery.lookup.containers.get(b.containerTypeId)?.values.cellsPerTray ?? 1;
  return Math.max(1, Math.ceil((typedNumber(b.count) || 0) / cells));
};
const total = computed(() => draft.value.batches.reduce((t, b) => t + (typedNumber(b.count) || 0), 0));

async function save() {
  const taken = [...nursery.index.values()].map((l) => l.code);
  const species = nursery.lookup.species.get(props.lot.row.speciesId)!;
  const batches: BodyInputOf<'prickOut'>['batches'] = [];
  for (const b of draft.value.batches) {
    if (b.count.trim() === '') continue;
    const code = nextCode(species.code, draft.value.on, taken);
    taken.push(code);
    batches.push({
      id: b.id,
      code,
      count: typedNumber(b.count),
      size: b.size,
      stage: {
        kind: 'container',
        id: b.stageId,
        placeId: b.placeId,
        containerTypeId: b.containerTypeId,
        trays: traysOf(b),
      },
    });
  }
  const body = { on: draft.value.on, note: draft.value.note, batches };
  const flat = props.lot.row.id;
  let entry = '';
  const answer = await send(body, (id) => {
    entry = id;
    return call('prickOut', { params: { ...nursery.params, lot: flat }, body: { ...body, id } });
  });
  if (!answer) return;
  for (const lot of answer.lots) nursery.takeLot(lot);
  nursery.takeLot(answer.parent);
  const said = say`${count(total.value)} pricked out into ${several(answer.lots.length, 'lot')}.`;
  messages.say(said, async () => {
    await takeBack(flat, entry, said);
    await router.push({ name: 'grow', params: { lot: flat } });
  });
  clear();
  emit('close');
  await router.push({ name: 'grow', params: { lot: answer.lots[0].lot.id } });
}
const placeOptions = computed(() =>
  benches.value.map((b) => ({ value: b.place.id, words: b.place.place.name })),
);
const containerOptions = containers.map((c) => ({ value: c.id, words: c.values.name }));
</script>

<template>
  <FormDialog
    :title="say`Prick out by size`"
    :subtitle="say`${lot.row.code}: ${count(lot.row.held.standing)} stand`"
    wide
    @close="emit('close')"
  >
    <form class="space-y-4" novalidate @submit.prevent="save">
      <div class="grid gap-4 md:grid-cols-2">
        <fieldset v-for="(b, i) in draft.batches" :key="b.id" class="panel space-y-3 p-3">
          <legend class="px-1 font-bold">{{ say`Size ${i + 1}` }}</legend>
          <div class="grid grid-cols-2 gap-3">
            <FormField
              v-model="b.size"
              :label="say`Name of size ${i + 1}`"
              :fault="wrong(`batches.${i}.size`)"
            />
            <FormField
              v-model="b.count"
              :label="say`Seedlings ${i + 1}`"
              inputmode="numeric"
              :hint="typedNumber(b.count) > 0 ? several(traysOf(b), 'tray') : undefined"
              :fault="wrong(`batches.${i}.count`)"
            />
          </div>
          <SelectField v-model="b.containerTypeId" :label="say`Into ${i + 1}`" :options="containerOptions" />
          <SelectField v-model="b.placeId" :label="say`On ${i + 1}`" :options="placeOptions" />
          <button
            v-if="draft.batches.length > 1"
            class="quiet"
            type="button"
            @click="draft.batches.splice(i, 1)"
          >
            {{ say`Remove this size` }}
          </button>
        </fieldset>
      </div>
      <button class="act" type="button" @click="draft.batches.push(batchOf('middling', 1))">
        {{ say`Add a size` }}
      </button>
      <EntryFields v-model:on="draft.on" v-model:note="draft.note" :wrong="wrong" />
      <p class="text-muted">
        {{
          say`${count(total)} of ${count(lot.row.held.standing)} leave the flat. Hold by a seed leaf, never by the stem; water at once and shade for a few days.`
        }}
      </p>
      <SheetActs :act="say`Prick out`" :busy="busy" :sentence="sentence()" @save="save" />
    </form>
  </FormDialog>
</template>
