<script setup lang="ts">
import { say } from '@kauri/core';
import { watch } from 'vue';
import { useRoute } from 'vue-router';
import ArchiveIn from '../../parts/ArchiveIn.vue';
import { useForecasts } from '../../stores/forecasts';
import { useSession } from '../../stores/session';
import ArchiveOut from './ArchiveOut.vue';
import MeasurementImport from './MeasurementImport.vue';
import RecordsOut from './RecordsOut.vue';
import TablesTaken from './TablesTaken.vue';
import WeatherImport from './WeatherImport.vue';

const route = useRoute();
const forecasts = useForecasts();
const session = useSession();
watch(
  () => route.name,
  (name) => name === 'records' && forecasts.select(null),
  { immediate: true },
);
</script>

<template>
  <div class="mx-auto max-w-4xl space-y-5 p-4 md:p-6">
    <h1 class="text-2xl">{{ say`Records in and out` }}</h1>
    <p>
      {{
        say`Tables come in as CSV, XLSX or ODS, in any column order. You see how each line is read, what is wrong is said by line, and nothing is taken until you say so.`
      }}
    </p>
    <WeatherImport />
    <MeasurementImport />
    <RecordsOut />
    <TablesTaken />
    <template v-if="session.may('owner')">
      <ArchiveOut />
      <section class="panel p-4" aria-labelledby="bring-in">
        <h2 id="bring-in" class="mb-1 text-xl">{{ say`Another nursery, in` }}</h2>
        <p class="mb-3">
          {{
            say`From an archive that another Kauri took out. You become its owner; this one stays as it is.`
          }}
        </p>
        <ArchiveIn />
      </section>
    </template>
  </div>
</template>
