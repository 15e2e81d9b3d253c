import {
  bedGeometry,
  bucketHolds,
  bucketTest,
  containerVolume,
  dayOf,
  dripGrid,
  dripParts,
  heldShareOf,
  lateralUniformity,
  longestLateral,
  mondayOf,
  USABLE_SUPPLY,
  waterFault,
  waterPlan,
  waterYears,
  zoneRun,
  type Bucket,
  type DripGrid,
  type DripParts,
  type LateralFlow,
  type Step,
  type WaterFault,
  type WaterPlan as SeasonPlan,
} from '@kauri/core';
import type { Drip, KeptWater, Programme, Watering, WaterPlan } from '@kauri/core/contract';
import { computed, ref, shallowRef } from 'vue';
import { call } from '../../../api/client';
import { ProblemError, sentenceOf } from '../../../api/problem';
import { useMessages } from '../../../stores/messages';
import { useNursery } from '../../../stores/nursery';
import { useSeason } from '../../../stores/season';
import { useYard } from '../../../stores/yard';
import { usePlaces, type ShownPlace } from '../usePlaces';

/** A watered place with all that Kauri can say of its water. */
export interface WateredPlace {
  shown: ShownPlace;
  drip: Drip;
  insideLengthMm: number;
  insideWidthMm: number;
  grid: DripGrid;
  line: LateralFlow;
  longest: number;
  bucket: Bucket;
  runMinutes: number;
  heldMm: number;
  plan: SeasonPlan | null;
  parts: DripParts;
  working: Step[];
  fault: string | null;
}

/** A place with drip laid: watered, or with what is wrong with its drip. */
export type LaidDrip = WateredPlace | { shown: ShownPlace; drip: Drip; fault: string };
/** Everything the water screens share. */
export type WaterDesk = ReturnType<typeof useWatering>;

/** What a place draws while its zone runs, L/h. */
export function flowOf(w: WateredPlace): number {
  return w.line.totalFlowLph * w.grid.lines;
}

/** Weeks a season's programme is drawn for. */
const SEASON_WEEKS = 28;

/** The drip a place starts with. */
export function usualDrip(placeId: string): Drip {
  return {
    placeId,
    lineSpacingMm: 300,
    emitterSpacingMm: 300,
    emitterFlowLph: 1.6,
    nominalPressureM: 10,
    exponent: 0.5,
    insideDiameterMm: 10,
    manufacturingCv: 0.04,
    canopyCover: 0.8,
    rainShare: 0.9,
  };
}

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

  function watered(shown: ShownPlace, drip: Drip): LaidDrip {
    const body = shown.place.place;
    const medium = nursery.lookup.media.get(body.mediumId ?? '')?.values;
    const heldShare = medium ? heldShareOf(medium) : 0.25;
    try {
      let inside: { insideLengthMm: number; insideWidthMm: number; depthMm: number };
      if (body.kind === 'bed') {
        const g = bedGeometry(body.design, medium?.settling).value;
        inside = { ...g, depthMm: g.settledDepthMm };
      } else {
        // A bench is as deep as the medium of what stands on it would be, spread over its area.
        const stage = shown.lots[0]?.row.stage;
        const c =
          nursery.lookup.containers.get(stage?.containerTypeId ?? '') ?? nursery.catalogue!.containers[0];
        const litresPerM2 =
          ((containerVolume(c.values).value / 1000) * c.values.cellsPerTray) /
          ((c.values.trayLengthMm * c.values.trayWidthMm) / 1e6);
        inside = {
          insideLengthMm: body.design.lengthMm,
          insideWidthMm: body.design.widthMm,
          depthMm: litresPerM2,
        };
      }
      const grid = dripGrid({
        insideLengthMm: inside.insideLengthMm,
        insideWidthMm: inside.insideWidthMm,
        lineSpacingMm: drip.lineSpacingMm,
        emitterSpacingMm: drip.emitterSpacingMm,
        emitterFlowLph: drip.emitterFlowLph,
      });
      const lateral = {
        emitterSpacingM: drip.emitterSpacingMm / 1000,
        nominalFlowLph: drip.emitterFlowLph,
        nominalPressureM: drip.nominalPressureM,
        exponent: drip.exponent,
        insideDiameterMm: drip.insideDiameterMm,
        inletPressureM: plan.value!.pressureM,
        manufacturingCv: drip.manufacturingCv,
      };
      const line = lateralUniformity({ ...lateral, emitters: grid.value.emittersPerLine });
      const bucket: Bucket = {
        depthMm: inside.depthMm,
        heldShare,
        canopyCover: drip.canopyCover,
        dryDown: plan.value!.dryDown,
        rainShare: drip.rainShare,
        applicationMmPerH:
          (line.value.totalFlowLph * grid.value.lines) /
          ((inside.insideLengthMm * inside.insideWidthMm) / 1e6),
      };
      const holds = bucketHolds(bucket);
      const seasonPlan = years.value.length ? waterPlan(bucket, years.value, monday.value) : null;
      return {
        shown,
        drip,
        ...inside,
        grid: grid.value,
        line: line.value,
        longest: longestLateral(lateral),
        bucket,
        runMinutes: holds.value.runMinutes,
        heldMm: holds.value.heldMm,
        plan: seasonPlan?.value ?? null,
        parts: dripParts(
          inside.insideLengthMm,
          inside.insideWidthMm,
          grid.value.lines,
          grid.value.emitters,
          !!drip.looped,
        ),
        working: [...grid.working, ...line.working, ...(seasonPlan?.working ?? holds.working)],
        fault: null,
      };
    } catch (error) {
      return { shown, drip, fault: (error as Error).message };
    }
  }
  const all = computed(() =>
    (plan.value?.drips ?? []).flatMap((drip) => {
      const shown = places.value.find((p) => p.place.id === drip.placeId);
      return shown ? [watered(shown, drip)] : [];
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
      messages.say('Water kept.');
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

export const faultWords: Record<WaterFault, { what: string; check: string }> = {
  'no-supply': { what: 'no water came anywhere', check: 'Check the tap and the main' },
  'stuck-closed': { what: 'it asked for water and got none', check: 'Check its valve' },
  'stuck-open': { what: 'water runs unasked', check: 'Its valve is stuck open: shut the tap' },
  'dead-probe': { what: 'its moisture probe says nothing', check: 'Check its cable' },
  'no-response': { what: 'water runs but the medium stays dry', check: 'Look for a split line' },
};
