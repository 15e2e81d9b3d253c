<script setup lang="ts">
import { bedGeometry, bedSpots, cellSpots, trayGrid, say } from '@kauri/core';
import { computed } from 'vue';
import type { ShownLot } from '../../parts/useLots';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { several } from '../../words/numbers';

/** Where the plants of a measure run stand: drawn at random over the bed or the trays, the next one marked. */
const props = defineProps<{ lot: ShownLot; n: number; next: number; seed: string }>();
const nursery = useNursery();
const { show } = usePreferences();

/** The part of a bed the lot is sown in, mm, with where it begins. */
const bed = computed(() => {
  const place = nursery.lookup.places.get(props.lot.row.stage.placeId)?.place;
  if (place?.kind !== 'bed' || props.lot.row.stage.containerTypeId !== null) return null;
  const { insideLengthMm, insideWidthMm } = bedGeometry(place.design).value;
  const { patch } = props.lot.row;
  const from = patch ? Math.min(patch.fromMm, insideLengthMm) : 0;
  const to = patch ? Math.min(patch.toMm, insideLengthMm) : insideLengthMm;
  return { lengthMm: insideLengthMm, widthMm: insideWidthMm, from, to: to > from ? to : insideLengthMm };
});
const inBed = computed(() => {
  if (!bed.value) return [];
  const { from, to, widthMm } = bed.value;
  return bedSpots(to - from, widthMm, props.n, props.seed).map((s) => ({ ...s, alongMm: s.alongMm + from }));
});
const trays = computed(() => {
  const { containerTypeId, trays: count } = props.lot.row.stage;
  const container =
    containerTypeId === null ? undefined : nursery.lookup.containers.get(containerTypeId)?.values;
  if (!container || !count) return null;
  return {
    count,
    grid: trayGrid(container.cellsPerTray, container.trayLengthMm, container.trayWidthMm),
    ratio: container.trayWidthMm / container.trayLengthMm,
  };
});
const inTrays = computed(() =>
  trays.value ? cellSpots(trays.value.count, trays.value.grid, props.n, props.seed) : [],
);
const here = computed(() => (props.next < props.n ? props.next : null));
const words = computed(() => {
  if (here.value === null) return say`All the plants drawn are measured.`;
  const nth = say`Plant ${here.value + 1} of ${props.n}: `;
  if (inBed.value.length) {
    const s = inBed.value[here.value];
    return say`${nth}${show(s.alongMm / 1000, 'site', 2)} along, ${show(s.acrossMm / 1000, 'site', 2)} in from the near side; the plant nearest to it.`;
  }
  const s = inTrays.value[here.value];
  return s ? say`${nth}tray ${s.tray}, row ${s.row}, cell ${s.column}; the next one if it is empty.` : '';
});
const spot = computed(() => (here.value === null ? null : inTrays.value[here.value]));
/** How many plants each tray gives. */
const perTray = computed(() => {
  const counts = new Map<number, number>();
  for (const { tray } of inTrays.value) counts.set(tray, (counts.get(tray) ?? 0) + 1);
  return counts;
});
</script>

<template>
  <figure v-if="bed || trays" class="mb-3" data-testid="sample-plan">
    <svg
      v-if="bed"
      class="w-full"
      :viewBox="`-20 -20 ${bed.lengthMm + 40} ${bed.widthMm + 40}`"
      role="img"
      :aria-label="say`Bed from above with ${several(n, 'spot')} to measure at`"
    >
      <rect
        class="fill-soil stroke-ink"
        x="0"
        y="0"
        :width="bed.lengthMm"
        :height="bed.widthMm"
        stroke-width="8"
      />
      <rect
        v-if="bed.to - bed.from < bed.lengthMm"
        class="stroke-ink fill-none"
        :x="bed.from"
        y="0"
        :width="bed.to - bed.from"
        :height="bed.widthMm"
        stroke-width="6"
        stroke-dasharray="30 20"
      />
      <template v-for="(s, i) in inBed" :key="i">
        <circle
          :cx="s.alongMm"
          :cy="bed.widthMm - s.acrossMm"
          :r="i === here ? bed.lengthMm / 55 : bed.lengthMm / 110"
          :class="i === here ? 'fill-tag stroke-ink' : i < next ? 'fill-ink' : 'stroke-ink fill-card'"
          stroke-width="7"
        />
        <text
          v-if="i === here"
          class="fill-tag-ink font-bold"
          :x="s.alongMm"
          :y="bed.widthMm - s.acrossMm"
          :font-size="bed.lengthMm / 40"
          text-anchor="middle"
          dominant-baseline="central"
        >
          {{ i + 1 }}
        </text>
      </template>
    </svg>
    <div v-else-if="trays" class="flex flex-wrap items-start gap-3">
      <svg
        v-if="spot"
        class="w-40 shrink-0"
        :viewBox="`0 0 100 ${100 * trays.ratio}`"
        role="img"
        :aria-label="say`Tray ${spot.tray}: row ${spot.row}, cell ${spot.column}`"
      >
        <template v-for="r in trays.grid.rows" :key="r">
          <rect
            v-for="c in trays.grid.columns"
            :key="c"
            :x="((c - 1) / trays.grid.columns) * 100 + 0.6"
            :y="((r - 1) / trays.grid.rows) * 100 * trays.ratio + 0.6"
            :width="100 / trays.grid.columns - 1.2"
            :height="(100 * trays.ratio) / trays.grid.rows - 1.2"
            :class="
              r === spot.row && c === spot.column ? 'fill-tag stroke-ink' : 'fill-soil stroke-soil-deep'
            "
            stroke-width="0.8"
          />
        </template>
      </svg>
      <ol class="flex flex-1 flex-wrap gap-1 text-sm" :aria-label="say`Trays on the bench`">
        <li
          v-for="t in trays.count"
          v-show="perTray.has(t) || trays.count <= 24"
          :key="t"
          class="border-rule grid h-9 min-w-9 place-items-center rounded border px-1"
          :class="
            spot?.tray === t
              ? 'border-ink bg-tag text-tag-ink font-bold'
              : perTray.has(t)
                ? 'bg-soil'
                : 'text-muted'
          "
        >
          {{ t }}
        </li>
      </ol>
    </div>
    <figcaption class="mt-1 font-bold" aria-live="polite">{{ words }}</figcaption>
  </figure>
</template>
