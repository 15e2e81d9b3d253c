<script setup lang="ts">
import { say } from '@kauri/core';
import FormDialog from '../parts/FormDialog.vue';

const emit = defineEmits<{ close: [] }>();
const groups = [
  {
    name: say`Anywhere`,
    keys: [
      ['1 … 8', say`Stations, in order`],
      ['/', say`Find`],
      ['[  ]', say`A week back, a week on`],
      ['.', say`Back to today`],
      ['Q', say`Read a tag by the camera`],
      ['N', say`New lot`],
      ['U', say`Take back what was done last`],
      ['?', say`This list`],
    ],
  },
  {
    name: say`On a lot`,
    keys: [
      ['C', say`Count what stands`],
      ['M', say`Measure`],
      ['R', say`Pull plugs`],
      ['S', say`Move on, or try a move`],
      ['W', say`Work done: feed, spread, stake`],
      ['E', say`What happened: browsing, frost`],
      ['L', say`Lift`],
      ['X', say`Write off`],
      ['↑ ↓', say`Next lot in the list, when it has the focus`],
    ],
  },
  {
    name: say`On the site plan, on a thing`,
    keys: [
      ['← → ↑ ↓', say`Moves it 0.1 m; with Shift 1 m`],
      ['Enter', say`Chooses it; with Shift as well`],
      ['R', say`Turns it a quarter; with Shift 15°`],
      ['D', say`Duplicates it`],
      ['Delete', say`Takes it away`],
      [say`Ctrl Z, Ctrl Y`, say`Undo, redo`],
    ],
  },
  {
    name: say`On a root rosette`,
    keys: [
      ['← →', say`Turn the needle 5°; with Shift 30°`],
      ['Enter', say`Lay a root there`],
      ['1 … 7', say`How it runs: straight, steep, along the wall …`],
      ['T M L', say`Top, middle, lowest third`],
      ['+ −', say`Thicker, thinner`],
      ['Backspace', say`Take the last away`],
    ],
  },
  {
    name: say`In a sheet`,
    keys: [
      [say`Ctrl Enter`, say`Keeps it, from any field`],
      ['Enter', say`In a field that is typed, keeps it too`],
      ['Esc', say`Closes it; what was typed stays`],
    ],
  },
  {
    name: say`In a field`,
    keys: [
      ['↑ ↓', say`A day on, a day back, where a day is asked for`],
      [say`Alt ↓`, say`Opens the calendar`],
      [say`Letters`, say`Choose what begins so, where there is a list`],
    ],
  },
  {
    name: say`On the ribbon`,
    keys: [
      ['← →', say`A day`],
      [say`Shift ← →`, say`A week`],
      [say`Page up, down`, say`A month`],
    ],
  },
] as const;
</script>

<template>
  <FormDialog :title="say`Keys`" @close="emit('close')">
    <section v-for="group in groups" :key="group.name" class="mb-4">
      <h3 class="mb-1 text-lg">{{ group.name }}</h3>
      <dl class="grid grid-cols-[9rem_1fr] gap-y-1.5">
        <template v-for="[key, words] in group.keys" :key="key">
          <dt>
            <span class="key">{{ key }}</span>
          </dt>
          <dd>{{ words }}</dd>
        </template>
      </dl>
    </section>
  </FormDialog>
</template>
