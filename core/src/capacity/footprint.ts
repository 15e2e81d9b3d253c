import { bedGeometry } from '../bed/geometry';
import type { PlaceBody } from '../contract';

/** Ground a place stands on, metres from the site's south-west corner. */
export interface Footprint {
  eastM: number;
  northM: number;
  /** East to west, and south to north. */
  widthM: number;
  heightM: number;
}

/** Narrowest path a barrow passes, m. */
export const BARROW_PATH_M = 0.6;

/** @throws RangeError when a bed's design cannot be built */
export function footprintOf(place: PlaceBody): Footprint {
  const size =
    place.kind === 'bed'
      ? (({ outsideLengthMm, outsideWidthMm }) => [outsideLengthMm, outsideWidthMm])(
          bedGeometry(place.design).value,
        )
      : [place.design.lengthMm, place.design.widthMm];
  const [long, short] = size.map((mm) => mm / 1000);
  const { eastM, northM, turned } = place;
  return { eastM, northM, widthM: turned ? short : long, heightM: turned ? long : short };
}

/** Clear distance between two footprints, m; 0 where they touch or overlap. */
export function distanceBetween(a: Footprint, b: Footprint): number {
  const gap = (from: number, size: number, otherFrom: number, otherSize: number) =>
    Math.max(0, otherFrom - (from + size), from - (otherFrom + otherSize));
  return Math.hypot(gap(a.eastM, a.widthM, b.eastM, b.widthM), gap(a.northM, a.heightM, b.northM, b.heightM));
}

/** A free spot for another place: at the southern edge of what stands, a barrow's path away. */
export function nextSpot(standing: readonly Footprint[], heightM: number): { eastM: number; northM: number } {
  if (standing.length === 0) return { eastM: 0, northM: 0 };
  const round = (m: number) => Math.round(m * 10) / 10;
  return {
    eastM: round(Math.min(...standing.map((f) => f.eastM))),
    northM: round(Math.min(...standing.map((f) => f.northM)) - heightM - 2 * BARROW_PATH_M),
  };
}
