<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue';
import { yardFromGeoJson, yardToGeoJson, say } from '@kauri/core';
import type { PlaceBody } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { ref, useTemplateRef } from 'vue';
import { makePdf, offerFile, PT_PER_MM } from '../../../print/pdf';
import { planSvg } from '../../../print/planSvg';
import { useMessages } from '../../../stores/messages';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSession } from '../../../stores/session';
import { useYard } from '../../../stores/yard';
import { several } from '../../../words/numbers';
import type { ShownPlace } from '../usePlaces';
import { freeName } from './newThing';

/** The plan out to paper and to other programs, and in from GeoJSON. */
const props = defineProps<{ places: readonly ShownPlace[] }>();
const nursery = useNursery();
const yard = useYard();
const session = useSession();
const messages = useMessages();
const preferences = usePreferences();
const file = useTemplateRef('file');
const fault = ref<string | null>(null);
const remarks = ref<string[]>([]);
const busy = ref(false);

const A3_MM = [420, 297] as const;
const bodies = () => props.places.map((p) => p.place.place);
const stem = () => nursery.catalogue!.nursery.name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase();
const origin = () => nursery.catalogue!.nursery;
const paper = () =>
  planSvg(yard.elements, bodies(), A3_MM, (m) =>
    preferences.show(m, 'site', preferences.units === 'us' ? 1 : m < 1 ? 1 : 0),
  );

function geoJson() {
  const text = JSON.stringify(yardToGeoJson(yard.elements, bodies(), origin()), null, 1);
  offerFile(`${stem()}-yard.geojson`, text, 'application/geo+json');
}
function svg() {
  offerFile(`${stem()}-yard.svg`, paper().svg, 'image/svg+xml');
}
async function pdf() {
  busy.value = true;
  try {
    const plan = paper();
    const blob = await makePdf({
      pageSize: { width: plan.widthMm * PT_PER_MM, height: plan.heightMm * PT_PER_MM },
      pageMargins: 0,
      content: [{ svg: plan.svg, width: plan.widthMm * PT_PER_MM }],
    });
    offerFile(`${stem()}-yard-1-${plan.scale}.pdf`, blob);
  } catch (error) {
    fault.value = say`The PDF could not be made: ${(error as Error).message}`;
  } finally {
    busy.value = false;
  }
}

/** Adds what a file holds to the plan, in one edit that can be undone. Nothing is taken from a broken file. */
async function read(event: Event) {
  const input = event.target as HTMLInputElement;
  const chosen = input.files?.[0];
  input.value = '';
  if (!chosen) return;
  fault.value = null;
  remarks.value = [];
  let json: unknown;
  try {
    json = JSON.parse(await chosen.text());
  } catch {
    fault.value = say`${chosen.name} is not JSON.`;
    return;
  }
  try {
    const found = yardFromGeoJson(json, origin());
    const names = bodies().map((p) => p.name);
    const added = found.places.map((place) => {
      const name = freeName(place.name, names);
      names.push(name);
      const mediumId = place.mediumId && nursery.lookup.media.has(place.mediumId) ? place.mediumId : null;
      return { id: newId(), place: { ...place, name, mediumId } as PlaceBody };
    });
    const before = yard.elements;
    const kept = await yard.make({
      words: say`Read from a file`,
      added,
      elements: { before, after: [...before, ...found.elements.map((e) => ({ ...e, id: newId() }))] },
    });
    if (!kept) {
      fault.value = yard.fault;
      return;
    }
    remarks.value = found.remarks;
    messages.say(
      say`${several(found.elements.length, 'thing')} and ${several(added.length, 'place')} read from ${chosen.name}.`,
    );
  } catch (error) {
    fault.value = (error as Error).message;
  }
}
</script>

<template>
  <div class="relative">
    <Menu>
      <MenuButton class="act" :disabled="busy">{{ busy ? say`Making …` : say`Files` }}</MenuButton>
      <MenuItems class="panel absolute left-0 z-30 mt-1 w-72 p-1 shadow-lg">
        <MenuItem v-slot="{ active }">
          <button
            class="block min-h-11 w-full rounded px-3 text-left"
            :class="{ 'bg-leaf-pale': active }"
            type="button"
            @click="pdf"
          >
            {{ say`PDF to scale, A3` }}
          </button>
        </MenuItem>
        <MenuItem v-slot="{ active }">
          <button
            class="block min-h-11 w-full rounded px-3 text-left"
            :class="{ 'bg-leaf-pale': active }"
            type="button"
            @click="svg"
          >
            {{ say`SVG to scale` }}
          </button>
        </MenuItem>
        <MenuItem v-slot="{ active }">
          <button
            class="block min-h-11 w-full rounded px-3 text-left"
            :class="{ 'bg-leaf-pale': active }"
            type="button"
            @click="geoJson"
          >
            {{ say`GeoJSON out` }}
          </button>
        </MenuItem>
        <MenuItem v-if="session.may('grower')" v-slot="{ active }">
          <button
            class="block min-h-11 w-full rounded px-3 text-left"
            :class="{ 'bg-leaf-pale': active }"
            type="button"
            @click="file?.click()"
          >
            {{ say`GeoJSON in, added to the plan` }}
          </button>
        </MenuItem>
      </MenuItems>
    </Menu>
    <input
      ref="file"
      type="file"
      class="sr-only"
      accept=".geojson,.json,application/geo+json"
      :aria-label="say`GeoJSON file`"
      tabindex="-1"
      data-testid="geojson-in"
      @change="read"
    />
    <div v-if="fault || remarks.length" class="panel absolute left-0 z-30 mt-1 w-80 p-3 shadow-lg">
      <p v-if="fault" class="text-wrong font-bold" role="alert">{{ say`${fault} The plan is unchanged.` }}</p>
      <ul v-if="remarks.length">
        <li v-for="(remark, i) in remarks" :key="i">{{ remark }}</li>
      </ul>
      <button class="quiet" type="button" @click="((fault = null), (remarks = []))">{{ say`Close` }}</button>
    </div>
  </div>
</template>
