<script setup lang="ts">
import { orderColumns, orderTableLine, readOrderLine, Unfit, say } from '@kauri/core';
import type { NewOrderBody } from './orderFiles';
import { csvOf } from '../../tables/csv';
import { computed, ref } from 'vue';
import FormDialog from '../../parts/FormDialog.vue';
import { rowsOf } from '../../tables/rowsOf';
import RowsIn from '../../tables/RowsIn.vue';
import TableOut from '../../tables/TableOut.vue';
import { useSaving } from '../../parts/useSaving';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useOrders } from '../../stores/orders';
import { useSession } from '../../stores/session';
import { several } from '../../words/numbers';
import { ordersFrom } from './orderFiles';

/** Lines out to a table, and in from one pasted or chosen; nothing is taken until it is confirmed. */
const nursery = useNursery();
const orders = useOrders();
const session = useSession();
const messages = useMessages();
const { busy, save, sentence } = useSaving('orders.import');
const open = ref(false);
const pasted = ref('');

function table() {
  const lines = orders.all.flatMap(({ buyer, reach, lines: of }) =>
    of.map((line) =>
      orderTableLine({
        ...line,
        buyer,
        reach,
        species: nursery.lookup.species.get(line.speciesId)?.latin ?? '',
        lots: line.lots.flatMap((id) => nursery.lots.get(id)?.code ?? []),
      }),
    ),
  );
  return csvOf(lines, orderColumns);
}
const read = computed<{ orders: NewOrderBody[]; faults: string[] } | null>(() => {
  const data = rowsOf(pasted.value);
  if (!data) return null;
  const byName = new Map(
    nursery.catalogue!.species.flatMap((s) => [
      [s.latin.toLowerCase(), s.id] as const,
      [s.common.toLowerCase(), s.id] as const,
    ]),
  );
  const lotIds = new Map([...nursery.lots.values()].map(({ id, code }) => [code.toLowerCase(), id]));
  const faults: string[] = [];
  const lines = data.flatMap((row, i) => {
    try {
      const line = readOrderLine(row);
      const speciesId = byName.get(line.species.toLowerCase());
      if (!speciesId)
        throw new Unfit(say`${line.species} is not in your species list: add it under Seed, Species.`);
      const lots = line.lots.map((code) => {
        const id = lotIds.get(code.toLowerCase());
        if (!id) throw new Unfit(say`${code} is no lot of this nursery.`);
        return id;
      });
      return [{ ...line, speciesId, lots }];
    } catch (error) {
      // The header is line 1.
      faults.push(say`Line ${i + 2}: ${(error as Error).message}`);
      return [];
    }
  });
  return { orders: ordersFrom(lines), faults };
});
async function take() {
  const taken = read.value!.orders;
  if ((await save({ taken }, (id) => orders.add(id, taken).then(() => true))) === null) return;
  messages.say(say`${several(taken.length, 'order')} kept.`);
  pasted.value = '';
  open.value = false;
}
</script>

<template>
  <button class="quiet" type="button" @click="open = true">{{ say`Tables in and out` }}</button>
  <FormDialog v-if="open" :title="say`Orders in tables`" wide @close="open = false">
    <div class="space-y-4">
      <section v-if="orders.all.length" class="space-y-2">
        <h3 class="text-lg">{{ say`Out` }}</h3>
        <TableOut :label="say`Every line`" name="orders" :table="table" />
      </section>
      <RowsIn
        v-if="session.may('grower')"
        v-model="pasted"
        :label="say`Choose a table`"
        :hint="
          say`Headings: ${orderColumns.join(', ')}. Needed are species, count and on; sizes in cm, dates as 2027-03-15. Lines of one buyer make one order.`
        "
        :read="
          read && {
            good: read.orders.length,
            words: several(read.orders.length, 'order'),
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
