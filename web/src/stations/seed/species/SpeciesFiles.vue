<script setup lang="ts">
import { say } from '@kauri/core';
import { ref } from 'vue';
import FormDialog from '../../../parts/FormDialog.vue';
import TableIn from '../../../tables/TableIn.vue';
import TableOut from '../../../tables/TableOut.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import { offerFile } from '../../../print/pdf';
import { useNursery } from '../../../stores/nursery';
import { useSession } from '../../../stores/session';
import { several } from '../../../words/numbers';
import { readSpeciesFile, speciesCsv, speciesJson, type SpeciesFileReading } from './speciesFiles';
import { useSpeciesList } from './useSpeciesList';

const nursery = useNursery();
const session = useSession();
const open = ref(false);
const reading = ref<SpeciesFileReading | null>(null);
const { add, busy, fault } = useSpeciesList();

async function choose(file: File | null) {
  reading.value = file
    ? readSpeciesFile(await file.text(), file.name, new Set(nursery.catalogue!.species.map((s) => s.code)))
    : null;
}
async function take() {
  if (reading.value && (await add(reading.value.good))) open.value = false;
}
</script>

<template>
  <button class="quiet" type="button" @click="open = true">{{ say`Import, export` }}</button>
  <FormDialog v-if="open" :title="say`Species in files`" @close="open = false">
    <div class="space-y-4">
      <section class="space-y-2">
        <h3 class="text-lg">{{ say`Out` }}</h3>
        <div class="flex flex-wrap gap-2">
          <TableOut
            :label="say`A table`"
            name="species"
            :table="() => speciesCsv(nursery.catalogue!.species)"
          />
          <button
            class="act"
            type="button"
            @click="offerFile('species.json', speciesJson(nursery.catalogue!.species), 'application/json')"
          >
            {{ say`All values (JSON)` }}
          </button>
        </div>
      </section>
      <section v-if="session.may('grower')" class="space-y-2">
        <h3 class="text-lg">{{ say`In` }}</h3>
        <TableIn :label="say`A table or JSON as above`" also=".json" @file="choose" />
        <template v-if="reading">
          <p role="status">
            {{
              say`${several(reading.good.length, 'species', 'species')} can be taken. Nothing is taken yet.`
            }}
          </p>
          <ul v-if="reading.bad.length" class="max-h-48 overflow-y-auto">
            <li v-for="bad in reading.bad" :key="bad">{{ bad }}</li>
          </ul>
          <SheetActs
            v-if="reading.good.length"
            :act="say`Take ${several(reading.good.length, 'species', 'species')}`"
            :busy="busy"
            :sentence="fault"
            @save="take"
          />
        </template>
      </section>
    </div>
  </FormDialog>
</template>
