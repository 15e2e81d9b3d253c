<script setup lang="ts">
import { facesOf, growingMonths, inLeaf, shadows, sunAt, say, speech, decimals } from '@kauri/core';
import { useIntervalFn, useSessionStorage } from '@vueuse/core';
import { Pause, Play } from 'lucide-vue-next';
import { computed } from 'vue';
import PlantTag from '../../../parts/PlantTag.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSeason } from '../../../stores/season';
import { useYard } from '../../../stores/yard';
import { longDate, monthName } from '../../../words/dates';
import { percent } from '../../../words/numbers';
import PlanView from '../plan/PlanView.vue';
import { usePlaces } from '../usePlaces';
import { useLight } from './useLight';
import { keptKey } from '../../../stores/kept';

const { show } = usePreferences();

const nursery = useNursery();
const yard = useYard();
const season = useSeason();
const { places } = usePlaces();
const chosenId = useSessionStorage<string | null>(keptKey('light.place'), null);
const chosen = computed(() => places.value.find((p) => p.place.id === chosenId.value) ?? places.value[0]);
const id = computed(() => chosen.value?.place.id ?? null);
const { light, chosen: detail, best, looking, findBest } = useLight(places, id);

/** Clock of the sun: hours after the sun's own midnight, which a shadow follows better than any time zone. */
const hour = useSessionStorage(keptKey('light.hour'), 12);
const where = computed(() => nursery.catalogue!.nursery);
const sun = computed(() => {
  const { latitudeDeg, longitudeDeg } = where.value;
  const ms = (season.view + hour.value / 24 - longitudeDeg / 360) * 86_400_000;
  return { ms, ...sunAt(ms, latitudeDeg, longitudeDeg) };
});
const clock = computed(() =>
  new Intl.DateTimeFormat(speech().tag, {
    hour: '2-digit',
    minute: '2-digit',
    timeZone: where.value.timeZone,
  }).format(new Date(sun.value.ms)),
);
const shade = computed(() => {
  const { azimuth, altitude } = sun.value;
  if (altitude <= 0.5) return [];
  const turn = (azimuth * Math.PI) / 180;
  return shadows(facesOf(yard.elements, inLeaf(season.view, where.value.latitudeDeg)), {
    east: Math.sin(turn),
    north: Math.cos(turn),
    tanAltitude: Math.tan((altitude * Math.PI) / 180),
  });
});
const { isActive, pause, resume } = useIntervalFn(
  () => {
    hour.value = hour.value >= 22 ? 3 : Math.round((hour.value + 0.1) * 10) / 10;
  },
  90,
  { immediate: false },
);

const grow = computed(() => growingMonths(where.value.latitudeDeg));
const rows = computed(() =>
  places.value
    .filter((p) => light.value.has(p.place.id))
    .map((p) => {
      const l = light.value.get(p.place.id)!;
      // Of what its own cover would let through: a shade tunnel is no loss of the plan's.
      const share = (m: number) => (l.openHours[m] > 0 ? l.hours[m] / (l.openHours[m] * l.cover) : 0);
      const mean = grow.value.reduce((t, m) => t + l.hours[m], 0) / grow.value.length;
      // The first month of the season's second half in which less than half of the open sun is left.
      const late = grow.value.slice(3).find((m) => share(m) < 0.5);
      return { id: p.place.id, name: p.place.place.name, hours: l.hours, share, mean, sky: l.sky, late };
    })
    .sort((a, b) => a.mean - b.mean),
);
const losers = computed(() => rows.value.filter((row) => row.late !== undefined));
const decision = computed(() => {
  const row = rows.value.find((r) => r.id === id.value);
  const worst = detail.value?.losses[0];
  if (!row) return null;
  if (!worst)
    return {
      headline: say`${row.name} has open sun all season`,
      detail: say`Nothing on the plan stands in its light.`,
      urgent: false,
    };
  const month = grow.value.reduce((a, b) => (worst.lost[b] > worst.lost[a] ? b : a));
  return {
    headline: say`${worst.name} takes ${worst.lost[month].toFixed(1)} h a day from ${row.name} in ${monthName(month)}`,
    detail:
      row.late === undefined
        ? say`It keeps ${row.mean.toFixed(1)} h a day over the season.`
        : say`From ${monthName(row.late)} on less than half of the open sun is left: sow slow lots or those that want shade here.`,
    urgent: false,
  };
});
/** Shade of a cell: how much of the open sun is left, in four steps that print. */
const step = (share: number) => (share > 0.85 ? '' : share > 0.65 ? 's1' : share > 0.45 ? 's2' : 's3');
const notes = computed(() => new Map(rows.value.map((r) => [r.id, say`${r.mean.toFixed(1)} h`])));
const marks = computed(() =>
  (best.value ?? []).slice(0, 1).map((b) => ({ point: b.middle, words: say`${b.hours.toFixed(1)} h` })),
);
</script>

<template>
  <div class="grid lg:h-full lg:grid-cols-[1fr_30rem]">
    <div class="flex min-h-80 min-w-0 flex-col">
      <PlanView
        class="min-h-72 flex-1"
        :places="places"
        :elements="yard.elements"
        :chosen="id ? [id] : []"
        :shade="shade"
        :notes="notes"
        :marks="marks"
        @choose="chosenId = $event"
      />
      <div class="border-rule flex flex-wrap items-center gap-3 border-t px-4 py-2">
        <button
          class="act px-3"
          type="button"
          :aria-label="isActive ? say`Stop` : say`Run through the day`"
          @click="isActive ? pause() : resume()"
        >
          <Pause v-if="isActive" :size="20" aria-hidden="true" />
          <Play v-else :size="20" aria-hidden="true" />
        </button>
        <label class="flex min-w-56 flex-1 items-center gap-3">
          <span class="whitespace-nowrap">{{ longDate(season.view) }}, {{ clock }}</span>
          <input
            v-model.number="hour"
            class="min-h-11 w-full"
            type="range"
            min="3"
            max="22"
            step="0.1"
            :aria-label="say`Hour of the day`"
            :aria-valuetext="clock"
          />
        </label>
        <span class="text-muted" data-testid="sun">
          {{ sun.altitude > 0 ? say`sun ${sun.altitude.toFixed(0)}° up` : say`sun down` }}
        </span>
      </div>
    </div>
    <div class="border-rule min-w-0 space-y-4 p-4 lg:overflow-y-auto lg:border-l">
      <p v-if="!places.length">
        {{
          say`Light is worked out for beds and benches on the plan. Add them, and what shades them, on the site plan.`
        }}
      </p>
      <template v-else>
        <PlantTag
          v-if="decision"
          :headline="decision.headline"
          :detail="decision.detail"
          :urgent="decision.urgent"
        />
        <p v-if="losers.length" data-testid="losers">
          <b>{{ say`Lose half their sun late in the season:` }}</b>
          {{ losers.map((l) => say`${l.name} from ${monthName(l.late!)}`).join(', ') }}.
        </p>
        <p v-else class="text-muted">{{ say`No place loses half its sun before the season ends.` }}</p>
        <section aria-labelledby="sun-hours">
          <h2 id="sun-hours" class="text-lg">{{ say`Hours of direct sun a day, clear sky, mid-month` }}</h2>
          <div class="overflow-x-auto" tabindex="0" role="group" :aria-label="say`Table`">
            <table class="w-full text-[0.9rem]" data-testid="sun-table">
              <thead class="text-muted">
                <tr>
                  <th scope="col" class="text-left font-normal">{{ say`Place` }}</th>
                  <th v-for="m in grow" :key="m" scope="col" class="px-1 text-right font-normal">
                    {{ monthName(m) }}
                  </th>
                  <th scope="col" class="px-1 text-right font-normal">{{ say`Sky` }}</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="row in rows" :key="row.id" class="border-rule border-t">
                  <th scope="row" class="text-left">
                    <button
                      class="min-h-8 text-left underline-offset-4"
                      :class="row.id === id ? 'font-bold underline' : 'font-normal hover:underline'"
                      type="button"
                      @click="chosenId = row.id"
                    >
                      {{ row.name }}
                    </button>
                  </th>
                  <td v-for="m in grow" :key="m" class="px-1 text-right" :class="step(row.share(m))">
                    {{ decimals(row.hours[m].toFixed(1)) }}
                  </td>
                  <td class="px-1 text-right">{{ percent(row.sky) }}</td>
                </tr>
              </tbody>
            </table>
          </div>
          <p class="text-muted mt-1 text-sm">
            {{
              say`Darker cells have less of the open sun left: under 85, 65 and 45 %. Sky is the share of an evenly bright sky in sight.`
            }}
          </p>
        </section>
        <!-- Once the table above stands, so that nothing moves under the hand. -->
        <section v-if="detail && rows.length" aria-labelledby="takes">
          <h2 id="takes" class="text-lg">{{ say`What takes light from ${chosen?.place.place.name}` }}</h2>
          <p>
            {{
              say`On ${longDate(season.view)} ${detail.today.value.hours.toFixed(1)} h of ${detail.today.value.openHours.toFixed(1)} h.`
            }}
          </p>
          <ul v-if="detail.losses.length">
            <li v-for="loss in detail.losses" :key="loss.elementId">
              {{ loss.name }}:
              {{ grow.map((m) => say`${monthName(m)} ${loss.lost[m].toFixed(1)} h`).join(', ') }}
            </li>
          </ul>
          <p v-else class="text-muted">{{ say`Nothing on the plan.` }}</p>
          <ShowWorking :steps="detail.today.working" />
        </section>
        <section aria-labelledby="best">
          <h2 id="best" class="text-lg">{{ say`Where a new bed has most light` }}</h2>
          <button class="act" type="button" :disabled="looking" @click="findBest(3, 1.2)">
            {{
              looking ? say`Looking …` : say`Find free ground for ${show(3, 'site')} × ${show(1.2, 'site')}`
            }}
          </button>
          <template v-if="best">
            <p v-if="best.length" class="mt-1" data-testid="best-spot">
              {{
                say`Middle at ${show(best[0].middle[0], 'site')} east, ${show(best[0].middle[1], 'site')} north: ${best[0].hours.toFixed(1)} h a day over the season. Marked on the plan.`
              }}
            </p>
            <p v-else class="mt-1">
              {{
                yard.elements.some((e) => e.kind === 'outline')
                  ? say`No free ground takes it with a barrow path around.`
                  : say`Draw the outline of the site first.`
              }}
            </p>
          </template>
        </section>
      </template>
    </div>
  </div>
</template>

<style scoped>
.s1 {
  background: color-mix(in srgb, var(--ink) 10%, transparent);
}
.s2 {
  background: color-mix(in srgb, var(--ink) 20%, transparent);
}
.s3 {
  background: color-mix(in srgb, var(--ink) 32%, transparent);
  font-weight: 700;
}
</style>
