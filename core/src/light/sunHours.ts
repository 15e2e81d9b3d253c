import { say } from '../speech/say';
import { getPosition } from 'suncalc';
import type { EpochDay } from '../calendar/day';
import type { Point } from '../site/shapes';
import { put, type Worked } from '../working/working';

const MS_PER_DAY = 86_400_000;
/**
 * The horizon as the library's apparent altitude has it, degrees. It lifts a sun below the horizon by 29′ at
 * most; almanacs lift it by 34′ when it rises and sets.
 */
const HORIZON_DEG = -5 / 60;
/** Step of the sun's path, min. */
export const SUN_STEP_MIN = 5;

/** A vertical face on the plan: its ground line, its height, and the share of sun that passes it. */
export interface Face {
  from: Point;
  to: Point;
  heightM: number;
  /** 0 for a wall; more for trees. */
  passes: number;
}

/** The sun over one step of a day. */
export interface SunStep {
  /** Unit vector towards the sun on the ground. */
  east: number;
  north: number;
  tanAltitude: number;
  /** Length of the step with the sun up, h. */
  hours: number;
  /** Middle of the step, hours UTC after midnight UTC of the day. */
  atUtcH: number;
}

/** Where the sun stands at an instant: azimuth clockwise from north, and apparent altitude, degrees. */
export function sunAt(epochMs: number, latitudeDeg: number, longitudeDeg: number) {
  return getPosition(new Date(epochMs), latitudeDeg, longitudeDeg);
}

/**
 * The sun's path over a day from one local midnight (by the sun, from the longitude) to the next. Steps in
 * which it rises or sets count only for the part it is up.
 */
export function sunPath(
  latitudeDeg: number,
  longitudeDeg: number,
  day: EpochDay,
  stepMin = SUN_STEP_MIN,
): SunStep[] {
  const midnight = day * MS_PER_DAY - (longitudeDeg / 360) * MS_PER_DAY;
  const count = Math.round((24 * 60) / stepMin);
  const stepMs = stepMin * 60_000;
  const steps: SunStep[] = [];
  const above = (ms: number) => getPosition(new Date(ms), latitudeDeg, longitudeDeg).altitude - HORIZON_DEG;
  let before = above(midnight);
  for (let i = 0; i < count; i++) {
    const after = above(midnight + (i + 1) * stepMs);
    if (before > 0 || after > 0) {
      const up = before > 0 && after > 0 ? 1 : Math.max(before, after) / Math.abs(after - before);
      const middle = midnight + (i + 0.5) * stepMs;
      const { azimuth, altitude } = getPosition(new Date(middle), latitudeDeg, longitudeDeg);
      const turn = (azimuth * Math.PI) / 180;
      steps.push({
        east: Math.sin(turn),
        north: Math.cos(turn),
        tanAltitude: Math.tan((Math.max(0.01, altitude) * Math.PI) / 180),
        hours: (up * stepMin) / 60,
        atUtcH: (middle - day * MS_PER_DAY) / 3_600_000,
      });
    }
    before = after;
  }
  return steps;
}

/** Distance along a ray from a point to a face; Infinity where it misses. Direction is a unit vector. */
export function distanceToFace(point: Point, east: number, north: number, face: Face): number {
  const [ae, an] = [face.from[0] - point[0], face.from[1] - point[1]];
  const [be, bn] = [face.to[0] - point[0], face.to[1] - point[1]];
  // Offsets of the ends to the left of the ray: on either side where the ray's line crosses the face.
  const a = east * an - north * ae;
  const b = east * bn - north * be;
  if (a > 0 === b > 0 || a === b) return Infinity;
  const t = a / (a - b);
  const along = (ae + t * (be - ae)) * east + (an + t * (bn - an)) * north;
  return along > 1e-9 ? along : Infinity;
}

/** Share of the sun that reaches a canopy at a point in one step. */
export function sunReaching(
  point: Point,
  faces: readonly Face[],
  step: SunStep,
  canopyHeightM: number,
): number {
  let passes = 1;
  for (const face of faces) {
    const far = distanceToFace(point, step.east, step.north, face);
    if (far < Infinity && step.tanAltitude * far < face.heightM - canopyHeightM) {
      passes *= face.passes;
      if (passes === 0) return 0;
    }
  }
  return passes;
}

export interface DirectSun {
  /** Hours of direct sun that reach the canopy; sun through trees counts by what passes. */
  hours: number;
  /** Hours with nothing in the way. */
  openHours: number;
  share: number;
}

/**
 * Hours of direct sun a point could have on a date under a clear sky. A face shades while the ray towards
 * the sun crosses its line and the sun is lower than its top, seen from the canopy.
 * @param latitude degrees, south negative
 * @param longitude degrees, west negative
 * @param canopyHeightM height of the leaves above the ground of the plan, m
 */
export function directSunHours(
  point: Point,
  obstacles: readonly Face[],
  latitude: number,
  longitude: number,
  date: EpochDay,
  canopyHeightM: number,
): Worked<DirectSun> {
  const path = sunPath(latitude, longitude, date);
  let hours = 0;
  let openHours = 0;
  for (const step of path) {
    openHours += step.hours;
    hours += step.hours * sunReaching(point, obstacles, step, canopyHeightM);
  }
  const share = openHours > 0 ? hours / openHours : 0;
  return {
    value: { hours, openHours, share },
    working: [
      {
        what: say`Sun above the horizon`,
        how: say`The sun’s path in steps of ${SUN_STEP_MIN} min, rising and setting within a step counted in part.`,
        result: openHours,
        unit: 'h',
        source: 'Sun position after Meeus, Astronomical Algorithms, ch. 25',
      },
      {
        what: say`Direct sun on the canopy`,
        how: say`In each step, each of ${obstacles.length} faces shades when the sun is lower than its top seen from ${put(canopyHeightM)} m up.`,
        result: hours,
        unit: 'h',
      },
      ...(openHours > 0
        ? [{ what: say`Share of open sun`, expression: `${put(hours)} ÷ ${put(openHours)}`, result: share }]
        : []),
    ],
  };
}

/**
 * Share of an evenly bright sky that a point sees above the tops of faces, 0–1.
 * Each 5° of the compass counts cos² of the height of its skyline.
 */
export function openSky(point: Point, faces: readonly Face[], canopyHeightM: number): number {
  let seen = 0;
  const parts = 72;
  for (let i = 0; i < parts; i++) {
    const turn = ((i + 0.5) / parts) * 2 * Math.PI;
    const [east, north] = [Math.sin(turn), Math.cos(turn)];
    let lost = 0;
    for (const face of faces) {
      const far = distanceToFace(point, east, north, face);
      const above = face.heightM - canopyHeightM;
      if (far === Infinity || above <= 0) continue;
      const sin2 = above ** 2 / (above ** 2 + far ** 2);
      lost = Math.max(lost, sin2 * (1 - face.passes));
    }
    seen += (1 - lost) / parts;
  }
  return seen;
}
