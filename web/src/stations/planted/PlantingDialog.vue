<script setup lang="ts">
import { outlineM2, readOutline, Unfit, type Corner, type PlantingGround, say } from '@kauri/core';
import type { Planting, PlantingLayout } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { computed, defineAsyncComponent, ref } from 'vue';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { keptUnlessTyped, typedNumber } from '../../parts/typed';
import { useDraft } from '../../parts/useDraft';
import { useSaving } from '../../parts/useSaving';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { usePlantings } from '../../stores/plantings';
import { usePreferences } from '../../stores/preferences';
import { count } from '../../words/numbers';
import { groundWords, optionsOf } from '../../words/planted';

const OutlinePad = defineAsyncComponent(() => import('./OutlinePad.vue'));

/** A planting: where, what for, on what ground, and how its trees stand. */
const props = defineProps<{ planting: Planting | null }>();
const emit = defineEmits<{ close: [id: string | null] }>();
const plantings = usePlantings();
const nursery = useNursery();
const messages = useMessages();
const { shown, show, typed, unit } = usePreferences();

const was = props.planting;
const rows = was?.layout.kind === 'rows' ? was.layout : null;
const asShown = (m: number) => String(Math.round(shown(m, 'site') * 100) / 100);
const key = `planting.${was?.id ?? 'new'}`;
const { draft, clear } = useDraft(key, {
  id: was?.id ?? newId(),
  name: was?.name ?? '',
  where: was?.where ?? '',
  purpose: was?.purpose ?? '',
  ground: (was?.ground ?? 'moist') as PlantingGround,
  mulch: was?.mulch ?? '',
  note: was?.note ?? '',
  kind: (was?.layout.kind ?? 'rows') as PlantingLayout['kind'],
  rows: rows ? String(rows.rows) : '',
  perRow: rows ? String(rows.perRow) : '',
  rowM: rows ? asShown(rows.rowM) : '',
  treeM: rows ? asShown(rows.treeM) : '',
  corners: (was?.layout.kind === 'outline' ? was.layout.corners : []) as Corner[],
  outlineFault: '',
});
const { busy, save, sentence, wrong } = useSaving(key);
/** Another outline read is another drawing. */
const padKey = ref(0);
const m2 = computed(() => (draft.value.corners.length > 2 ? outlineM2(draft.value.corners) : null));
const places = computed(() => typedNumber(draft.value.rows) * typedNumber(draft.value.perRow));

async function read(event: Event) {
  const field = event.target as HTMLInputElement;
  const file = field.files?.[0];
  if (!file) return;
  const { latitudeDeg, longitudeDeg } = nursery.catalogue!.nursery;
  try {
    if (file.size > 2e6) throw new Unfit(say`That file is too large for one outline.`);
    draft.value.corners = readOutline(await file.text(), { latitudeDeg, longitudeDeg });
    draft.value.outlineFault = '';
    padKey.value++;
  } catch (error) {
    if (!(error instanceof Unfit)) throw error;
    draft.value.outlineFault = error.message;
  } finally {
    field.value = '';
  }
}
const spacing = (text: string, before: number | undefined) =>
  keptUnlessTyped(text, before, asShown, (value) => typed(value, 'site')) ?? NaN;
async function keep() {
  const { id, name, where, purpose, ground, mulch, note, kind, corners } = draft.value;
  const layout: PlantingLayout =
    kind === 'outline'
      ? { kind, corners }
      : {
          kind,
          rows: typedNumber(draft.value.rows),
          perRow: typedNumber(draft.value.perRow),
          rowM: spacing(draft.value.rowM, rows?.rowM),
          treeM: spacing(draft.value.treeM, rows?.treeM),
        };
  const fields = { version: was?.version ?? null, name, where, purpose, ground, mulch, note, layout };
  const kept = await save(fields, async (writeId) => {
    await plantings.put(id, { id: writeId, ...fields });
    return true;
  });
  if (kept === null) return;
  clear();
  messages.say(say`${name} kept.`);
  emit('close', id);
}
</script>

<template>
  <FormDialog :title="was ? say`Change ${was.name}` : say`Add a planting`" wide @close="emit('close', null)">
    <form class="space-y-4" novalidate @submit.prevent="keep">
      <div class="grid gap-3 sm:grid-cols-2">
        <FormField v-model="draft.name" :label="say`Name`" :fault="wrong('name')" />
        <FormField
          v-model="draft.where"
          :label="say`Where`"
          :hint="say`As you would tell it to a neighbour`"
        />
        <FormField
          v-model="draft.purpose"
          :label="say`For`"
          :hint="say`Riverbank, hedge, shelter, orchard`"
        />
        <SelectField v-model="draft.ground" :label="say`Ground`" :options="optionsOf(groundWords)" />
      </div>
      <ChoiceRow
        v-model="draft.kind"
        :label="say`Its trees stand`"
        :options="[
          { value: 'rows', words: say`in rows` },
          { value: 'outline', words: say`within an outline` },
        ]"
      />
      <div v-if="draft.kind === 'rows'" class="grid grid-cols-2 gap-3 sm:grid-cols-4">
        <FormField
          v-model="draft.rows"
          :label="say`Rows`"
          inputmode="numeric"
          :fault="wrong('layout.rows')"
        />
        <FormField
          v-model="draft.perRow"
          :label="say`Trees a row`"
          inputmode="numeric"
          :fault="wrong('layout.perRow')"
          :hint="places > 0 ? say`${count(places)} places` : undefined"
        />
        <FormField
          v-model="draft.rowM"
          :label="say`Between rows`"
          :unit="unit('site')"
          inputmode="decimal"
          :fault="wrong('layout.rowM')"
        />
        <FormField
          v-model="draft.treeM"
          :label="say`Between trees`"
          :unit="unit('site')"
          inputmode="decimal"
          :fault="wrong('layout.treeM')"
        />
      </div>
      <div v-else>
        <OutlinePad :key="padKey" v-model="draft.corners" class="mb-3" />
        <label class="mb-1 block font-bold" for="outline-file">{{
          say`Or its outline from a GeoJSON file`
        }}</label>
        <input
          id="outline-file"
          class="field"
          type="file"
          accept=".geojson,.json,application/geo+json,application/json"
          aria-describedby="outline-words"
          @change="read"
        />
        <p id="outline-words" class="mt-1 text-sm" aria-live="polite">
          <b v-if="draft.outlineFault || wrong('layout.corners')" class="text-wrong">{{
            draft.outlineFault || wrong('layout.corners')
          }}</b>
          <span v-else-if="m2" class="text-muted">{{
            say`${show(m2, 'area', m2 < 100 ? 1 : 0)} within ${draft.corners.length} corners`
          }}</span>
          <span v-else class="text-muted">{{ say`One polygon, in longitude and latitude` }}</span>
        </p>
      </div>
      <div class="grid gap-3 sm:grid-cols-2">
        <FormField v-model="draft.mulch" :label="say`Mulch`" :hint="say`What, and how wide`" />
        <FormField v-model="draft.note" :label="say`Note`" />
      </div>
      <SheetActs :act="say`Keep it`" :busy="busy" :sentence="sentence()" @save="keep" />
    </form>
  </FormDialog>
</template>
