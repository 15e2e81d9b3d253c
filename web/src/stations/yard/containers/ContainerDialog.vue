<script setup lang="ts">
import {
  containerAirShare,
  containerKinds,
  containerVolume,
  type ContainerKind,
  type ContainerValues,
  say,
} from '@kauri/core';
import type { ContainerType } from '@kauri/core/contract';
import { computed } from 'vue';
import { call } from '../../../api/client';
import FormDialog from '../../../parts/FormDialog.vue';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import { keptUnlessTyped, typedNumber } from '../../../parts/typed';
import { useDraft } from '../../../parts/useDraft';
import { useSaving } from '../../../parts/useSaving';
import { useMessages } from '../../../stores/messages';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { percent } from '../../../words/numbers';
import ContainerSection from './ContainerSection.vue';
import { containerKindWords } from './kindWords';

/** A container type of the nursery's own, or a change to one. */
const props = defineProps<{ container?: ContainerType }>();
const emit = defineEmits<{ close: [] }>();
const nursery = useNursery();
const messages = useMessages();
const { show, shown, typed, unit } = usePreferences();
const now = props.container?.values;
const cellText = (ml: number) => String(Number(shown(ml, 'cell').toFixed(2)));
const mm = (v: number) => String(Number(shown(v, 'timber').toFixed(2)));
const key = props.container ? `container.${props.container.id}.${props.container.version}` : 'container.new';
const { draft, clear } = useDraft(key, {
  name: now?.name ?? '',
  kind: now?.kind ?? 'tube',
  section: now?.section ?? 'square',
  top: mm(now?.topMm ?? 50),
  bottom: mm(now?.bottomMm ?? 40),
  depth: mm(now?.depthMm ?? 150),
  stated: now?.statedMl == null ? '' : cellText(now.statedMl),
  wall: String(Math.round((now?.wallOpenShare ?? 0.1) * 100)),
  base: String(Math.round((now?.baseOpenShare ?? 0.6) * 100)),
  cells: String(now?.cellsPerTray ?? 40),
  trayLength: mm(now?.trayLengthMm ?? 600),
  trayWidth: mm(now?.trayWidthMm ?? 400),
  spaceable: now?.spaceable ?? true,
  price: now?.trayPrice === undefined ? '' : String(now.trayPrice),
  uses: String(now?.uses ?? 5),
  turns: now?.wall ?? 'air',
});
const { busy, save, sentence, wrong } = useSaving(key);
const values = computed<ContainerValues>(() => {
  const d = draft.value;
  const size = (text: string) => Math.round(typed(typedNumber(text), 'timber') * 10) / 10;
  return {
    name: d.name,
    kind: d.kind as ContainerKind,
    section: d.section,
    topMm: size(d.top),
    bottomMm: size(d.bottom),
    depthMm: size(d.depth),
    statedMl: keptUnlessTyped(d.stated, now?.statedMl, cellText, (value) => typed(value, 'cell')),
    wallOpenShare: typedNumber(d.wall) / 100,
    baseOpenShare: typedNumber(d.base) / 100,
    cellsPerTray: typedNumber(d.cells),
    trayLengthMm: size(d.trayLength),
    trayWidthMm: size(d.trayWidth),
    spaceable: d.spaceable,
    trayPrice: d.price.trim() ? typedNumber(d.price) : undefined,
    uses: typedNumber(d.uses),
    wall: d.turns as ContainerValues['wall'],
  };
});
const answers = computed(() => {
  try {
    const volume = containerVolume(values.value).value;
    const air = containerAirShare(values.value).value;
    return Number.isFinite(volume + air) ? { volume, air } : null;
  } catch {
    return null;
  }
});
async function keep() {
  const kept = await save(values.value, (id) =>
    props.container
      ? call('editContainer', {
          params: { ...nursery.params, container: props.container.id },
          body: { version: props.container.version, values: values.value },
        })
      : call('addContainer', { params: nursery.params, body: { id, values: values.value } }),
  );
  if (!kept) return;
  const others = nursery.catalogue!.containers.filter((c) => c.id !== kept.id);
  nursery.takeCatalogue({ containers: [...others, kept] });
  messages.say(say`${kept.values.name} kept.`);
  clear();
  emit('close');
}
const kinds = containerKinds.map((value) => ({ value, words: containerKindWords[value] }));
const sections = [
  { value: 'square', words: say`Square` },
  { value: 'round', words: say`Round` },
] as const;
const turns = [
  { value: 'air', words: say`Open to air` },
  { value: 'fabric', words: say`Fabric that traps tips` },
  { value: 'ribs', words: say`Ribs to vents` },
  { value: 'solid', words: say`Solid` },
] as const;
</script>

<template>
  <FormDialog
    :title="container ? say`Edit ${container.values.name}` : say`Add a container`"
    @close="emit('close')"
  >
    <form class="grid grid-cols-2 gap-3" novalidate @submit.prevent="keep">
      <FormField v-model="draft.name" class="col-span-2" :label="say`Name`" :fault="wrong('values.name')" />
      <SelectField v-model="draft.kind" :label="say`Kind`" :options="kinds" />
      <SelectField v-model="draft.section" :label="say`Section`" :options="sections" />
      <FormField
        v-model="draft.top"
        :label="say`Top`"
        :unit="unit('timber')"
        inputmode="decimal"
        :fault="wrong('values.topMm')"
      />
      <FormField
        v-model="draft.bottom"
        :label="say`Bottom`"
        :unit="unit('timber')"
        inputmode="decimal"
        :fault="wrong('values.bottomMm')"
      />
      <FormField
        v-model="draft.depth"
        :label="say`Depth`"
        :unit="unit('timber')"
        inputmode="decimal"
        :fault="wrong('values.depthMm')"
      />
      <FormField
        v-model="draft.stated"
        :label="say`Volume, if stated`"
        :unit="unit('cell')"
        inputmode="decimal"
        :fault="wrong('values.statedMl')"
      />
      <SelectField v-model="draft.turns" :label="say`The wall is`" :options="turns" />
      <FormField
        v-model="draft.wall"
        :label="say`Of the wall open`"
        unit="%"
        inputmode="decimal"
        :fault="wrong('values.wallOpenShare')"
      />
      <FormField
        v-model="draft.base"
        :label="say`Of the base open`"
        unit="%"
        inputmode="decimal"
        :fault="wrong('values.baseOpenShare')"
      />
      <FormField
        v-model="draft.cells"
        :label="say`Cells in a tray`"
        inputmode="numeric"
        :fault="wrong('values.cellsPerTray')"
      />
      <FormField
        v-model="draft.trayLength"
        :label="say`Tray long`"
        :unit="unit('timber')"
        inputmode="decimal"
        :fault="wrong('values.trayLengthMm')"
      />
      <FormField
        v-model="draft.trayWidth"
        :label="say`Tray wide`"
        :unit="unit('timber')"
        inputmode="decimal"
        :fault="wrong('values.trayWidthMm')"
      />
      <FormField
        v-model="draft.price"
        :label="say`Price of a tray`"
        :unit="nursery.catalogue!.prices.list.currency"
        inputmode="decimal"
        :fault="wrong('values.trayPrice')"
      />
      <FormField
        v-model="draft.uses"
        :label="say`Times used`"
        inputmode="numeric"
        :fault="wrong('values.uses')"
      />
      <label class="col-span-2 flex min-h-11 items-center gap-2"
        ><input v-model="draft.spaceable" type="checkbox" class="size-5" />
        {{ say`Single cells that can be spread out` }}</label
      >
      <div v-if="answers" class="panel col-span-2 flex items-end gap-4 p-3">
        <ContainerSection :values="values" />
        <p>
          {{ say`Holds` }} <b>{{ show(answers.volume, 'cell') }}</b>{{ say`; air on` }}
          <b>{{ percent(answers.air) }}</b> {{ say`of wall and base.` }}
        </p>
      </div>
      <SheetActs
        class="col-span-2"
        :act="container ? say`Save` : say`Add the container`"
        :busy="busy"
        :sentence="sentence()"
        @save="keep"
      />
    </form>
  </FormDialog>
</template>
