<script setup lang="ts">
import { Unfit, say } from '@kauri/core';
import {
  passportColumns,
  passportLine,
  readSeedLot,
  seedLotColumns,
  seedLotLine,
  type SeedLotRecord,
} from '@kauri/core';
import type { NewSeedLot } from '@kauri/core/contract';
import Papa from 'papaparse';
import { csvOf } from '../../../tables/csv';
import { v7 as newId } from 'uuid';
import { computed, ref, shallowRef, watch } from 'vue';
import FormDialog from '../../../parts/FormDialog.vue';
import PastedRows from '../../../tables/PastedRows.vue';
import TableIn from '../../../tables/TableIn.vue';
import TableOut from '../../../tables/TableOut.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import { useNursery } from '../../../stores/nursery';
import { useSeed } from '../../../stores/seed';
import { useSession } from '../../../stores/session';
import { several } from '../../../words/numbers';
import { useSeedAct } from '../useSeedAct';

/** Seed lots out to a table or to passport descriptors, and in from either; nothing is taken until it is confirmed. */
const seed = useSeed();
const session = useSession();
const nursery = useNursery();
const { busy, sentence, send } = useSeedAct('importSeedLots', {}, {});
const open = ref(false);
const good = shallowRef<NewSeedLot[]>([]);
const bad = shallowRef<{ line: number; sentence: string }[]>([]);
const read = ref(false);

const records = computed<SeedLotRecord[]>(() =>
  seed.known.lots.map((lot) => {
    const { latin, common } = seed.speciesOf(lot.speciesId);
    return { ...lot, latin, common, grams: Math.round((seed.held.get(lot.id)?.grams ?? 0) * 1000) / 1000 };
  }),
);
const table = () => csvOf(records.value.map(seedLotLine), seedLotColumns);
const passports = () => csvOf(records.value.map(passportLine), passportColumns);

const pasted = ref('');
async function choose(file: File | null) {
  pasted.value = (await file?.text()) ?? '';
}
watch(pasted, (text) => {
  good.value = [];
  bad.value = [];
  read.value = false;
  if (text.trim() === '') return;
  const { data } = Papa.parse<Record<string, string>>(text.trim(), {
    header: true,
    skipEmptyLines: 'greedy',
  });
  const byLatin = new Map(nursery.catalogue!.species.map((s) => [s.latin.toLowerCase(), s]));
  const taken = new Set(seed.room.lots.map((lot) => lot.code));
  const lots: NewSeedLot[] = [];
  const faults: { line: number; sentence: string }[] = [];
  data.forEach((line, i) => {
    try {
      const speciesFor = (latin: string) => {
        const species = byLatin.get(latin.toLowerCase());
        if (!species) throw new Unfit(say`${latin} is not in your species list: add it under Species first.`);
        return species;
      };
      const lot = readSeedLot(line, (latin) => speciesFor(latin).values.seedsPerKg);
      const species = speciesFor(lot.latin);
      if (taken.has(lot.code)) throw new Unfit(say`There is a seed lot ${lot.code} already.`);
      taken.add(lot.code);
      const { latin: _l, common: _c, ...values } = lot;
      lots.push({ ...values, id: newId(), speciesId: species.id, storeTempC: null, seeds: null });
    } catch (error) {
      // The header is line 1.
      faults.push({ line: i + 2, sentence: (error as Error).message });
    }
  });
  good.value = lots;
  bad.value = faults;
  read.value = true;
});
async function take() {
  if (!(await send({ lots: good.value }, say`${several(good.value.length, 'seed lot')} received.`))) return;
  pasted.value = '';
  open.value = false;
}
</script>

<template>
  <button class="quiet" type="button" @click="open = true">{{ say`Import, export` }}</button>
  <FormDialog v-if="open" :title="say`Seed lots in files`" @close="open = false">
    <div class="space-y-4">
      <section v-if="records.length" class="space-y-2">
        <h3 class="text-lg">{{ say`Out` }}</h3>
        <div class="flex flex-wrap gap-2">
          <TableOut :label="say`A table`" name="seed-lots" :table="table" />
          <TableOut :label="say`Passport descriptors (MCPD)`" name="seed-lots-mcpd" :table="passports" />
        </div>
      </section>
      <section v-if="session.may('grower')" class="space-y-2">
        <h3 class="text-lg">{{ say`In` }}</h3>
        <TableIn :label="say`A table in either of those column sets`" @file="choose" />
        <PastedRows v-model="pasted" />
        <template v-if="read">
          <p role="status">
            {{ say`${several(good.length, 'line')} can be taken`
            }}<template v-if="bad.length">{{ say`, ${several(bad.length, 'line')} cannot` }}</template
            >{{ say`. Nothing is taken yet.` }}
          </p>
          <ul v-if="bad.length" class="max-h-48 overflow-y-auto" data-testid="seed-file-faults">
            <li v-for="fault in bad" :key="fault.line">
              <b>{{ say`Line ${fault.line}:` }}</b> {{ fault.sentence }}
            </li>
          </ul>
          <SheetActs
            v-if="good.length"
            :act="say`Take ${several(good.length, 'seed lot')}`"
            :busy="busy"
            :sentence="sentence()"
            @save="take"
          />
        </template>
      </section>
    </div>
  </FormDialog>
</template>
