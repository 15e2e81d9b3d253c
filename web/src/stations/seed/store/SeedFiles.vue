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
import { csvOf } from '../../../tables/csv';
import { v7 as newId } from 'uuid';
import { computed, ref } from 'vue';
import FormDialog from '../../../parts/FormDialog.vue';
import { rowsOf } from '../../../tables/rowsOf';
import RowsIn from '../../../tables/RowsIn.vue';
import TableOut from '../../../tables/TableOut.vue';
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
const records = computed<SeedLotRecord[]>(() =>
  seed.known.lots.map((lot) => {
    const { latin, common } = seed.speciesOf(lot.speciesId);
    return { ...lot, latin, common, grams: Math.round((seed.held.get(lot.id)?.grams ?? 0) * 1000) / 1000 };
  }),
);
const table = () => csvOf(records.value.map(seedLotLine), seedLotColumns);
const passports = () => csvOf(records.value.map(passportLine), passportColumns);

const pasted = ref('');
const read = computed<{ good: NewSeedLot[]; faults: string[] } | null>(() => {
  // Passport descriptors are written in capitals.
  const rows = rowsOf(pasted.value, (name) => name.trim());
  if (!rows) return null;
  const byLatin = new Map(nursery.catalogue!.species.map((s) => [s.latin.toLowerCase(), s]));
  const taken = new Set(seed.room.lots.map((lot) => lot.code));
  const good: NewSeedLot[] = [];
  const faults: string[] = [];
  rows.forEach((line, i) => {
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
      good.push({ ...values, id: newId(), speciesId: species.id, storeTempC: null, seeds: null });
    } catch (error) {
      // The header is line 1.
      faults.push(say`Line ${i + 2}: ${(error as Error).message}`);
    }
  });
  return { good, faults };
});
async function take() {
  const lots = read.value!.good;
  if (!(await send({ lots }, say`${several(lots.length, 'seed lot')} received.`))) return;
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
      <RowsIn
        v-if="session.may('grower')"
        v-model="pasted"
        :label="say`A table in either of those column sets`"
        :read="
          read && {
            good: read.good.length,
            words: several(read.good.length, 'seed lot'),
            faults: read.faults,
          }
        "
        :busy="busy"
        :sentence="sentence()"
        @take="take"
      />
    </div>
  </FormDialog>
</template>
