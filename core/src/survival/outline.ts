import { say } from '../speech/say';
import { Unfit } from '../working/unfit';

/** A corner of an outline: longitude and latitude, degrees (WGS 84). */
export type Corner = [number, number];

const EARTH_M = 6_371_008.8;
const SMALLEST_M2 = 4;
const LARGEST_M2 = 1e8;
const FARTHEST_KM = 2000;
const MOST_CORNERS = 500;

/**
 * Reads the outline of a planting from GeoJSON: a polygon, or a feature or collection that holds exactly one.
 * @param near where the nursery stands
 * @returns its outer ring without the closing corner
 * @throws Unfit with a sentence for what is no polygon, not in degrees, too small or large, or on another side of the world
 * @see RFC 7946
 */
export function readOutline(text: string, near: { latitudeDeg: number; longitudeDeg: number }): Corner[] {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new Unfit(say`That is not GeoJSON: it cannot be read as JSON.`, 'outline');
  }
  const polygons = polygonsIn(json);
  if (polygons.length === 0) throw new Unfit(say`There is no polygon in it.`, 'outline');
  if (polygons.length > 1)
    throw new Unfit(say`There are ${polygons.length} polygons in it; give one at a time.`, 'outline');
  const ring = polygons[0];
  if (!Array.isArray(ring) || ring.length < 4)
    throw new Unfit(say`An outline needs three corners or more.`, 'outline');
  if (ring.length > MOST_CORNERS + 1)
    throw new Unfit(say`An outline has at most ${MOST_CORNERS} corners.`, 'outline');
  const corners = ring.map((at): Corner => {
    const [lon, lat] = Array.isArray(at) ? (at as unknown[]) : [];
    if (typeof lon !== 'number' || typeof lat !== 'number' || !Number.isFinite(lon + lat))
      throw new Unfit(say`A corner is not a pair of numbers.`, 'outline');
    if (Math.abs(lon) > 180 || Math.abs(lat) > 90)
      throw new Unfit(
        say`Its corners are not in degrees: save it in longitude and latitude (WGS 84).`,
        'outline',
      );
    return [lon, lat];
  });
  const [first, last] = [corners[0], corners[corners.length - 1]];
  if (first[0] === last[0] && first[1] === last[1]) corners.pop();
  mustBePlace(corners, near);
  return corners;
}

/** @throws Unfit for an outline that crosses itself, is too small, too large, or too far from the nursery */
export function mustBePlace(
  corners: readonly Corner[],
  near: { latitudeDeg: number; longitudeDeg: number },
): void {
  const km = kmBetween(corners[0], [near.longitudeDeg, near.latitudeDeg]);
  if (km > FARTHEST_KM)
    throw new Unfit(
      say`That place is ${Math.round(km)} km from the nursery. Check that longitude comes before latitude.`,
      'outline',
    );
  if (crosses(corners))
    throw new Unfit(say`That outline crosses itself: its ground cannot be told.`, 'outline');
  const m2 = outlineM2(corners);
  if (m2 < SMALLEST_M2) throw new Unfit(say`That outline holds next to no ground.`, 'outline');
  if (m2 > LARGEST_M2)
    throw new Unfit(say`That outline holds ${Math.round(m2 / 1e6)} km²: check it.`, 'outline');
}

function polygonsIn(json: unknown): unknown[] {
  if (typeof json !== 'object' || json === null) return [];
  const { type, coordinates, geometry, geometries, features } = json as Record<string, unknown>;
  if (type === 'Polygon' && Array.isArray(coordinates)) return [coordinates[0] as unknown];
  if (type === 'MultiPolygon' && Array.isArray(coordinates))
    return coordinates.map((polygon: unknown) => (Array.isArray(polygon) ? (polygon[0] as unknown) : null));
  if (type === 'Feature') return polygonsIn(geometry);
  const inside = type === 'FeatureCollection' ? features : type === 'GeometryCollection' ? geometries : [];
  return Array.isArray(inside) ? inside.flatMap(polygonsIn) : [];
}

/** Great-circle distance, km. */
export function kmBetween([lonA, latA]: Corner, [lonB, latB]: Corner): number {
  const rad = Math.PI / 180;
  const a =
    Math.sin(((latB - latA) * rad) / 2) ** 2 +
    Math.cos(latA * rad) * Math.cos(latB * rad) * Math.sin(((lonB - lonA) * rad) / 2) ** 2;
  return (2 * EARTH_M * Math.asin(Math.min(1, Math.sqrt(a)))) / 1000;
}

/** Corners in metres east and north of the outline's middle, on a plane that touches there. */
export function outlineMetres(corners: readonly Corner[]): { east: number; north: number }[] {
  const rad = Math.PI / 180;
  const lat = corners.reduce((t, [, y]) => t + y, 0) / corners.length;
  // About the date line, longitudes are taken beside the first corner's.
  const lons = corners.map(([x]) => corners[0][0] + ((((x - corners[0][0] + 540) % 360) + 360) % 360) - 180);
  const lon = lons.reduce((t, x) => t + x, 0) / corners.length;
  return corners.map(([, y], i) => ({
    east: EARTH_M * (lons[i] - lon) * rad * Math.cos(lat * rad),
    north: EARTH_M * (y - lat) * rad,
  }));
}

/**
 * Corners where they lie in metres of a place; the way back from {@link outlineMetres} for what is drawn.
 * @example cornersAt([{ east: 0, north: 111.2 }], { latitudeDeg: 0, longitudeDeg: 0 })[0][1] // 0.001
 */
export function cornersAt(
  metres: readonly { east: number; north: number }[],
  { latitudeDeg, longitudeDeg }: { latitudeDeg: number; longitudeDeg: number },
): Corner[] {
  const deg = 180 / Math.PI;
  return metres.map(({ east, north }): Corner => {
    const lon = longitudeDeg + (east / (EARTH_M * Math.cos(latitudeDeg / deg))) * deg;
    return [((((lon + 540) % 360) + 360) % 360) - 180, latitudeDeg + (north / EARTH_M) * deg];
  });
}

/** The middle of an outline's corners; longitudes are taken beside the first corner's. */
export function outlineMiddle(corners: readonly Corner[]): { latitudeDeg: number; longitudeDeg: number } {
  const beside = corners.map(([x]) => ((((x - corners[0][0] + 540) % 360) + 360) % 360) - 180);
  const east = beside.reduce((t, x) => t + x, 0) / corners.length;
  return {
    latitudeDeg: corners.reduce((t, [, y]) => t + y, 0) / corners.length,
    longitudeDeg: ((((corners[0][0] + east + 540) % 360) + 360) % 360) - 180,
  };
}

/** Whether two sides of an outline that are not neighbours cross. */
function crosses(corners: readonly Corner[]): boolean {
  const at = outlineMetres(corners);
  const side = (i: number) => [at[i], at[(i + 1) % at.length]] as const;
  const turn = (a: (typeof at)[number], b: (typeof at)[number], c: (typeof at)[number]) =>
    Math.sign((b.east - a.east) * (c.north - a.north) - (b.north - a.north) * (c.east - a.east));
  for (let i = 0; i < at.length; i++)
    for (let k = i + 2; k < at.length; k++) {
      if (i === 0 && k === at.length - 1) continue;
      const [[a, b], [c, d]] = [side(i), side(k)];
      if (turn(a, b, c) * turn(a, b, d) < 0 && turn(c, d, a) * turn(c, d, b) < 0) return true;
    }
  return false;
}

/** Ground within an outline, m² (the shoelace formula on the touching plane). */
export function outlineM2(corners: readonly Corner[]): number {
  const at = outlineMetres(corners);
  let twice = 0;
  for (const [i, a] of at.entries()) {
    const b = at[(i + 1) % at.length];
    twice += a.east * b.north - b.east * a.north;
  }
  return Math.abs(twice) / 2;
}
