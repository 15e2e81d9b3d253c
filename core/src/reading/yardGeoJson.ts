import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { cornersOf, spotAbout } from '../site/footprint';
import type { PlaceBody } from '../contract';
import { elementKinds, shapeOfKind, type ElementKind, type SiteElement } from '../site/elements';
import { fromWgs84, toWgs84, type GeoOrigin } from '../site/geojson';
import { crossesItself, middleOf, type Point } from '../site/shapes';

interface Feature {
  type: 'Feature';
  geometry: { type: string; coordinates: unknown };
  properties: Record<string, unknown> | null;
}

export interface YardCollection {
  type: 'FeatureCollection';
  features: Feature[];
}

/** A yard as GeoJSON (RFC 7946): geometry in WGS 84, everything else in each feature's properties. */
export function yardToGeoJson(
  elements: readonly SiteElement[],
  places: readonly PlaceBody[],
  origin: GeoOrigin,
): YardCollection {
  const ring = (points: readonly Point[]) => [...points, points[0]].map((p) => toWgs84(p, origin));
  const feature = (type: string, coordinates: unknown, properties: Record<string, unknown>): Feature => ({
    type: 'Feature',
    geometry: { type, coordinates },
    properties,
  });
  return {
    type: 'FeatureCollection',
    features: [
      ...elements.map(({ id: _, points, ...properties }) => {
        const shape = shapeOfKind[properties.kind];
        if (shape === 'area') return feature('Polygon', [ring(points)], properties);
        if (shape === 'line')
          return feature(
            'LineString',
            points.map((p) => toWgs84(p, origin)),
            properties,
          );
        return feature('Point', toWgs84(points[0], origin), properties);
      }),
      ...places.map((place) => {
        const { eastM: _e, northM: _n, ...rest } = place;
        return feature('Polygon', [ring(cornersOf(place))], rest);
      }),
    ],
  };
}

export interface ReadYard {
  elements: Omit<SiteElement, 'id'>[];
  places: PlaceBody[];
  /** What was left out or taken for something else, in sentences. */
  remarks: string[];
}

const placeKinds = ['bed', 'bench', 'ground', 'bay'];

/**
 * Reads a yard from GeoJSON. Features of Kauri's come back as they were; others are taken as what their
 * geometry suggests; what cannot be drawn is named in the remarks.
 * @throws Unfit with a sentence when it is no collection of features, or a ring is broken
 */
export function yardFromGeoJson(json: unknown, origin: GeoOrigin): ReadYard {
  const collection = json as Partial<YardCollection> | null;
  if (collection?.type !== 'FeatureCollection' || !Array.isArray(collection.features))
    throw new Unfit(say`This is not a GeoJSON FeatureCollection.`);
  const read: ReadYard = { elements: [], places: [], remarks: [] };
  collection.features.forEach((feature, i) => {
    const properties = feature?.properties ?? {};
    const name =
      typeof properties.name === 'string' && properties.name.trim() ? properties.name : `Feature ${i + 1}`;
    const type = feature?.geometry?.type;
    const kind = typeof properties.kind === 'string' ? properties.kind : '';
    if (type !== 'Polygon' && type !== 'LineString' && type !== 'Point') {
      read.remarks.push(
        say`${name}: a ${type ?? say`missing geometry`} is left out; only points, lines and polygons are drawn.`,
      );
      return;
    }
    const points = pointsOf(type, feature.geometry.coordinates, name, origin);
    if (
      type === 'Polygon' &&
      Array.isArray(feature.geometry.coordinates) &&
      feature.geometry.coordinates.length > 1
    )
      read.remarks.push(say`${name}: its holes are left out.`);
    if (placeKinds.includes(kind)) {
      if (type !== 'Polygon' || !properties.design)
        throw new Unfit(say`${name}: a ${kind} needs a polygon and its design.`);
      const body = { ...properties, name } as unknown as PlaceBody;
      const middle = middleOf(points);
      const angleDeg = Number(properties.angleDeg) || 0;
      let spot;
      try {
        spot = spotAbout(body, middle, angleDeg);
      } catch (cause) {
        throw new Unfit(`${name}: ${(cause as Error).message}`, undefined, { cause });
      }
      read.places.push({ ...body, ...spot } as PlaceBody);
      return;
    }
    const shape = ({ Polygon: 'area', LineString: 'line', Point: 'point' } as const)[type];
    const known =
      (elementKinds as readonly string[]).includes(kind) && shapeOfKind[kind as ElementKind] === shape;
    const as = known
      ? (kind as ElementKind)
      : ({ area: 'surface', line: 'path', point: 'standpipe' } as const)[shape];
    if (!known) read.remarks.push(say`${name}: taken as a ${as}.`);
    read.elements.push({ ...(known ? (properties as object) : {}), kind: as, name, points });
  });
  return read;
}

function pointsOf(type: string, coordinates: unknown, name: string, origin: GeoOrigin): Point[] {
  const list = (
    type === 'Point' ? [coordinates] : type === 'Polygon' ? (coordinates as unknown[])?.[0] : coordinates
  ) as unknown;
  if (!Array.isArray(list)) throw new Unfit(say`${name}: its coordinates are missing.`);
  const points = list.map((pair) => {
    const [longitude, latitude] = Array.isArray(pair) ? (pair as number[]) : [NaN, NaN];
    if (!(Math.abs(longitude) <= 180 && Math.abs(latitude) <= 90))
      throw new Unfit(say`${name}: a coordinate is not a longitude and a latitude.`);
    const [e, n] = fromWgs84([longitude, latitude], origin);
    if (Math.hypot(e, n) > 1900)
      throw new Unfit(
        say`${name} lies ${Math.round(Math.hypot(e, n) / 1000)} km from the nursery: this is another yard, or longitude and latitude are swapped.`,
      );
    // Ten decimals of a degree are well under a tenth of a millimetre.
    return [Math.round(e * 1e4) / 1e4, Math.round(n * 1e4) / 1e4] as Point;
  });
  if (type === 'Polygon') {
    const [first, last] = [points[0], points[points.length - 1]];
    if (points.length < 4 || Math.hypot(first[0] - last[0], first[1] - last[1]) > 0.001)
      throw new Unfit(say`${name}: its ring is not closed, or has fewer than three corners.`);
    points.pop();
    if (crossesItself(points)) throw new Unfit(say`${name}: its outline crosses itself.`);
  }
  if (type === 'LineString' && points.length < 2) throw new Unfit(say`${name}: a line needs two points.`);
  return points;
}
