/** A point of the site: metres east and north of its corner. */
export type Point = readonly [eastM: number, northM: number];

/** Distance between two points, m. */
export function distance(a: Point, b: Point): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1]);
}

/** Shortest distance from a point to a stretch, m. */
export function pointToStretch(p: Point, a: Point, b: Point): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const length2 = dx * dx + dy * dy;
  const t = length2 === 0 ? 0 : Math.max(0, Math.min(1, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / length2));
  return Math.hypot(p[0] - a[0] - t * dx, p[1] - a[1] - t * dy);
}

const side = (a: Point, b: Point, c: Point) => (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);

/** Whether two stretches cross properly; touching ends do not count. */
export function stretchesCross(a: Point, b: Point, c: Point, d: Point): boolean {
  const [s1, s2, s3, s4] = [side(a, b, c), side(a, b, d), side(c, d, a), side(c, d, b)];
  return s1 * s2 < -1e-12 && s3 * s4 < -1e-12;
}

function stretchDistance(a: Point, b: Point, c: Point, d: Point): number {
  if (stretchesCross(a, b, c, d)) return 0;
  return Math.min(
    pointToStretch(a, c, d),
    pointToStretch(b, c, d),
    pointToStretch(c, a, b),
    pointToStretch(d, a, b),
  );
}

/** Sides of a ring (closed by itself) or of a line. */
export function sidesOf(points: readonly Point[], closed: boolean): [Point, Point][] {
  const sides: [Point, Point][] = [];
  for (let i = 0; i + 1 < points.length; i++) sides.push([points[i], points[i + 1]]);
  if (closed && points.length > 2) sides.push([points[points.length - 1], points[0]]);
  return sides;
}

/** Whether a point lies inside a ring (even–odd rule). */
export function inRing(p: Point, ring: readonly Point[]): boolean {
  let inside = false;
  for (const [a, b] of sidesOf(ring, true)) {
    if (a[1] > p[1] !== b[1] > p[1] && p[0] < a[0] + ((p[1] - a[1]) / (b[1] - a[1])) * (b[0] - a[0]))
      inside = !inside;
  }
  return inside;
}

/** An outline on the plan: a closed ring, or an open line. */
export interface Outline {
  points: readonly Point[];
  closed: boolean;
}

/** Clear distance between two outlines, m; 0 where they touch, cross or one lies in the other. */
export function clearance(a: Outline, b: Outline): number {
  if (b.closed && inRing(a.points[0], b.points)) return 0;
  if (a.closed && inRing(b.points[0], a.points)) return 0;
  const as = a.points.length === 1 ? [[a.points[0], a.points[0]] as const] : sidesOf(a.points, a.closed);
  const bs = b.points.length === 1 ? [[b.points[0], b.points[0]] as const] : sidesOf(b.points, b.closed);
  let least = Infinity;
  for (const [p, q] of as) for (const [r, s] of bs) least = Math.min(least, stretchDistance(p, q, r, s));
  return least;
}

/** Whether two rings share ground, touching sides left aside. */
export function ringsOverlap(a: readonly Point[], b: readonly Point[]): boolean {
  for (const [p, q] of sidesOf(a, true))
    for (const [r, s] of sidesOf(b, true)) if (stretchesCross(p, q, r, s)) return true;
  return inRing(middleOf(a), b) || inRing(middleOf(b), a) || within(a, b) || within(b, a);
}

/** Whether any corner of a ring, drawn in by a hair, lies in another. */
function within(a: readonly Point[], b: readonly Point[]): boolean {
  const [me, mn] = middleOf(a);
  return a.some(([e, n]) => inRing([e + (me - e) * 1e-6, n + (mn - n) * 1e-6], b));
}

/** Mean of a ring's corners. */
export function middleOf(points: readonly Point[]): Point {
  const n = points.length;
  return [points.reduce((t, p) => t + p[0], 0) / n, points.reduce((t, p) => t + p[1], 0) / n];
}

/** Area of a ring, m² (shoelace). */
export function areaOf(ring: readonly Point[]): number {
  return Math.abs(sidesOf(ring, true).reduce((t, [a, b]) => t + (a[0] * b[1] - b[0] * a[1]), 0)) / 2;
}

/** Length of a line, m. */
export function lengthOf(line: readonly Point[]): number {
  return sidesOf(line, false).reduce((t, [a, b]) => t + distance(a, b), 0);
}

/** Whether a ring crosses itself, so that its area means nothing. */
export function crossesItself(ring: readonly Point[]): boolean {
  const sides = sidesOf(ring, true);
  return sides.some(([a, b], i) => sides.slice(i + 1).some(([c, d]) => stretchesCross(a, b, c, d)));
}

/** Corners of a rectangle about a middle, its length along an angle counter-clockwise from east. */
export function rectangle(middle: Point, lengthM: number, widthM: number, angleDeg: number): Point[] {
  const turn = (angleDeg * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return (
    [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ] as const
  ).map(([i, j]) => {
    const [along, across] = [(i * lengthM) / 2, (j * widthM) / 2];
    return [middle[0] + along * c - across * s, middle[1] + along * s + across * c] as Point;
  });
}
