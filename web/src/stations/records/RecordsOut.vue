<script setup lang="ts">
import { say } from '@kauri/core';
import TableOut from '../../tables/TableOut.vue';
import { useNursery } from '../../stores/nursery';
import { recordTables } from './recordTables';

/** What was recorded of lots, out as tables: one for each kind of record. */
const nursery = useNursery();
const words: Record<keyof typeof recordTables, string> = {
  lots: say`Lots`,
  counts: say`Counts`,
  pulls: say`Plugs scored`,
  roots: say`Roots looked at`,
  events: say`What happened`,
  work: say`Work done`,
  moves: say`Moves on`,
  movements: say`The ledger`,
};
/** Lots of the past are in it too: a table that is kept is whole. */
async function table(name: keyof typeof recordTables): Promise<string> {
  await nursery.lookBack();
  const { lots, evidence, lookup } = nursery;
  return recordTables[name]({
    lots,
    evidence,
    speciesName: (id) => lookup.species.get(id)?.common ?? '',
    placeName: (id) => lookup.places.get(id)?.place.name ?? '',
    containerName: (id) => (id === null ? '' : (lookup.containers.get(id)?.values.name ?? '')),
  });
}
</script>

<template>
  <section class="panel p-4" aria-labelledby="records-out" data-testid="records-out">
    <h2 id="records-out" class="mb-1 text-xl">{{ say`Records of lots, out` }}</h2>
    <p class="text-muted mb-3">
      {{
        say`A line each, those of lots that are gone among them. Lengths in metric units, days as year-month-day.`
      }}
    </p>
    <div class="flex flex-wrap gap-3">
      <TableOut
        v-for="(label, name) in words"
        :key="name"
        :label="label"
        :name="name"
        :table="() => table(name)"
      />
    </div>
  </section>
</template>
