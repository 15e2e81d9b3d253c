import { BARROW_PATH_M, checkPlan, type PlaceGround } from './checks';
import type { SiteElement } from './elements';
import { boxOf } from './snap';
import type { BedDesign } from '../bed/design';
import { bedGeometry } from '../bed/geometry';
import { rectangle, type Point } from './shapes';

/** What the size of a place is read from: a bed's design, or the length and width of anything else. */
export type PlaceSize =
  | { kind: 'bed'; design: BedDesign }
  | { kind: 'bench' | 'ground' | 'bay'; design: { lengthMm: number; widthMm: number } };

/** A place where it stands: its south-west corner, and how it is turned. */
export type PlaceSpot = PlaceSize & { eastM: number; northM: number; angleDeg: number };

/** Ground a place stands on, metres from the site's south-west corner. */
export interface Footprint {
  eastM: number;
  northM: number;
  /** East to west, and south to north. */
  widthM: number;
  heightM: number;
}

/** Length and width of the ground a place takes, m. @throws Unfit when a bed cannot be built */
export function sizeOf(place: PlaceSize): { lengthM: number; widthM: number } {
  if (place.kind === 'bed') {
    const { outsideLengthMm, outsideWidthMm } = bedGeometry(place.design).value;
    return { lengthM: outsideLengthMm / 1000, widthM: outsideWidthMm / 1000 };
  }
  return { lengthM: place.design.lengthMm / 1000, widthM: place.design.widthMm / 1000 };
}

/** The upright box about a place's ground. @throws Unfit when a bed's design cannot be built */
export function footprintOf(place: PlaceSpot): Footprint {
  const { lengthM, widthM } = sizeOf(place);
  const { eastM, northM, angleDeg } = place;
  return { eastM, northM, ...boxAbout(lengthM, widthM, angleDeg) };
}

/** Size of the upright box about a rectangle turned by an angle. */
export function boxAbout(lengthM: number, widthM: number, angleDeg: number) {
  const turn = (angleDeg * Math.PI) / 180;
  const [c, s] = [Math.abs(Math.cos(turn)), Math.abs(Math.sin(turn))];
  const tidy = (m: number) => Math.round(m * 1e6) / 1e6;
  return { widthM: tidy(lengthM * c + widthM * s), heightM: tidy(lengthM * s + widthM * c) };
}

/** Middle of the ground a place stands on. */
export function middleOfPlace(place: PlaceSpot): Point {
  const { eastM, northM, widthM, heightM } = footprintOf(place);
  return [eastM + widthM / 2, northM + heightM / 2];
}

/** Corners of the ground a place stands on. */
export function cornersOf(place: PlaceSpot): Point[] {
  const { lengthM, widthM } = sizeOf(place);
  return rectangle(middleOfPlace(place), lengthM, widthM, place.angleDeg);
}

/** Where a place's corner comes to lie when its middle stands at a point at some angle. */
export function spotAbout(place: PlaceSize, middle: Point, angleDeg: number) {
  const { lengthM, widthM } = sizeOf(place);
  const box = boxAbout(lengthM, widthM, angleDeg);
  const tidy = (m: number) => Math.round(m * 1e6) / 1e6;
  return { eastM: tidy(middle[0] - box.widthM / 2), northM: tidy(middle[1] - box.heightM / 2), angleDeg };
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

/**
 * Free ground within the site's outline for a place of a size, a barrow's path from everything and not under a
 * cover: the northernmost, then the westernmost.
 * @returns its south-west corner; null without an outline, or where nothing is free
 */
export function freeSpot(
  lengthM: number,
  widthM: number,
  grounds: readonly PlaceGround[],
  elements: readonly SiteElement[],
): { eastM: number; northM: number } | null {
  const outline = elements.find((e) => e.kind === 'outline');
  if (!outline || !(lengthM > 0 && widthM > 0)) return null;
  const solid = elements.map((e) =>
    e.kind === 'tunnel' || e.kind === 'shade' ? { ...e, kind: 'building' as const } : e,
  );
  const { west, east, south, north } = boxOf(outline.points);
  const only = new Set(['new']);
  const step = 0.5;
  for (let n = Math.floor((north - widthM - 0.5) / step) * step; n >= south + 0.5; n -= step)
    for (let e = Math.ceil((west + 0.5) / step) * step; e + lengthM <= east - 0.5; e += step) {
      const corners = rectangle([e + lengthM / 2, n + widthM / 2], lengthM, widthM, 0);
      if (!checkPlan([{ id: 'new', name: 'new', corners }, ...grounds], solid, only).length)
        return { eastM: e, northM: n };
    }
  return null;
}
