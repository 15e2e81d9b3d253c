<script setup lang="ts">
import { guessStationColumns, readStationDay, type StationColumns, say } from '@kauri/core';
import { computed, ref, watch } from 'vue';
import { textOf } from '../../api/client';
import SelectField from '../../parts/SelectField.vue';
import { useNursery } from '../../stores/nursery';
import { useMessages } from '../../stores/messages';
import { usePreferences } from '../../stores/preferences';
import { useSession } from '../../stores/session';
import { dateWords } from '../../words/dates';
import { count, several } from '../../words/numbers';
import ColumnFields from './ColumnFields.vue';
import TableOut from '../../tables/TableOut.vue';
import ImportFrame from './ImportFrame.vue';
import { dateOrders } from './dateOrders';
import { useImport } from './useImport';
import { useTablesTaken } from './useTablesTaken';

const nursery = useNursery();
const preferences = usePreferences();
const session = useSession();
const messages = useMessages();
const { load, takeBack } = useTablesTaken();
const table = useImport('importWeather');

const wanted = [
  { key: 'date', words: say`Date`, needed: true },
  { key: 'tMin', words: say`Lowest`, needed: true },
  { key: 'tMax', words: say`Highest`, needed: true },
  { key: 'rain', words: say`Rain`, needed: false },
] as const;
const at = ref({ date: -1, tMin: -1, tMax: -1, rain: -1 });
const read = ref<Pick<StationColumns, 'dateOrder' | 'temperature' | 'rainUnit'>>({
  dateOrder: 'iso',
  temperature: 'C',
  rainUnit: 'mm',
});
watch(
  () => table.head,
  (head) => {
    if (!head) return;
    const guess = guessStationColumns(head.header, head.rows);
    at.value = { date: guess.date, tMin: guess.tMin, tMax: guess.tMax, rain: guess.rain ?? -1 };
    read.value = { dateOrder: guess.dateOrder, temperature: guess.temperature, rainUnit: guess.rainUnit };
  },
);
watch([at, read], table.forget, { deep: true });

const columns = computed<StationColumns>(() => ({
  ...at.value,
  rain: at.value.rain < 0 ? null : at.value.rain,
  ...read.value,
}));
const ready = computed(() => at.value.date >= 0 && at.value.tMin >= 0 && at.value.tMax >= 0);
function cells(row: readonly string[]): string[] {
  const day = readStationDay(row, columns.value);
  return [
    dateWords(day.date),
    preferences.show(day.tMinC, 'temperature'),
    preferences.show(day.tMaxC, 'temperature'),
    day.rainMm === null ? say`none given` : preferences.show(day.rainMm, 'rain'),
  ];
}
const known = computed(() => nursery.weather?.tMinC.filter((t) => t !== null).length ?? 0);

function query(check: boolean) {
  const { date, tMin, tMax, rain, ...rest } = columns.value;
  return {
    check: check ? ('true' as const) : ('false' as const),
    date,
    tMin,
    tMax,
    rain: rain ?? undefined,
    ...rest,
  };
}
async function taken() {
  await nursery.reloadWeather();
  const { taken: id } = table.report!;
  const undo =
    id === null || !session.may('grower')
      ? undefined
      : () => takeBack(id, 'weather').then(() => void table.forget());
  messages.say(say`${several(table.report!.good, 'day')} of weather taken.`, undo);
  await load().catch(() => undefined);
}
</script>

<template>
  <ImportFrame
    :title="say`Weather`"
    one="day"
    :table="table"
    :ready="ready"
    :may="session.may('grower')"
    :cell-names="[say`Day`, say`Lowest`, say`Highest`, say`Rain`]"
    :cells="cells"
    :query="query"
    @taken="taken"
  >
    <template #export>
      <TableOut
        :label="say`Save as a table`"
        name="weather"
        :table="() => textOf('exportWeather', { params: nursery.params })"
      />
    </template>
    <template #lead>
      <p v-if="nursery.weather?.start" class="text-muted">
        {{
          say`${count(known)} days kept, from ${dateWords(nursery.weather.start)}. A day taken again replaces the one kept.`
        }}
      </p>
      <p v-else class="text-muted">
        {{
          say`No weather yet: forecasts rest on a rough climate by latitude and height. A station’s daily lows, highs and rain make them yours.`
        }}
      </p>
      <p v-if="!session.may('grower')" class="text-muted">{{ say`Growers and owners take weather in.` }}</p>
    </template>
    <template #columns="{ header }">
      <ColumnFields v-model="at" :header="header" :wanted="wanted">
        <SelectField v-model="read.dateOrder" :label="say`Dates are`" :options="dateOrders" />
        <SelectField
          v-model="read.temperature"
          :label="say`Temperatures in`"
          :options="[
            { value: 'C', words: '°C' },
            { value: 'F', words: '°F' },
          ]"
        />
        <SelectField
          v-model="read.rainUnit"
          :label="say`Rain in`"
          :options="[
            { value: 'mm', words: 'mm' },
            { value: 'in', words: say`inches` },
          ]"
        />
      </ColumnFields>
    </template>
  </ImportFrame>
</template>
