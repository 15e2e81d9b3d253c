import type { Point } from './shapes';

/** WGS 84 ellipsoid. */
const SEMI_MAJOR_M = 6_378_137;
const FLATTENING = 1 / 298.257223563;
const RAD = Math.PI / 180;

export interface GeoOrigin {
  latitudeDeg: number;
  longitudeDeg: number;
}

/** Metres of a degree north and of a degree east at an origin, from the ellipsoid's radii of curvature. */
function metresPerDegree({ latitudeDeg }: GeoOrigin): { north: number; east: number } {
  const e2 = FLATTENING * (2 - FLATTENING);
  const s = Math.sin(latitudeDeg * RAD);
  const w = Math.sqrt(1 - e2 * s * s);
  const meridian = (SEMI_MAJOR_M * (1 - e2)) / w ** 3;
  const normal = SEMI_MAJOR_M / w;
  return { north: meridian * RAD, east: normal * Math.cos(latitudeDeg * RAD) * RAD };
}

/** Local metres → WGS 84 longitude and latitude, on the plane that touches the ellipsoid at the origin. */
export function toWgs84([east, north]: Point, origin: GeoOrigin): [longitude: number, latitude: number] {
  const m = metresPerDegree(origin);
  return [round10(origin.longitudeDeg + east / m.east), round10(origin.latitudeDeg + north / m.north)];
}

/** WGS 84 → local metres. */
export function fromWgs84([longitude, latitude]: readonly [number, number], origin: GeoOrigin): Point {
  const m = metresPerDegree(origin);
  return [(longitude - origin.longitudeDeg) * m.east, (latitude - origin.latitudeDeg) * m.north];
}

/** Ten decimals of a degree are a hundredth of a millimetre. */
function round10(degrees: number): number {
  return Math.round(degrees * 1e10) / 1e10;
}
