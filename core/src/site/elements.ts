import type { Outline, Point } from './shapes';

/** What is drawn on the site besides places where lots stand. */
export const elementKinds = [
  'outline',
  'surface',
  'building',
  'wall',
  'trees',
  'fence',
  'path',
  'standpipe',
  'tunnel',
  'shade',
  'cold-store',
] as const;
export type ElementKind = (typeof elementKinds)[number];

/** How each kind is drawn: ground it covers, a line it follows, or a point. */
export const shapeOfKind: Record<ElementKind, 'area' | 'line' | 'point'> = {
  outline: 'area',
  surface: 'area',
  building: 'area',
  wall: 'line',
  trees: 'line',
  fence: 'line',
  path: 'line',
  standpipe: 'point',
  tunnel: 'area',
  shade: 'area',
  'cold-store': 'area',
};

/** Something on the site plan. Points are metres from the site's corner; an area's ring closes itself. */
export interface SiteElement {
  id: string;
  kind: ElementKind;
  name: string;
  points: readonly Point[];
  /** Of buildings, walls, tree rows, tunnels and shade, m. */
  heightM?: number;
  /** Share of direct sun let through in leaf and out of leaf: tree rows; the same for covers. */
  passesInLeaf?: number;
  passesBare?: number;
  /** Of a surface. */
  ground?: 'paving' | 'gravel' | 'soil' | 'weeds';
  /** Of a path. */
  widthM?: number;
  main?: boolean;
  /** Of a standpipe. */
  flowLpm?: number;
}

/** The site but for its places: a value with a schema number. */
export interface SitePlan {
  schema: 1;
  elements: readonly SiteElement[];
}

export const emptySite: SitePlan = { schema: 1, elements: [] };

/** The line or ring of an element. */
export function outlineOf(element: Pick<SiteElement, 'kind' | 'points'>): Outline {
  return { points: element.points, closed: shapeOfKind[element.kind] === 'area' };
}
