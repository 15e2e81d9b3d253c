<script setup lang="ts">
import { zonesFor } from '@kauri/core';
import type { Drip, WaterPlan } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { computed, onMounted, reactive, ref, watch } from 'vue';
import FormField from '../../../parts/FormField.vue';
import PlantTag from '../../../parts/PlantTag.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { typedNumber } from '../../../parts/typed';
import { call } from '../../../api/client';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSession } from '../../../stores/session';
import { shortDate } from '../../../words/dates';
import { count, percent, several } from '../../../words/numbers';
import DripDrawing from './DripDrawing.vue';
import { faultWords, usualDrip, useWatering, type WateredPlace } from './useWatering';

const nursery = useNursery();
const session = useSession();
const { show, unit, shown, typed } = usePreferences();
const w = useWatering();
const { places, plan, supply, all, good, zones, watering, busy, fault, faults } = w;
const may = computed(() => session.may('grower'));
onMounted(() => void w.load());

const chosenId = ref<string | null>(null);
const chosen = computed(() => all.value.find((x) => x.drip.placeId === chosenId.value) ?? all.value[0]);
const chosenGood = computed(() =>
  chosen.value && 'grid' in chosen.value ? (chosen.value as WateredPlace) : null,
);
const dry = computed(() =>
  places.value.filter(
    (p) => p.place.place.kind !== 'bay' && !plan.value?.drips.some((d) => d.placeId === p.place.id),
  ),
);

const supplyForm = reactive({ litres: '', seconds: '', pressure: '', dryDown: '' });
watch(
  plan,
  (now) => {
    if (!now) return;
    supplyForm.litres = String(Number(shown(now.bucketLitres, 'volume').toFixed(2)));
    supplyForm.seconds = String(now.bucketSeconds);
    supplyForm.pressure = String(Number(shown(now.pressureM, 'site').toFixed(2)));
    supplyForm.dryDown = String(Math.round(now.dryDown * 100));
  },
  { immediate: true },
);
function keepSupply() {
  void w.keep({
    ...plan.value!,
    bucketLitres: typed(typedNumber(supplyForm.litres), 'volume'),
    bucketSeconds: typedNumber(supplyForm.seconds),
    pressureM: typed(typedNumber(supplyForm.pressure), 'site'),
    dryDown: typedNumber(supplyForm.dryDown) / 100,
  });
}
const form = reactive({
  line: '',
  spacing: '',
  flow: '',
  diameter: '',
  pressure: '',
  cover: '',
  rain: '',
  looped: false,
});
watch(
  () => chosen.value?.drip,
  (d) => {
    if (!d) return;
    const mm = (x: number) => String(Number(shown(x, 'timber').toFixed(2)));
    Object.assign(form, {
      line: mm(d.lineSpacingMm),
      spacing: mm(d.emitterSpacingMm),
      flow: String(d.emitterFlowLph),
      diameter: mm(d.insideDiameterMm),
      pressure: String(Number(shown(d.nominalPressureM, 'site').toFixed(2))),
      cover: String(Math.round(d.canopyCover * 100)),
      rain: String(Math.round(d.rainShare * 100)),
      looped: !!d.looped,
    });
  },
  { immediate: true },
);
function keepDrip(everywhere = false) {
  const mm = (text: string) => typed(typedNumber(text), 'timber');
  const change = {
    lineSpacingMm: mm(form.line),
    emitterSpacingMm: mm(form.spacing),
    emitterFlowLph: typedNumber(form.flow),
    insideDiameterMm: mm(form.diameter),
    nominalPressureM: typed(typedNumber(form.pressure), 'site'),
    canopyCover: typedNumber(form.cover) / 100,
    rainShare: typedNumber(form.rain) / 100,
    looped: form.looped,
  };
  const kind = chosen.value!.shown.place.place.kind;
  const kindOf = (d: Drip) => nursery.lookup.places.get(d.placeId)?.place.kind;
  void w.keep({
    ...plan.value!,
    drips: plan.value!.drips.map((d) =>
      d.placeId === chosen.value!.drip.placeId || (everywhere && kindOf(d) === kind)
        ? { ...d, ...change }
        : d,
    ),
  });
}
const laying = ref('');
async function lay() {
  const id = laying.value;
  laying.value = '';
  if (!id) return;
  const ids =
    id === 'all' ? dry.value.filter((p) => p.place.place.kind === 'bed').map((p) => p.place.id) : [id];
  if (await w.keep({ ...plan.value!, drips: [...plan.value!.drips, ...ids.map(usualDrip)] }))
    chosenId.value = ids[0];
}
function takeUp() {
  const id = chosen.value!.drip.placeId;
  void w.keep({
    ...plan.value!,
    drips: plan.value!.drips.filter((d) => d.placeId !== id),
    zones: plan.value!.zones.map((z) => ({ ...z, placeIds: z.placeIds.filter((p) => p !== id) })),
  } satisfies WaterPlan);
}
const zoneFault = ref<string | null>(null);
/** Zones anew from what each bed draws, so that none exceeds the tap. */
function makeZones() {
  zoneFault.value = null;
  try {
    const made = zonesFor(
      good.value.map((x) => ({ placeId: x.drip.placeId, flowLph: w.flowOf(x) })),
      supply.value!.value,
      (id) => nursery.lookup.places.get(id)?.place.name ?? id,
    );
    void w.keep({
      ...plan.value!,
      zones: made.map((z, i) => ({ id: newId(), name: `Zone ${i + 1}`, placeIds: z.placeIds })),
    });
  } catch (error) {
    zoneFault.value = (error as Error).message;
  }
}
const over = computed(() => zones.value.filter((z) => z.over));
const unzoned = computed(() =>
  good.value.filter((x) => !zones.value.some((z) => z.zone.placeIds.includes(x.drip.placeId))),
);
const decision = computed(() => {
  const silent = [...faults.value][0];
  if (silent)
    return {
      headline: `${nursery.lookup.places.get(silent[0])?.place.name}: ${faultWords[silent[1]].what}`,
      detail: `${faultWords[silent[1]].check}, then read the controller again.`,
      urgent: true,
    };
  if (over.value.length)
    return {
      headline: `${over.value[0].zone.name} draws more than the tap gives`,
      detail: `It needs ${count(over.value[0].flowLph)} L/h. Make the zones anew.`,
      urgent: true,
    };
  if (unzoned.value.length && zones.value.length)
    return {
      headline: `${unzoned.value[0].shown.place.place.name} is in no zone`,
      detail: 'Make the zones anew.',
      urgent: true,
    };
  const next = zones.value.filter((z) => z.run.value.minutes > 0);
  if (!zones.value.length)
    return {
      headline: 'Lay drip, then make zones',
      detail: 'Each zone runs on its own valve within what the tap gives.',
      urgent: false,
    };
  return next.length
    ? {
        headline: `This week: ${next.map((z) => `${z.zone.name} ${z.run.value.minutes} min every ${several(z.run.value.everyDays, 'day')}`).join('; ')}`,
        detail: 'From past years’ evaporation and rain for this week, watered at the dry-down.',
        urgent: false,
      }
    : {
        headline: 'No watering this week',
        detail: 'In past years rain was enough in this week.',
        urgent: false,
      };
});
const readings = computed(() =>
  (watering.value?.readings ?? []).filter((r) => r.placeId === chosen.value?.drip.placeId).slice(-21),
);
const litres = computed(() => (watering.value?.readings ?? []).reduce((t, r) => t + (r.litres ?? 0), 0));
const failing = reactive({
  place: '',
  fault: 'none' as 'none' | 'stuck-closed' | 'stuck-open' | 'dead-probe' | 'no-supply',
});
async function fail() {
  await call('failStandIn', {
    params: nursery.params,
    body: { placeId: failing.place || null, fault: failing.fault },
  });
  await w.read();
}
const lineBad = (x: WateredPlace) => x.line.emissionUniformityPct < 85;
/** Weeks to show in the programme: every fourth keeps the table narrow. */
const weeks = computed(
  () => good.value[0]?.plan?.weeks.map((x) => x.monday).filter((_, i) => i % 4 === 0) ?? [],
);
</script>

<template>
  <div v-if="plan && supply" class="grid min-h-full lg:grid-cols-[22rem_1fr]">
    <div class="border-rule order-last space-y-4 p-4 lg:order-first lg:border-r">
      <section aria-labelledby="supply">
        <h2 id="supply" class="text-lg">The tap</h2>
        <form class="grid grid-cols-2 gap-2" novalidate @submit.prevent="keepSupply">
          <FormField v-model="supplyForm.litres" label="Bucket" :unit="unit('volume')" inputmode="decimal" />
          <FormField v-model="supplyForm.seconds" label="Filled in" unit="s" inputmode="decimal" />
          <FormField
            v-model="supplyForm.pressure"
            label="Pressure, head"
            :unit="unit('site')"
            inputmode="decimal"
          />
          <FormField v-model="supplyForm.dryDown" label="Dry down to lose" unit="%" inputmode="decimal" />
          <button v-if="may" class="act col-span-2 justify-self-start" type="submit" :disabled="busy">
            Keep
          </button>
        </form>
        <p class="mt-1" data-testid="supply">
          Gives <b>{{ count(supply.value) }} L/h</b>; a zone may draw {{ count(supply.value * 0.85) }} of it.
        </p>
        <ShowWorking :steps="supply.working" />
        <p class="border-ink text-muted mt-2 border-l-4 pl-3 text-sm">
          Backflow prevention between a bed or feed and drinking water, as the local code asks. Electric
          timers and pumps on protected circuits, by a licensed electrician.
        </p>
      </section>
      <section aria-labelledby="drips">
        <h2 id="drips" class="text-lg">Drip laid</h2>
        <div v-if="may && dry.length" class="mb-2 flex gap-2">
          <select v-model="laying" class="field" aria-label="Lay drip on">
            <option value="">Lay drip on …</option>
            <option v-if="dry.some((p) => p.place.place.kind === 'bed')" value="all">
              Every bed without
            </option>
            <option v-for="p in dry" :key="p.place.id" :value="p.place.id">{{ p.place.place.name }}</option>
          </select>
          <button class="act" type="button" :disabled="busy || !laying" @click="lay">Lay</button>
        </div>
        <p v-if="!all.length" class="text-muted">
          None yet. Choose a bed: Kauri lays lines on it and says what they need.
        </p>
        <ul class="divide-rule divide-y" data-testid="drips">
          <li v-for="x in all" :key="x.drip.placeId">
            <button
              class="block min-h-11 w-full py-1 text-left"
              :class="x === chosen ? 'font-bold' : ''"
              type="button"
              :aria-current="x === chosen ? 'true' : undefined"
              @click="chosenId = x.drip.placeId"
            >
              <span class="flex justify-between gap-2">
                <span>{{ x.shown.place.place.name }}</span>
                <span v-if="'grid' in x" class="font-normal">{{ count(w.flowOf(x)) }} L/h</span>
              </span>
              <span class="text-muted block text-sm font-normal">
                <template v-if="faults.get(x.drip.placeId)"
                  >⚠ {{ faultWords[faults.get(x.drip.placeId)!].what }}</template
                >
                <template v-else-if="'grid' in x">
                  {{ zones.find((z) => z.zone.placeIds.includes(x.drip.placeId))?.zone.name ?? 'no zone' }};
                  <template v-if="x.plan && x.plan.rainOnlyShare >= 0.9">lives on rain</template>
                  <template v-else-if="x.plan"
                    >no watering needed for
                    {{ x.plan.firstNeedDays < 190 ? several(x.plan.firstNeedDays, 'day') : 'the season' }}
                    from full</template
                  >
                </template>
                <template v-else>⚠ {{ x.fault }}</template>
              </span>
            </button>
          </li>
        </ul>
      </section>
    </div>
    <div class="min-w-0 space-y-5 p-4">
      <PlantTag :headline="decision.headline" :detail="decision.detail" :urgent="decision.urgent" />
      <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
      <div v-if="chosen" class="grid gap-5 xl:grid-cols-2">
        <section aria-labelledby="drip-of">
          <h2 id="drip-of" class="text-lg">Drip on {{ chosen.shown.place.place.name }}</h2>
          <DripDrawing v-if="chosenGood" :watered="chosenGood" />
          <p v-else class="panel p-3" role="status">{{ chosen.fault }}</p>
          <form class="mt-2 grid grid-cols-3 gap-2" novalidate @submit.prevent="keepDrip()">
            <FormField v-model="form.line" label="Lines apart" :unit="unit('timber')" inputmode="decimal" />
            <FormField
              v-model="form.spacing"
              label="Emitters apart"
              :unit="unit('timber')"
              inputmode="decimal"
            />
            <FormField v-model="form.flow" label="Each gives" unit="L/h" inputmode="decimal" />
            <FormField
              v-model="form.diameter"
              label="Pipe inside"
              :unit="unit('timber')"
              inputmode="decimal"
            />
            <FormField v-model="form.pressure" label="Rated at" :unit="unit('site')" inputmode="decimal" />
            <FormField v-model="form.cover" label="Leaf cover" unit="%" inputmode="decimal" />
            <FormField v-model="form.rain" label="Rain reaching" unit="%" inputmode="decimal" />
            <label class="col-span-2 flex min-h-11 items-center gap-2 self-end"
              ><input v-model="form.looped" type="checkbox" class="size-5" /> Ends joined to a loop</label
            >
            <div v-if="may" class="col-span-3 flex flex-wrap gap-2">
              <button class="act" type="submit" :disabled="busy">Keep</button>
              <button class="act" type="button" :disabled="busy" @click="keepDrip(true)">
                Keep for all of its kind
              </button>
              <button class="act" type="button" :disabled="busy" @click="takeUp">Take the drip up</button>
            </div>
          </form>
        </section>
        <section v-if="chosenGood" aria-labelledby="drip-figures">
          <h2 id="drip-figures" class="text-lg">What it does</h2>
          <dl class="text-[0.95rem]" data-testid="drip-figures">
            <div class="border-rule flex justify-between border-b py-1">
              <dt class="text-muted">Flow of the bed</dt>
              <dd class="text-right">
                <b>{{ count(w.flowOf(chosenGood)) }} L/h</b>
              </dd>
            </div>
            <div class="border-rule flex justify-between border-b py-1">
              <dt class="text-muted">Application rate</dt>
              <dd>
                <b>{{ chosenGood.bucket.applicationMmPerH.toFixed(1) }} mm/h</b>
              </dd>
            </div>
            <div class="border-rule flex justify-between border-b py-1">
              <dt class="text-muted">Evenness along a line (EU)</dt>
              <dd class="text-right">
                <b>{{ chosenGood.line.emissionUniformityPct.toFixed(0) }} %</b>
                <span class="block">{{
                  lineBad(chosenGood) ? '⚠ under 85 %: shorter lines or a wider pipe' : 'even'
                }}</span>
              </dd>
            </div>
            <div class="border-rule flex justify-between border-b py-1">
              <dt class="text-muted">Longest line that stays even</dt>
              <dd class="text-right">
                <b>{{ show((chosenGood.longest * chosenGood.drip.emitterSpacingMm) / 1000, 'site') }}</b>
                <span class="block">{{ several(chosenGood.longest, 'emitter') }}</span>
              </dd>
            </div>
            <div class="border-rule flex justify-between border-b py-1">
              <dt class="text-muted">Water held for plants</dt>
              <dd>
                <b>{{ chosenGood.heldMm.toFixed(0) }} mm</b>
              </dd>
            </div>
            <div class="border-rule flex justify-between border-b py-1">
              <dt class="text-muted">Run that fills it at dry-down</dt>
              <dd>
                <b>{{ chosenGood.runMinutes.toFixed(0) }} min</b>
              </dd>
            </div>
            <div v-if="chosenGood.plan" class="border-rule flex justify-between border-b py-1">
              <dt class="text-muted">On rain alone, next 28 weeks</dt>
              <dd class="text-right">
                <b>enough in {{ percent(chosenGood.plan.rainOnlyShare) }} of years</b>
                <span class="block">wholly dry in {{ percent(chosenGood.plan.rainOnlyDries) }}</span>
              </dd>
            </div>
            <div class="border-rule flex justify-between border-b py-1">
              <dt class="text-muted">Parts</dt>
              <dd class="text-right">
                {{ show(chosenGood.parts.lineM, 'site') }} of line,
                {{ show(chosenGood.parts.manifoldM, 'site') }} of manifold,
                {{ several(chosenGood.parts.emitters, 'emitter') }},
                {{ several(chosenGood.parts.connectors, 'connector') }},
                {{ several(chosenGood.parts.endPlugs, 'end plug') }}
              </dd>
            </div>
          </dl>
          <ShowWorking :steps="chosenGood.working" />
        </section>
      </div>
      <section aria-labelledby="zones">
        <h2 id="zones" class="text-lg">Zones and the timer’s programme</h2>
        <p v-if="zoneFault" class="text-wrong font-bold" role="alert">{{ zoneFault }}</p>
        <div v-if="zones.length" class="overflow-x-auto">
          <table class="w-full text-[0.9rem]" data-testid="zones">
            <thead class="text-muted text-left">
              <tr>
                <th scope="col" class="font-normal">Zone</th>
                <th scope="col" class="font-normal">Places</th>
                <th scope="col" class="text-right font-normal">L/h</th>
                <th
                  v-for="m in weeks"
                  :key="m"
                  scope="col"
                  class="px-1 text-right font-normal whitespace-nowrap"
                >
                  {{ shortDate(m) }}
                </th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="z in zones" :key="z.zone.id" class="border-rule border-t align-top">
                <th scope="row" class="py-1 pr-2 text-left whitespace-nowrap">{{ z.zone.name }}</th>
                <td class="min-w-40">{{ z.members.map((m) => m.shown.place.place.name).join(', ') }}</td>
                <td class="text-right" :class="z.over ? 'font-bold' : ''">
                  {{ z.over ? '⚠ ' : '' }}{{ count(z.flowLph) }}
                </td>
                <td v-for="(m, i) in weeks" :key="m" class="px-1 text-right whitespace-nowrap">
                  <template v-if="z.byWeek[i * 4].minutes"
                    >{{ z.byWeek[i * 4].minutes }}′ / {{ z.byWeek[i * 4].everyDays }} d</template
                  >
                  <template v-else>rain</template>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="zones.length" class="text-muted text-sm">
          Minutes a run, and days between runs, from the week of each Monday.
        </p>
        <div v-if="may" class="mt-2 flex flex-wrap gap-2">
          <button class="act" type="button" :disabled="busy || !good.length" @click="makeZones">
            Make zones within the tap
          </button>
          <button
            class="act-main"
            type="button"
            :disabled="busy || !zones.length || over.length > 0"
            @click="w.send()"
          >
            Send this week’s programme
          </button>
        </div>
        <ShowWorking
          v-if="zones.length"
          :steps="
            zones.flatMap((z) =>
              z.run.working.map((s) => ({ ...s, what: `${z.zone.name}: ${s.what.toLowerCase()}` })),
            )
          "
        />
      </section>
      <section aria-labelledby="controller">
        <h2 id="controller" class="text-lg">What the controller reports</h2>
        <div class="flex flex-wrap items-center gap-3">
          <button
            v-if="session.may('crew')"
            class="act"
            type="button"
            :disabled="busy || !watering?.programme"
            @click="w.read()"
          >
            Read it now
          </button>
          <span v-if="watering?.programme" class="text-muted" data-testid="controller">
            Programme sent {{ watering.programme.from }}; {{ count(litres) }} L since.
          </span>
          <span v-else class="text-muted">No programme sent yet.</span>
        </div>
        <ul v-if="faults.size" class="mt-1" data-testid="water-faults">
          <li v-for="[id, what] in faults" :key="id">
            <b>{{ nursery.lookup.places.get(id)?.place.name }}</b>: {{ faultWords[what].what }}.
            {{ faultWords[what].check }}.
          </li>
        </ul>
        <div v-if="readings.length" class="mt-2 overflow-x-auto">
          <table class="text-[0.9rem]" data-testid="readings">
            <caption class="text-muted text-left">
              {{
                chosen?.shown.place.place.name
              }}, last readings
            </caption>
            <thead class="text-muted">
              <tr>
                <th scope="col" class="pr-4 text-left font-normal">Day</th>
                <th scope="col" class="pr-4 text-right font-normal">Asked, L</th>
                <th scope="col" class="pr-4 text-right font-normal">Given, L</th>
                <th scope="col" class="pr-4 text-right font-normal">Moisture before</th>
                <th scope="col" class="text-right font-normal">after</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="r in readings.slice(-8)" :key="r.day" class="border-rule border-t">
                <td class="pr-4">{{ r.day }}</td>
                <td class="pr-4 text-right">{{ r.askedLitres.toFixed(0) }}</td>
                <td class="pr-4 text-right">{{ r.litres === null ? 'no reading' : r.litres.toFixed(0) }}</td>
                <td class="pr-4 text-right">{{ r.before === null ? 'no reading' : percent(r.before) }}</td>
                <td class="text-right">{{ r.after === null ? 'no reading' : percent(r.after) }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <details v-if="may && watering?.programme" class="mt-2">
          <summary class="quiet">Try a failure</summary>
          <p class="text-muted text-sm">
            The controller that ships with Kauri is a simulated one. Make it fail, and see whether Kauri
            notices.
          </p>
          <div class="mt-1 flex flex-wrap gap-2">
            <select v-model="failing.place" class="field w-auto" aria-label="Where it fails">
              <option value="">Everywhere</option>
              <option v-for="x in good" :key="x.drip.placeId" :value="x.drip.placeId">
                {{ x.shown.place.place.name }}
              </option>
            </select>
            <select v-model="failing.fault" class="field w-auto" aria-label="What fails">
              <option value="none">Nothing: mend it</option>
              <option value="stuck-closed">Valve stuck closed</option>
              <option value="stuck-open">Valve stuck open</option>
              <option value="dead-probe">Probe dead</option>
              <option value="no-supply">No supply</option>
            </select>
            <button class="act" type="button" :disabled="busy" @click="fail">Fail and read</button>
          </div>
        </details>
      </section>
    </div>
  </div>
</template>
