<script setup lang="ts">
import { dayOf, partsOf, dayFrom, type TreatmentClock, say } from '@kauri/core';
import type { Treatment } from '@kauri/core/contract';
import { computed } from 'vue';
import { monthName } from '../../../words/dates';
import { surely } from '../../../words/numbers';
import { phaseWords } from '../../../words/seed';

/** The batch in time: its phases on the soil line, what is done solid, and below it the chance of first radicles. */
const props = defineProps<{ batch: Treatment; clock: TreatmentClock }>();
const [W, H, LINE, BAR] = [760, 190, 74, 62];

const from = computed(() => dayOf(props.batch.startedOn));
const to = computed(() => {
  const last = props.clock.weeks.at(-1)!.until;
  const { p90, p50 } = props.clock.ready;
  return Math.max(last, Number.isFinite(p90) ? p90 + 14 : Number.isFinite(p50) ? p50 + 30 : last);
});
const x = (day: number) => 8 + ((Math.min(day, to.value) - from.value) / (to.value - from.value)) * (W - 16);
const fills: Record<string, string> = { cold: 'var(--frost)', warm: 'var(--soil)' };
const phases = computed(() =>
  props.clock.phases.map((phase, i) => {
    const next = props.clock.phases[i + 1]?.start.p50 ?? props.clock.ready.p50 + 1;
    const begin = x(phase.start.p50);
    const end = x(Number.isFinite(next) ? next : to.value);
    return {
      kind: phase.kind,
      begin,
      width: Math.max(2, end - begin),
      fill: fills[phase.kind] ?? 'var(--rule)',
    };
  }),
);
const ticks = computed(() => {
  const out: { day: number; words: string }[] = [];
  const start = partsOf(from.value);
  const every = (to.value - from.value) / 30 > 14 ? 2 : 1;
  for (let m = 1; m < 48; m += every) {
    const month = start.month - 1 + m;
    const day = dayFrom(start.year + Math.floor(month / 12), (month % 12) + 1, 1);
    if (day > to.value) break;
    out.push({ day, words: monthName(month % 12) });
  }
  return out;
});
const bars = computed(() =>
  props.clock.weeks.map((week) => ({
    x: x(week.until - 7),
    width: Math.max(1, x(week.until) - x(week.until - 7) - 2),
    height: week.chance * BAR,
    ...week,
  })),
);
const half = computed(() => props.clock.weeks.find((w) => w.chance >= 0.5)?.until ?? null);
</script>

<template>
  <figure>
    <svg
      :viewBox="`0 0 ${W} ${H}`"
      class="w-full max-w-4xl"
      role="img"
      :aria-label="
        say`Phases of the batch${half === null ? '' : say`; first radicles as likely as not within the weeks shown`}`
      "
    >
      <g v-for="(phase, i) in phases" :key="i">
        <rect :x="phase.begin" y="22" :width="phase.width" :height="LINE - 22" :fill="phase.fill" />
        <text v-if="phase.width > 78" :x="phase.begin + 8" y="52" font-size="14" fill="var(--ink)">
          {{ phaseWords[phase.kind] }}
        </text>
      </g>
      <rect
        :x="x(clock.asOf + 1)"
        y="22"
        :width="Math.max(0, W - 8 - x(clock.asOf + 1))"
        :height="LINE - 22"
        fill="var(--paper)"
        opacity="0.45"
      />
      <line x1="8" :x2="W - 8" :y1="LINE" :y2="LINE" stroke="var(--soil-deep)" stroke-width="3" />
      <g v-for="bar in bars" :key="bar.until">
        <rect :x="bar.x" :y="LINE + 2" :width="bar.width" :height="bar.height" fill="var(--root-mid)" />
        <title>{{ surely(bar.chance) }}</title>
      </g>
      <g v-if="Number.isFinite(clock.ready.p50)">
        <rect
          :x="x(clock.ready.p10)"
          y="14"
          :width="Math.max(2, x(clock.ready.p90) - x(clock.ready.p10))"
          height="6"
          fill="var(--ink)"
          opacity="0.35"
        />
        <path :d="`M${x(clock.ready.p50)} 20v${LINE - 20}`" stroke="var(--ink)" stroke-width="2.5" />
        <text
          :x="Math.min(W - 44, Math.max(30, x(clock.ready.p50)))"
          y="11"
          font-size="13"
          text-anchor="middle"
          fill="var(--ink)"
        >
          {{ say`ready` }}
        </text>
      </g>
      <line
        :x1="x(clock.asOf)"
        :x2="x(clock.asOf)"
        y1="22"
        :y2="LINE + BAR + 4"
        stroke="var(--ink)"
        stroke-width="1.5"
        stroke-dasharray="3 3"
      />
      <g fill="var(--muted)" font-size="13">
        <text v-for="tick in ticks" :key="tick.day" :x="x(tick.day)" :y="H - 8" text-anchor="middle">
          {{ tick.words }}
        </text>
        <text :x="8" :y="LINE + BAR + 14">
          {{ say`chance of first radicles, week by week, growing down` }}
        </text>
      </g>
    </svg>
  </figure>
</template>
