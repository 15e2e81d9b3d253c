<script setup lang="ts">
import { buildOf, dressedSize, type BedDesign, type BedGeometry, say } from '@kauri/core';
import { computed } from 'vue';
import { usePreferences } from '../../stores/preferences';

/** A bed cut across its width, to scale: boards, medium fresh and settled, mesh, feet and the air beneath. */
const props = defineProps<{ design: BedDesign; geometry: BedGeometry }>();
const { show } = usePreferences();

const W = 380;
const LEFT = 14;
const RIGHT = 178;
const d = computed(() => {
  const { design, geometry: g } = props;
  const lid = design.lidAboveRimMm ?? 0;
  const gap = Math.max(design.airGapMm, 0);
  const total = lid + g.frameHeightMm + gap;
  const scale = Math.min((W - LEFT - RIGHT) / g.outsideWidthMm, 250 / total);
  const top = 12;
  const rim = top + lid * scale;
  const floor = rim + g.frameHeightMm * scale;
  const ground = floor + gap * scale;
  const width = g.outsideWidthMm * scale;
  const boards = [...design.tiers].map(dressedSize);
  const { found } = design;
  const thick = (found ? found.wallMm : boards[0].thicknessMm) * scale;
  /** How far each wall leans in by the floor, and by a height above it. */
  const lean = found ? ((width - 2 * thick) * (1 - found.taper)) / 2 : 0;
  const leanAt = (y: number) => (lean * (y - rim)) / (floor - rim);
  let bottom = floor;
  const tiers = boards.map((b) => {
    const h = b.widthMm * scale;
    bottom -= h;
    return { y: bottom, h };
  });
  const build = buildOf(design);
  const bearer = dressedSize(build.crossBoard);
  return {
    top,
    rim,
    floor,
    ground,
    left: LEFT,
    width,
    thick,
    lean,
    leanAt,
    tiers,
    fresh: rim + design.fillBelowRimMm * scale,
    settled: floor - g.settledDepthMm * scale,
    bearer: build.crossMembers > 0 ? bearer.widthMm * scale : 0,
    height: ground + 16,
    gapWords: ground - floor > 9,
  };
});
/** The medium from a height down to the floor, between its walls. */
function filledTo(y: number): string {
  const { left, width, thick, floor, lean, leanAt } = d.value;
  const [from, to] = [left + thick, left + width - thick];
  const top = Math.min(y, floor);
  return `M${from + leanAt(top)} ${top}L${to - leanAt(top)} ${top}L${to - lean} ${floor}L${from + lean} ${floor}Z`;
}
const feetWords = { bricks: say`brick`, blocks: say`block`, legs: say`leg`, pallet: say`pallet` };
/** Every part named and sized, at the right, kept apart. */
const labels = computed(() => {
  const { design, geometry: g } = props;
  const build = buildOf(design);
  const ink = 'var(--ink)';
  const wanted = [
    ...(design.lidAboveRimMm === null
      ? []
      : [{ y: d.value.top, words: say`lid ${show(design.lidAboveRimMm, 'timber')} up`, colour: ink }]),
    ...d.value.tiers
      .map((t, i) => ({
        y: t.y + 4,
        words: `${i > 0 && i >= design.tiers.length - build.riserTiers ? say`riser` : say`tier`} ${design.tiers[i]}, ${show(g.tierDepthsMm[i], 'timber')}`,
        colour: ink,
      }))
      .reverse(),
    { y: d.value.fresh, words: say`filled ${show(g.looseDepthMm, 'timber')}`, colour: 'var(--root)' },
    { y: d.value.settled, words: say`settled ${show(g.settledDepthMm, 'timber')}`, colour: 'var(--root)' },
    {
      y: d.value.floor,
      words:
        design.layers
          .filter((l) => l.kind !== 'support')
          .map((l) =>
            l.kind === 'cloth'
              ? say`cloth`
              : `${l.wireMm >= 3 ? say`grid` : say`mesh`} ${show(l.openingMm[0], 'timber')}`,
          )
          .join(', ') || say`open`,
      colour: ink,
    },
    ...(design.found
      ? [
          {
            y: (d.value.rim + d.value.fresh) / 2,
            words: say`wall ${show(g.frameHeightMm, 'timber')}`,
            colour: ink,
          },
        ]
      : []),
    ...(build.crossMembers
      ? [
          {
            y: d.value.floor + d.value.bearer / 2,
            words: say`${build.crossMembers} bearers ${build.crossBoard}`,
            colour: ink,
          },
        ]
      : []),
    {
      y: d.value.ground,
      words: say`${feetWords[build.feet.kind]} feet, gap ${show(design.airGapMm, 'timber')}`,
      colour: ink,
    },
  ].sort((a, b) => a.y - b.y);
  let last = -Infinity;
  return wanted.map((label) => {
    const at = Math.max(label.y, last + 15);
    last = at;
    return { ...label, at };
  });
});
</script>

<template>
  <figure>
    <svg
      :viewBox="`0 0 ${W} ${Math.max(d.height, labels[labels.length - 1].at + 8)}`"
      class="w-full max-w-md"
      role="img"
      :aria-label="
        say`Section across the bed, to scale: ${show(geometry.outsideWidthMm, 'timber')} wide, ${show(geometry.frameHeightMm, 'timber')} of wall, settled depth ${show(geometry.settledDepthMm, 'timber')}`
      "
    >
      <path :d="filledTo(d.fresh)" fill="var(--soil)" />
      <path :d="filledTo(d.settled)" fill="var(--soil-deep)" />
      <g v-if="design.found" fill="none" stroke="var(--ink)" :stroke-width="Math.max(1.4, d.thick)">
        <path :d="`M${d.left + d.thick / 2} ${d.rim}L${d.left + d.thick / 2 + d.lean} ${d.floor}`" />
        <path
          :d="`M${d.left + d.width - d.thick / 2} ${d.rim}L${d.left + d.width - d.thick / 2 - d.lean} ${d.floor}`"
        />
      </g>
      <g v-for="(t, i) in d.tiers" :key="i" fill="var(--card)" stroke="var(--ink)" stroke-width="1.4">
        <rect :x="d.left" :y="t.y" :width="d.thick" :height="t.h" />
        <rect :x="d.left + d.width - d.thick" :y="t.y" :width="d.thick" :height="t.h" />
      </g>
      <path
        :d="`M${d.left + d.lean} ${d.floor}h${d.width - 2 * d.lean}`"
        stroke="var(--ink)"
        stroke-width="2"
        stroke-dasharray="3 3"
      />
      <rect
        v-if="d.bearer"
        :x="d.left + d.thick"
        :y="d.floor + 1"
        :width="d.width - 2 * d.thick"
        :height="d.bearer"
        fill="var(--card)"
        stroke="var(--muted)"
        stroke-dasharray="4 2"
      />
      <g v-if="d.ground > d.floor" fill="var(--rule)" stroke="var(--ink)">
        <rect
          :x="d.left + d.lean"
          :y="d.floor + 1"
          :width="Math.max(8, d.thick * 1.6)"
          :height="d.ground - d.floor - 1"
        />
        <rect
          :x="d.left + d.width - d.lean - Math.max(8, d.thick * 1.6)"
          :y="d.floor + 1"
          :width="Math.max(8, d.thick * 1.6)"
          :height="d.ground - d.floor - 1"
        />
      </g>
      <path :d="`M${d.left - 12} ${d.ground}h${d.width + 24}`" stroke="var(--ink)" stroke-width="2.5" />
      <path
        v-if="design.lidAboveRimMm !== null"
        :d="`M${d.left} ${d.rim}V${d.top}h${d.width}V${d.rim}`"
        fill="none"
        stroke="var(--ink)"
        stroke-dasharray="2 3"
        stroke-width="1.4"
      />
      <g v-for="label in labels" :key="label.words">
        <path
          :d="`M${d.left + d.width + 3} ${label.y}L${d.left + d.width + 12} ${label.at}h4`"
          fill="none"
          :stroke="label.colour"
        />
        <text :x="d.left + d.width + 19" :y="label.at + 4" font-size="12.5" :fill="label.colour">
          {{ label.words }}
        </text>
      </g>
    </svg>
  </figure>
</template>
