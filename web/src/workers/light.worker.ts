import {
  brightestSpots,
  checkPlan,
  directSunHours,
  facesOf,
  inLeaf,
  lightLosses,
  rectangle,
  yardLight,
  type EpochDay,
  type LightSite,
  type LightSpot,
  type PlaceGround,
  type SiteElement,
} from '@kauri/core';
import { exposeSpeaking } from './speaking';

const api = {
  /** Direct sun of every place by month. */
  yard: (spots: LightSpot[], elements: SiteElement[], site: LightSite, year: number) =>
    yardLight(spots, elements, site, year),

  /** What each thing costs one place, and its hours on one date with their working. */
  place(spot: LightSpot, elements: SiteElement[], site: LightSite, year: number, day: EpochDay) {
    const faces = facesOf(elements, inLeaf(day, site.latitudeDeg));
    return {
      losses: lightLosses(spot, elements, site, year),
      today: directSunHours(spot.point, faces, site.latitudeDeg, site.longitudeDeg, day, spot.canopyHeightM),
    };
  },

  /** Brightest free ground for a bed of a size; a barrow's path is left to everything. */
  best(
    elements: SiteElement[],
    grounds: PlaceGround[],
    site: LightSite,
    year: number,
    size: { lengthM: number; widthM: number; canopyHeightM: number },
  ) {
    const outline = elements.find((e) => e.kind === 'outline');
    if (!outline) return [];
    const covers = elements.filter((e) => e.kind === 'tunnel' || e.kind === 'shade');
    const solid = elements.map((e) => (covers.includes(e) ? { ...e, kind: 'building' as const } : e));
    const fits = (middle: readonly [number, number]) =>
      checkPlan(
        [{ id: 'new', name: 'new', corners: rectangle(middle, size.lengthM, size.widthM, 0) }, ...grounds],
        solid,
        new Set(['new']),
      ).length === 0;
    return brightestSpots(outline.points, fits, elements, site, year, size.canopyHeightM, 1).slice(0, 200);
  },
};

export type LightWorker = typeof api;
exposeSpeaking(api);
