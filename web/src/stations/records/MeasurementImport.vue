<script setup lang="ts">
import { guessMeasurementColumns, readMeasuredPlant, type MeasurementColumns, say } from '@kauri/core';
import { v7 as newId } from 'uuid';
import { computed, ref, watch } from 'vue';
import { textOf } from '../../api/client';
import SelectField from '../../parts/SelectField.vue';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useSession } from '../../stores/session';
import { dateWords } from '../../words/dates';
import { several } from '../../words/numbers';
import ColumnFields from './ColumnFields.vue';
import TableOut from '../../tables/TableOut.vue';
import ImportFrame from './ImportFrame.vue';
import { dateOrders } from './dateOrders';
import { useImport } from './useImport';
import { useTablesTaken } from './useTablesTaken';

const nursery = useNursery();
const preferences = usePreferences();
const messages = useMessages();
const { load, takeBack } = useTablesTaken();
const session = useSession();
const table = useImport('importMeasurements');

const wanted = [
  { key: 'lot', words: say`Lot`, needed: true },
  { key: 'date', words: say`Date`, needed: true },
  { key: 'height', words: say`Height`, needed: false },
  { key: 'diameter', words: say`Collar`, needed: false },
] as const;
const at = ref({ lot: -1, date: -1, height: -1, diameter: -1 });
const read = ref<Pick<MeasurementColumns, 'dateOrder' | 'heightUnit' | 'diameterUnit'>>({
  dateOrder: 'iso',
  heightUnit: 'cm',
  diameterUnit: 'mm',
});
/** The same for every try at one table, so that a retried import is taken once. */
let id = newId();
watch(
  () => table.head,
  (head) => {
    id = newId();
    if (!head) return;
    const guess = guessMeasurementColumns(head.header, head.rows);
    at.value = {
      lot: guess.lot,
      date: guess.date,
      height: guess.height ?? -1,
      diameter: guess.diameter ?? -1,
    };
    read.value = {
      dateOrder: guess.dateOrder,
      heightUnit: guess.heightUnit,
      diameterUnit: guess.diameterUnit,
    };
  },
);
watch([at, read], table.forget, { deep: true });

const columns = computed<MeasurementColumns>(() => ({
  lot: at.value.lot,
  date: at.value.date,
  height: at.value.height < 0 ? null : at.value.height,
  diameter: at.value.diameter < 0 ? null : at.value.diameter,
  ...read.value,
}));
const ready = computed(
  () => at.value.lot >= 0 && at.value.date >= 0 && (at.value.height >= 0 || at.value.diameter >= 0),
);
function cells(row: readonly string[]): string[] {
  const plant = readMeasuredPlant(row, columns.value);
  return [
    plant.lotCode,
    dateWords(plant.date),
    plant.heightCm === null ? say`none given` : preferences.show(plant.heightCm, 'height', 1),
    plant.diameterMm === null ? say`none given` : preferences.show(plant.diameterMm, 'diameter', 1),
  ];
}

function query(check: boolean) {
  const { height, diameter, ...rest } = columns.value;
  return {
    check: check ? ('true' as const) : ('false' as const),
    id,
    height: height ?? undefined,
    diameter: diameter ?? undefined,
    ...rest,
  };
}
async function taken() {
  await nursery.fetchLots();
  const { taken: id } = table.report!;
  const undo =
    id === null || !session.may('grower')
      ? undefined
      : () => takeBack(id, 'measurements').then(() => void table.forget());
  messages.say(say`${several(table.report!.good, 'plant')} taken.`, undo);
  await load().catch(() => undefined);
}
</script>

<template>
  <ImportFrame
    :title="say`Measurements`"
    one="plant"
    :table="table"
    :ready="ready"
    :may="session.may('crew')"
    :cell-names="[say`Lot`, say`Day`, say`Height`, say`Collar`]"
    :cells="cells"
    :query="query"
    @taken="taken"
  >
    <template #export>
      <TableOut
        :label="say`Save as a table`"
        name="measurements"
        :table="() => textOf('exportMeasurements', { params: nursery.params })"
      />
    </template>
    <template #lead>
      <p class="text-muted">
        {{
          say`One plant a line: lot code, date, height, collar diameter. Plants of one lot and day become one sample.`
        }}
      </p>
    </template>
    <template #columns="{ header }">
      <ColumnFields v-model="at" :header="header" :wanted="wanted">
        <SelectField v-model="read.dateOrder" :label="say`Dates are`" :options="dateOrders" />
        <SelectField
          v-model="read.heightUnit"
          :label="say`Heights in`"
          :options="[
            { value: 'cm', words: 'cm' },
            { value: 'in', words: say`inches` },
          ]"
        />
        <SelectField
          v-model="read.diameterUnit"
          :label="say`Collars in`"
          :options="[
            { value: 'mm', words: 'mm' },
            { value: 'in', words: say`inches` },
          ]"
        />
      </ColumnFields>
    </template>
  </ImportFrame>
</template>
