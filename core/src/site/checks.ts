import { say } from '../speech/say';
import { clearance, inRing, pointToStretch, ringsOverlap, sidesOf, type Point } from './shapes';
import { outlineOf, shapeOfKind, type SiteElement } from './elements';

/** Narrowest path a barrow passes, and a main path, m. */
export const BARROW_PATH_M = 0.6;
export const MAIN_PATH_M = 0.9;
/** Closer than this two places stand as one block: modules on shared feet. */
export const TOUCHING_M = 0.03;

/** A place's ground on the plan. */
export interface PlaceGround {
  id: string;
  name: string;
  corners: readonly Point[];
}

/** Something on the plan that cannot be, or hinders the work. */
export interface PlanFault {
  kind: 'overlap' | 'in-obstacle' | 'outside' | 'narrow' | 'on-path';
  placeIds: string[];
  elementId?: string;
  sentence: string;
  /** Clear width found, m. */
  clearM?: number;
}

const hard: readonly SiteElement['kind'][] = ['building', 'cold-store', 'wall', 'fence'];

/**
 * Checks a plan: places on top of one another or of a wall, outside the outline, on a path, or closer than
 * a barrow passes (0.6 m; 0.9 m beside a main path). Places that touch stand as one block.
 * @param only checks just these places against all, for a place being dragged
 */
export function checkPlan(
  places: readonly PlaceGround[],
  elements: readonly SiteElement[],
  only?: ReadonlySet<string>,
): PlanFault[] {
  const faults: PlanFault[] = [];
  const outlines = elements.filter((e) => e.kind === 'outline');
  const boxes = places.map((p) => boxOf(p.corners));
  for (let i = 0; i < places.length; i++) {
    const a = places[i];
    for (let j = i + 1; j < places.length; j++) {
      const b = places[j];
      if (only && !only.has(a.id) && !only.has(b.id)) continue;
      if (boxGap(boxes[i], boxes[j]) > BARROW_PATH_M) continue;
      if (ringsOverlap(a.corners, b.corners)) {
        faults.push({
          kind: 'overlap',
          placeIds: [a.id, b.id],
          sentence: say`${a.name} and ${b.name} stand on the same ground.`,
        });
        continue;
      }
      const clearM = clearance({ points: a.corners, closed: true }, { points: b.corners, closed: true });
      if (clearM > TOUCHING_M && clearM < BARROW_PATH_M - 1e-6)
        faults.push({
          kind: 'narrow',
          placeIds: [a.id, b.id],
          clearM,
          sentence: say`Between ${a.name} and ${b.name} a barrow does not pass.`,
        });
    }
    if (only && !only.has(a.id)) continue;
    if (outlines.length && !outlines.some((o) => a.corners.every((c) => inOrOn(c, o.points))))
      faults.push({ kind: 'outside', placeIds: [a.id], sentence: say`${a.name} stands outside the site.` });
    for (const element of elements) {
      if (hard.includes(element.kind) && hits(a.corners, element))
        faults.push({
          kind: 'in-obstacle',
          placeIds: [a.id],
          elementId: element.id,
          sentence: say`${a.name} stands on ${element.name}.`,
        });
      if (element.kind === 'path') {
        const width = element.widthM ?? (element.main ? MAIN_PATH_M : BARROW_PATH_M);
        const clear = clearance({ points: a.corners, closed: true }, outlineOf(element));
        if (clear < width / 2 - 1e-6)
          faults.push({
            kind: 'on-path',
            placeIds: [a.id],
            elementId: element.id,
            clearM: clear,
            sentence: say`${a.name} stands in ${element.name}.`,
          });
      }
    }
  }
  return faults;
}

/** Whether a ring meets an obstacle: shares ground with it, or is crossed by its line. */
function hits(corners: readonly Point[], element: SiteElement): boolean {
  if (shapeOfKind[element.kind] === 'area') return ringsOverlap(corners, element.points);
  return clearance({ points: corners, closed: true }, outlineOf(element)) < 0.005;
}

function inOrOn(p: Point, ring: readonly Point[]): boolean {
  return inRing(p, ring) || sidesOf(ring, true).some(([a, b]) => pointToStretch(p, a, b) < 0.005);
}

function boxOf(corners: readonly Point[]) {
  const e = corners.map((c) => c[0]);
  const n = corners.map((c) => c[1]);
  return { west: Math.min(...e), east: Math.max(...e), south: Math.min(...n), north: Math.max(...n) };
}

function boxGap(a: ReturnType<typeof boxOf>, b: ReturnType<typeof boxOf>): number {
  return Math.hypot(
    Math.max(0, a.west - b.east, b.west - a.east),
    Math.max(0, a.south - b.north, b.south - a.north),
  );
}

/** Paths narrower than a barrow, or than a main path where they are one. */
export function narrowPaths(elements: readonly SiteElement[]): SiteElement[] {
  return elements.filter(
    (e) => e.kind === 'path' && (e.widthM ?? BARROW_PATH_M) < (e.main ? MAIN_PATH_M : BARROW_PATH_M) - 1e-9,
  );
}
