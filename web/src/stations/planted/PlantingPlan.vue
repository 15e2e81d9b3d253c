<script setup lang="ts">
import { outlineMetres, placeInRows, placesBefore, treeStateNames, type TreeState, say } from '@kauri/core';
import type { Planting, WalkSheet } from '@kauri/core/contract';
import { computed } from 'vue';
import { usePreferences } from '../../stores/preferences';
import { treeStateWords } from '../../words/planted';

/** A planting on its own ground: each tree a mark whose shape says how it was found; those nobody looked at are dots. */
const props = defineProps<{ planting: Planting; sheet: WalkSheet | null }>();
const { show } = usePreferences();

const rows = computed(() => (props.planting.layout.kind === 'rows' ? props.planting.layout : null));
const trees = computed(() => props.planting.parts.reduce((sum, { count }) => sum + count, 0));
const begins = computed(() => placesBefore(props.planting));
const states = computed(() => {
  const found = new Map<number, TreeState>();
  for (const { partId, number, state } of props.sheet?.marks ?? []) {
    const begin = begins.value.get(partId);
    if (begin !== undefined) found.set(begin + number, state);
  }
  return found;
});
/** Places drawn at most: more are a wash of dots that says nothing. */
const MOST_DRAWN = 8000;
const size = computed(() => {
  if (!rows.value) return null;
  const { perRow, treeM, rowM } = rows.value;
  const used = Math.max(1, Math.ceil(Math.min(trees.value || Infinity, rows.value.rows * perRow) / perRow));
  return { width: perRow * treeM, height: Math.max(used, Math.min(rows.value.rows, used + 1)) * rowM };
});
/** A mark's half size, in metres of the drawing. */
const half = computed(() => (rows.value ? Math.min(rows.value.treeM, rows.value.rowM) * 0.3 : 1));

const shapes: Record<TreeState | 'unseen', (x: number, y: number, r: number) => string> = {
  alive: (x, y, r) => `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0z`,
  'leader dead': (x, y, r) => `M${x - r} ${y}a${r} ${r} 0 0 0 ${2 * r} 0z`,
  dying: (x, y, r) => `M${x} ${y - r}L${x + r} ${y}L${x} ${y + r}L${x - r} ${y}z`,
  dead: (x, y, r) => `M${x - r} ${y - r}L${x + r} ${y + r}M${x + r} ${y - r}L${x - r} ${y + r}`,
  missing: (x, y, r) => `M${x - r} ${y - r}h${2 * r}v${2 * r}h${-2 * r}z`,
  unseen: (x, y, r) => {
    const d = r * 0.35;
    return `M${x - d} ${y}a${d} ${d} 0 1 0 ${2 * d} 0a${d} ${d} 0 1 0 ${-2 * d} 0z`;
  },
};
const drawn = computed(() => {
  const paths = new Map<TreeState | 'unseen', string[]>();
  if (!rows.value || trees.value > MOST_DRAWN) return paths;
  const { perRow, treeM, rowM } = rows.value;
  for (let position = 1; position <= trees.value; position++) {
    const { row, at } = placeInRows(position, { perRow })!;
    const state = states.value.get(position) ?? 'unseen';
    const mark = shapes[state]((at - 0.5) * treeM, (row - 0.5) * rowM, half.value);
    const marks = paths.get(state);
    if (marks) marks.push(mark);
    else paths.set(state, [mark]);
  }
  return paths;
});
const outline = computed(() => {
  const { layout } = props.planting;
  if (layout.kind !== 'outline') return null;
  const at = outlineMetres(layout.corners);
  const [left, right] = [Math.min(...at.map((p) => p.east)), Math.max(...at.map((p) => p.east))];
  const [low, high] = [Math.min(...at.map((p) => p.north)), Math.max(...at.map((p) => p.north))];
  const pad = Math.max(right - left, high - low) * 0.04;
  return {
    box: `${left - pad} ${-high - pad} ${right - left + 2 * pad} ${high - low + 2 * pad}`,
    points: at.map((p) => `${p.east},${-p.north}`).join(' '),
    east: right - left,
    north: high - low,
  };
});
const strokeOnly = (state: TreeState | 'unseen') =>
  state === 'dead' || state === 'missing' || state === 'dying';
const colourOf = (state: TreeState | 'unseen') =>
  state === 'alive' || state === 'leader dead'
    ? 'text-leaf'
    : state === 'unseen'
      ? 'text-muted'
      : 'text-root';
const legend = computed(() => treeStateNames.filter((state) => drawn.value.has(state)));
</script>

<template>
  <figure v-if="rows && size && trees" data-testid="planting-plan">
    <svg
      class="bg-soil max-h-[26rem] w-full rounded-md"
      :viewBox="`0 0 ${size.width} ${size.height}`"
      role="img"
      :aria-label="say`${planting.name} from above, row 1 at the top`"
    >
      <path
        v-for="[state, marks] in drawn"
        :key="state"
        :class="colourOf(state)"
        :d="marks.join('')"
        :fill="strokeOnly(state) ? 'none' : 'currentColor'"
        :stroke="strokeOnly(state) ? 'currentColor' : 'none'"
        :stroke-width="half * 0.4"
      />
    </svg>
    <figcaption class="text-muted mt-1 flex flex-wrap gap-x-4 text-sm">
      <span>{{
        say`${show(size.width, 'site')} along a row; rows ${show(rows.rowM, 'site')} apart, the first at the top`
      }}</span>
      <span v-for="state in legend" :key="state" class="inline-flex items-center gap-1">
        <svg class="size-4" viewBox="0 0 10 10" aria-hidden="true" :class="colourOf(state)">
          <path
            :d="shapes[state](5, 5, 3.5)"
            :fill="strokeOnly(state) ? 'none' : 'currentColor'"
            :stroke="strokeOnly(state) ? 'currentColor' : 'none'"
            stroke-width="1.4"
          />
        </svg>
        {{ treeStateWords[state] }}
      </span>
      <span v-if="trees > MOST_DRAWN">{{
        say`More trees than can be told apart here: the figures are below.`
      }}</span>
      <span v-else-if="drawn.has('unseen') && legend.length">{{ say`dots were not looked at` }}</span>
    </figcaption>
  </figure>
  <figure v-else-if="outline" data-testid="planting-plan">
    <svg
      class="max-h-56 w-full"
      :viewBox="outline.box"
      role="img"
      :aria-label="say`Outline of ${planting.name}, north at the top`"
    >
      <polygon
        class="fill-soil stroke-soil-deep"
        :points="outline.points"
        vector-effect="non-scaling-stroke"
        stroke-width="2"
      />
    </svg>
    <figcaption class="text-muted mt-1 text-sm">
      {{
        say`North at the top; ${show(outline.east, 'site')} from west to east, ${show(outline.north, 'site')} from south to north`
      }}
    </figcaption>
  </figure>
</template>
