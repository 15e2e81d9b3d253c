<script setup lang="ts">
import { bestSeedsPerCell, betaMean, betaProduct, cellOutcome, type SeedsPerCellRow, say } from '@kauri/core';
import { useSessionStorage } from '@vueuse/core';
import { computed, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { typedNumber } from '../../../parts/typed';
import { useNursery } from '../../../stores/nursery';
import { useSession } from '../../../stores/session';
import { count, several } from '../../../words/numbers';
import { plain, seedWork } from '../../../workers/seedWork';
import { money } from '../../../words/money';
import { usePlaces } from '../../yard/usePlaces';
import { presetOf, sowPreset } from './presetLot';
import type { Desk } from './useDesk';
import { keptKey } from '../../../stores/kept';

const props = defineProps<{ desk: Desk; seeds: number }>();
const nursery = useNursery();
const session = useSession();
const router = useRouter();
const { places } = usePlaces();
const currency = computed(() => nursery.catalogue!.prices.list.currency);

const asked = useSessionStorage(keptKey('desk.cells'), {
  containerTypeId: nursery.catalogue!.containers[0].id,
  perCell: '',
  cell: '0.20',
  minute: '0.30',
  thin: '2',
  move: '8',
  transplant: true,
});
const container = computed(
  () => nursery.lookup.containers.get(asked.value.containerTypeId) ?? nursery.catalogue!.containers[0],
);
const links = computed(() => Object.values(props.desk.chain.value).map((l) => l.next));
const emergence = computed(() => betaMean(betaProduct(links.value.slice(0, 2))));
/** Cells that must end with a plant so that enough of them make good trees. */
const wanted = computed(() =>
  Math.ceil(props.desk.target.value / betaMean(betaProduct(links.value.slice(2)))),
);
const seedCost = computed(() =>
  props.desk.lot.value?.price ? props.desk.lot.value.price / props.desk.seedsPerKg.value : 0,
);
const rows = shallowRef<SeedsPerCellRow[]>([]);
const fault = shallowRef<string | null>(null);
watch(
  [emergence, wanted, seedCost, () => ({ ...asked.value })],
  async () => {
    const costs = {
      seed: seedCost.value,
      cell: typedNumber(asked.value.cell),
      minute: typedNumber(asked.value.minute),
      thinSeconds: typedNumber(asked.value.thin),
      transplantSeconds: typedNumber(asked.value.move),
    };
    if (Object.values(costs).some((c) => !(c >= 0))) {
      fault.value = say`Costs and seconds are numbers, 0 or more.`;
      return;
    }
    fault.value = null;
    rows.value = await (
      await seedWork()
    ).cells(emergence.value, Math.max(1, wanted.value || 1), plain(costs), asked.value.transplant);
  },
  { immediate: true },
);
const best = computed(() => (rows.value.length ? bestSeedsPerCell(rows.value) : null));
const chosen = computed(() => {
  const typed = typedNumber(asked.value.perCell);
  return rows.value.find((r) => r.seedsPerCell === typed) ?? best.value;
});
/** Trays so that, with the empty cells among them, enough are filled. */
const trays = computed(() => {
  if (!chosen.value || !Number.isFinite(wanted.value)) return 0;
  const filledShare = chosen.value.filled / Math.max(1, wanted.value);
  return Math.ceil(wanted.value / filledShare / container.value.values.cellsPerTray);
});
const cells = computed(() => trays.value * container.value.values.cellsPerTray);
const working = computed(() =>
  chosen.value && cells.value
    ? cellOutcome({ emergence: emergence.value, seedsPerCell: chosen.value.seedsPerCell, cells: cells.value })
        .working
    : [],
);
const containers = nursery.catalogue!.containers.map((c) => ({ value: c.id, words: c.values.name }));

function sow() {
  const bench = places.value.find((p) => ['bench', 'ground'].includes(p.place.place.kind));
  sowPreset(router, {
    ...presetOf(props.desk, cells.value * chosen.value!.seedsPerCell),
    placeId: bench?.place.id,
    containerTypeId: container.value.id,
    trays: String(trays.value),
  });
}
</script>

<template>
  <div class="grid gap-5 xl:grid-cols-[2fr_3fr]">
    <div class="space-y-3">
      <SelectField v-model="asked.containerTypeId" :label="say`Container`" :options="containers" />
      <div class="grid grid-cols-2 gap-3">
        <FormField v-model="asked.cell" :label="say`A cell costs`" inputmode="decimal" />
        <FormField v-model="asked.minute" :label="say`A minute costs`" inputmode="decimal" />
        <FormField v-model="asked.thin" :label="say`Thin one`" unit="s" inputmode="decimal" />
        <FormField v-model="asked.move" :label="say`Move one`" unit="s" inputmode="decimal" />
      </div>
      <label class="flex min-h-11 items-center gap-2">
        <input v-model="asked.transplant" class="accent-ink size-5" type="checkbox" />
        {{ say`Extras are pricked into empty cells ` }}
      </label>
      <p v-if="fault" class="font-bold" role="status">{{ fault }}</p>
      <template v-else-if="chosen">
        <p class="text-lg" data-testid="cells-answer">
          <b>{{ say`${several(chosen.seedsPerCell, 'seed')} a cell` }}</b>{{
            say`, ${several(trays, 'tray')}, ${count(cells)} cells, ${count(cells * chosen.seedsPerCell)} seeds.`
          }}
        </p>
        <div class="flex flex-wrap gap-2">
          <button v-if="session.may('grower')" class="act-main" type="button" :disabled="!trays" @click="sow">
            {{ say`Sow it` }}
          </button>
          <button v-if="asked.perCell" class="act" type="button" @click="asked.perCell = ''">
            {{ say`Back to the cheapest` }}
          </button>
        </div>
        <ShowWorking :steps="working" />
      </template>
    </div>
    <div class="overflow-x-auto">
      <table class="w-full text-[0.95rem]" data-testid="seeds-per-cell">
        <caption class="text-left font-bold">
          {{
            say`For ${count(wanted)} cells`
          }}
        </caption>
        <thead class="text-muted">
          <tr>
            <th scope="col" class="text-left font-normal">{{ say`Seeds a cell` }}</th>
            <th scope="col" class="pl-4 text-right font-normal">{{ say`Empty` }}</th>
            <th scope="col" class="pl-4 text-right font-normal">{{ say`One` }}</th>
            <th scope="col" class="pl-4 text-right font-normal">{{ say`Several` }}</th>
            <th scope="col" class="pl-4 text-right font-normal">{{ say`Filled in the end` }}</th>
            <th scope="col" class="pl-4 text-right font-normal">{{ say`A plant costs` }}</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="row in rows"
            :key="row.seedsPerCell"
            class="border-rule border-t"
            :class="row === chosen ? 'font-bold' : ''"
          >
            <th scope="row" class="text-left">
              <button class="quiet" type="button" @click="asked.perCell = String(row.seedsPerCell)">
                {{ row.seedsPerCell }}</button><template v-if="row === best"> {{ say` cheapest` }}</template>
            </th>
            <td class="pl-4 text-right">{{ count(row.outcome.empty) }}</td>
            <td class="pl-4 text-right">{{ count(row.outcome.single) }}</td>
            <td class="pl-4 text-right">{{ count(row.outcome.multiple) }}</td>
            <td class="pl-4 text-right">{{ count(row.filled) }}</td>
            <td class="pl-4 text-right">{{ money(row.costPerPlant, currency) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>
