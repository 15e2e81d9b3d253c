import {
  bedGeometry,
  bucketHolds,
  containerVolume,
  dripGrid,
  dripParts,
  heldShareOf,
  lateralUniformity,
  longestLateral,
  waterPlan,
  type Bucket,
  type DripGrid,
  type DripParts,
  type EpochDay,
  type LateralFlow,
  type Lookup,
  type Step,
  type WaterPlan as SeasonPlan,
  type waterYears,
} from '@kauri/core';
import type { Drip, WaterPlan } from '@kauri/core/contract';
import type { ShownPlace } from '../usePlaces';

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
/** What the water of every place is worked out from. */
export interface WaterBasis {
  plan: WaterPlan;
  /** Past years of weather, from the week looked at. */
  years: ReturnType<typeof waterYears>;
  from: EpochDay;
  lookup: Lookup;
}

/** What a place draws while its zone runs, L/h. */
export function flowOf(w: WateredPlace): number {
  return w.line.totalFlowLph * w.grid.lines;
}

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

/** All that can be said of the water of a place with drip laid, or what is wrong with its drip. */
export function wateredPlace(
  shown: ShownPlace,
  drip: Drip,
  { plan, years, from, lookup }: WaterBasis,
): LaidDrip {
  const body = shown.place.place;
  const medium = lookup.media.get(body.mediumId ?? '')?.values;
  const heldShare = medium ? heldShareOf(medium) : 0.25;
  try {
    let inside: { insideLengthMm: number; insideWidthMm: number; depthMm: number };
    if (body.kind === 'bed') {
      const g = bedGeometry(body.design, medium?.settling).value;
      inside = { ...g, depthMm: g.settledDepthMm };
    } else {
      // A bench is as deep as the medium of what stands on it would be, spread over its area.
      const stage = shown.lots[0]?.row.stage;
      const c = lookup.containers.get(stage?.containerTypeId ?? '') ?? [...lookup.containers.values()][0];
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
      inletPressureM: plan.pressureM,
      manufacturingCv: drip.manufacturingCv,
    };
    const line = lateralUniformity({ ...lateral, emitters: grid.value.emittersPerLine });
    const bucket: Bucket = {
      depthMm: inside.depthMm,
      heldShare,
      canopyCover: drip.canopyCover,
      dryDown: plan.dryDown,
      rainShare: drip.rainShare,
      applicationMmPerH:
        (line.value.totalFlowLph * grid.value.lines) / ((inside.insideLengthMm * inside.insideWidthMm) / 1e6),
    };
    const holds = bucketHolds(bucket);
    const seasonPlan = years.length ? waterPlan(bucket, years, from) : null;
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
