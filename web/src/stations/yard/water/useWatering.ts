import {
  bucketTest,
  dayOf,
  mondayOf,
  USABLE_SUPPLY,
  waterFault,
  waterYears,
  zoneRun,
  type WaterFault,
  say,
  inWords,
} from '@kauri/core';
import type { KeptWater, Programme, Watering, WaterPlan } from '@kauri/core/contract';
import { computed, ref, shallowRef } from 'vue';
import { call } from '../../../api/client';
import { ProblemError, sentenceOf } from '../../../api/problem';
import { useMessages } from '../../../stores/messages';
import { useNursery } from '../../../stores/nursery';
import { useSeason } from '../../../stores/season';
import { useYard } from '../../../stores/yard';
import { usePlaces } from '../usePlaces';
import { flowOf, wateredPlace, type WaterBasis, type WateredPlace } from './wateredPlace';

/** Everything the water screens share. */
export type WaterDesk = ReturnType<typeof useWatering>;

/** Weeks a season's programme is drawn for. */
const SEASON_WEEKS = 28;

export function useWatering() {
  const nursery = useNursery();
  const season = useSeason();
  const yard = useYard();
  const messages = useMessages();
  const { places } = usePlaces();
  const watering = shallowRef<Watering | null>(null);
  const busy = ref(false);
  const fault = ref<string | null>(null);

  const plan = computed<WaterPlan | null>(() => yard.water?.plan ?? null);
  const supply = computed(() => {
    if (!plan.value) return null;
    return bucketTest(plan.value.bucketLitres, plan.value.bucketSeconds);
  });
  const monday = computed(() => mondayOf(season.view));
  const years = computed(() => {
    const { latitudeDeg, elevationM } = nursery.catalogue!.nursery;
    return waterYears(nursery.series, { latitudeDeg, elevationM }, monday.value, SEASON_WEEKS * 7);
  });

  const basis = computed<WaterBasis>(() => ({
    plan: plan.value!,
    years: years.value,
    from: monday.value,
    lookup: nursery.lookup,
  }));
  const all = computed(() =>
    (plan.value?.drips ?? []).flatMap((drip) => {
      const shown = places.value.find((p) => p.place.id === drip.placeId);
      return shown ? [wateredPlace(shown, drip, basis.value)] : [];
    }),
  );
  const good = computed(() => all.value.filter((w): w is WateredPlace => 'grid' in w));

  const zones = computed(() =>
    (plan.value?.zones ?? []).map((zone) => {
      const members = good.value.filter((w) => zone.placeIds.includes(w.drip.placeId));
      const flowLph = members.reduce((t, w) => t + flowOf(w), 0);
      const thirst = members.map((w) => ({
        name: w.shown.place.place.name,
        everyDays: w.plan?.weeks[0]?.everyDays ?? Infinity,
        runMinutes: w.runMinutes,
      }));
      const byWeek = Array.from(
        { length: SEASON_WEEKS },
        (_, i) =>
          zoneRun(
            members.map((w) => ({
              name: w.shown.place.place.name,
              everyDays: w.plan?.weeks[i]?.everyDays ?? Infinity,
              runMinutes: w.runMinutes,
            })),
          ).value,
      );
      return {
        zone,
        members,
        flowLph,
        over: supply.value !== null && flowLph > supply.value.value * USABLE_SUPPLY + 1e-6,
        run: zoneRun(thirst),
        byWeek,
      };
    }),
  );

  /** A water plan without places that were taken off the site plan meanwhile. */
  function stillStanding(next: WaterPlan): WaterPlan {
    const stands = (id: string) => nursery.lookup.places.has(id);
    return {
      ...next,
      drips: next.drips.filter((d) => stands(d.placeId)),
      zones: next.zones.map((z) => ({ ...z, placeIds: z.placeIds.filter(stands) })),
    };
  }

  /** Keeps a changed water plan. @returns whether it was taken */
  async function keep(next: WaterPlan): Promise<boolean> {
    busy.value = true;
    fault.value = null;
    try {
      const kept = await call('setWater', {
        params: nursery.params,
        body: { version: yard.water!.version, plan: stillStanding(next) },
      });
      yard.water = kept;
      messages.say(say`Water kept.`);
      return true;
    } catch (error) {
      fault.value = sentenceOf(error);
      if (error instanceof ProblemError && error.kind === 'stale-edit') {
        const current = error.problem.current as { version: number; value: WaterPlan };
        yard.water = { version: current.version, plan: current.value } as KeptWater;
      }
      return false;
    } finally {
      busy.value = false;
    }
  }

  async function take(work: () => Promise<Watering>) {
    busy.value = true;
    fault.value = null;
    try {
      watering.value = await work();
    } catch (error) {
      fault.value = sentenceOf(error);
    } finally {
      busy.value = false;
    }
  }
  const load = () => take(() => call('watering', { params: nursery.params }));
  const read = () => take(() => call('readController', { params: nursery.params }));
  function programme(): Programme {
    return {
      from: season.todayIso,
      zones: zones.value.map(({ zone, members, run }) => ({
        id: zone.id,
        name: zone.name,
        minutes: run.value.minutes,
        everyDays: run.value.everyDays,
        places: members.map((w) => ({
          placeId: w.drip.placeId,
          flowLph: flowOf(w),
          areaM2: (w.insideLengthMm * w.insideWidthMm) / 1e6,
          heldMm: Math.max(1, w.heldMm),
          cover: w.drip.canopyCover,
          rainShare: w.drip.rainShare,
        })),
      })),
    };
  }
  const send = () => take(() => call('sendProgramme', { params: nursery.params, body: programme() }));

  /** What the controller's last readings say is wrong, by place. */
  const faults = computed(() => {
    const found = new Map<string, WaterFault>();
    const rows = watering.value?.readings ?? [];
    const anyFlow = rows.some((r) => (r.litres ?? 0) > 0);
    const byPlace = new Map<string, typeof rows>();
    for (const row of rows) byPlace.set(row.placeId, [...(byPlace.get(row.placeId) ?? []), row]);
    for (const [placeId, readings] of byPlace) {
      // The last day asked and those after it: a weekly timer says nothing on the days between.
      const lastAsked = readings.map((r) => r.askedLitres > 0).lastIndexOf(true);
      const recent = readings.slice(Math.max(0, lastAsked)).slice(0, 3);
      const what = waterFault(
        [...recent, readings[readings.length - 1]].map((r) => ({ ...r, day: dayOf(r.day) })),
        anyFlow,
      );
      if (what) found.set(placeId, what);
    }
    return found;
  });
  return {
    places,
    plan,
    supply,
    all,
    good,
    zones,
    watering,
    busy,
    fault,
    faults,
    keep,
    load,
    read,
    send,
    years,
  };
}

export const faultWords: Record<WaterFault, { what: string; check: string }> = inWords(
  {
    'no-supply': { what: 'no water came anywhere', check: 'Check the tap and the main' },
    'stuck-closed': { what: 'it asked for water and got none', check: 'Check its valve' },
    'stuck-open': { what: 'water runs unasked', check: 'Its valve is stuck open: shut the tap' },
    'dead-probe': { what: 'its moisture probe says nothing', check: 'Check its cable' },
    'no-response': { what: 'water runs but the medium stays dry', check: 'Look for a split line' },
  },
  'what',
  'check',
);
