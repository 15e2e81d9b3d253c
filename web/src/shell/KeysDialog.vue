<script setup lang="ts">
import FormDialog from '../parts/FormDialog.vue';

const emit = defineEmits<{ close: [] }>();
const groups = [
  {
    name: 'Anywhere',
    keys: [
      ['1 … 8', 'Stations, in order'],
      ['/', 'Find'],
      ['[  ]', 'A week back, a week on'],
      ['.', 'Back to today'],
      ['Q', 'Read a tag by the camera'],
      ['N', 'New lot'],
      ['U', 'Take back what was done last'],
      ['?', 'This list'],
    ],
  },
  {
    name: 'On a lot',
    keys: [
      ['C', 'Count what stands'],
      ['M', 'Measure'],
      ['R', 'Pull plugs'],
      ['S', 'Move on, or try a move'],
      ['W', 'Work done: feed, spread, stake'],
      ['E', 'What happened: browsing, frost'],
      ['L', 'Lift'],
      ['X', 'Write off'],
      ['↑ ↓', 'Next lot in the list, when it has the focus'],
    ],
  },
  {
    name: 'On the site plan, on a thing',
    keys: [
      ['← → ↑ ↓', 'Moves it 0.1 m; with Shift 1 m'],
      ['Enter', 'Chooses it; with Shift as well'],
      ['R', 'Turns it a quarter; with Shift 15°'],
      ['D', 'Duplicates it'],
      ['Delete', 'Takes it away'],
      ['Ctrl Z, Ctrl Y', 'Undo, redo'],
    ],
  },
  {
    name: 'On a root rosette',
    keys: [
      ['← →', 'Turn the needle 5°; with Shift 30°'],
      ['Enter', 'Lay a root there'],
      ['1 … 7', 'How it runs: straight, steep, along the wall …'],
      ['T M L', 'Top, middle, lowest third'],
      ['+ −', 'Thicker, thinner'],
      ['Backspace', 'Take the last away'],
    ],
  },
  {
    name: 'On the ribbon',
    keys: [
      ['← →', 'A day'],
      ['Shift ← →', 'A week'],
      ['Page up, down', 'A month'],
    ],
  },
] as const;
</script>

<template>
  <FormDialog title="Keys" @close="emit('close')">
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
