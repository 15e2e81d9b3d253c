import { dayFrom, partsOf, type EpochDay } from '../calendar/day';
import { sidesOf, type Point } from '../site/shapes';
import { inRing } from '../site/shapes';
import { shapeOfKind, type SiteElement } from '../site/elements';
import { openSky, sunPath, sunReaching, type Face, type SunStep } from './sunHours';

/** Whether trees are in leaf on a date, by hemisphere: late spring to mid autumn. */
export function inLeaf(day: EpochDay, latitudeDeg: number): boolean {
  const { month, day: date } = partsOf(day);
  const at = month + (date - 1) / 31;
  return latitudeDeg >= 0 ? at >= 4.7 && at < 11 : at >= 10.7 || at < 5;
}

const casts: readonly SiteElement['kind'][] = ['building', 'cold-store', 'wall', 'trees'];

/** Vertical faces of what stands on the site on a date. Places stand lower than the canopy beside them. */
export function facesOf(elements: readonly SiteElement[], leafy: boolean): Face[] {
  return elements
    .filter((e) => casts.includes(e.kind) && (e.heightM ?? 0) > 0)
    .flatMap((e) =>
      sidesOf(e.points, shapeOfKind[e.kind] === 'area').map(([from, to]) => ({
        from,
        to,
        heightM: e.heightM!,
        passes: e.kind === 'trees' ? ((leafy ? e.passesInLeaf : e.passesBare) ?? 0) : 0,
      })),
    );
}

/** Share of sun that covers (tunnel, shade) over a point let through. */
export function coverPasses(point: Point, elements: readonly SiteElement[]): number {
  return elements
    .filter((e) => (e.kind === 'tunnel' || e.kind === 'shade') && inRing(point, e.points))
    .reduce((share, e) => share * (e.passesInLeaf ?? 1), 1);
}

export interface LightSpot {
  id: string;
  point: Point;
  canopyHeightM: number;
}

export interface LightSite {
  latitudeDeg: number;
  longitudeDeg: number;
}

/** A spot's light over a year: mid-month hours of direct sun a day, January first. */
export interface SpotLight {
  id: string;
  hours: number[];
  openHours: number[];
  /** Share of sun that the covers over it let through. */
  cover: number;
  /** Share of an evenly bright sky seen, trees in leaf. */
  sky: number;
}

/**
 * Direct sun of every spot for the middle of each month.
 * @param without an element left out, to see what it costs
 */
export function yardLight(
  spots: readonly LightSpot[],
  elements: readonly SiteElement[],
  site: LightSite,
  year: number,
  stepMin = 10,
): SpotLight[] {
  const months = Array.from({ length: 12 }, (_, month) => {
    const day = dayFrom(year, month + 1, 15);
    return {
      path: sunPath(site.latitudeDeg, site.longitudeDeg, day, stepMin),
      faces: facesOf(elements, inLeaf(day, site.latitudeDeg)),
    };
  });
  const leafy = facesOf(elements, true);
  return spots.map(({ id, point, canopyHeightM }) => {
    const cover = coverPasses(point, elements);
    const hours: number[] = [];
    const openHours: number[] = [];
    for (const { path, faces } of months) {
      let open = 0;
      let sun = 0;
      for (const step of path) {
        open += step.hours;
        sun += step.hours * sunReaching(point, faces, step, canopyHeightM);
      }
      hours.push(sun * cover);
      openHours.push(open);
    }
    return { id, hours, openHours, cover, sky: openSky(point, leafy, canopyHeightM) * cover };
  });
}

/** What one element takes of a spot's sun, hours a day by month. */
export interface LightLoss {
  elementId: string;
  name: string;
  lost: number[];
}

/** What each thing that casts shade costs a spot, month by month; most costly first. */
export function lightLosses(
  spot: LightSpot,
  elements: readonly SiteElement[],
  site: LightSite,
  year: number,
): LightLoss[] {
  const [now] = yardLight([spot], elements, site, year);
  return elements
    .filter((e) => casts.includes(e.kind) && (e.heightM ?? 0) > 0)
    .map((e) => {
      const [without] = yardLight(
        [spot],
        elements.filter((other) => other !== e),
        site,
        year,
      );
      return { elementId: e.id, name: e.name, lost: without.hours.map((h, i) => h - now.hours[i]) };
    })
    .filter((loss) => Math.max(...loss.lost) > 0.05)
    .sort((a, b) => Math.max(...b.lost) - Math.max(...a.lost));
}

/** The growing season's months, January = 0, by hemisphere. */
export function growingMonths(latitudeDeg: number): number[] {
  return latitudeDeg >= 0 ? [3, 4, 5, 6, 7, 8, 9] : [9, 10, 11, 0, 1, 2, 3];
}

/**
 * Mean hours of sun over the growing season on a grid of free ground, brightest first.
 * @param fits whether a place of the wanted size may stand about a point
 */
export function brightestSpots(
  area: readonly Point[],
  fits: (middle: Point) => boolean,
  elements: readonly SiteElement[],
  site: LightSite,
  year: number,
  canopyHeightM: number,
  stepM = 1,
): { middle: Point; hours: number }[] {
  const e = area.map((p) => p[0]);
  const n = area.map((p) => p[1]);
  const spots: LightSpot[] = [];
  for (let north = Math.min(...n) + stepM / 2; north < Math.max(...n); north += stepM)
    for (let east = Math.min(...e) + stepM / 2; east < Math.max(...e); east += stepM) {
      const point: Point = [Math.round(east * 10) / 10, Math.round(north * 10) / 10];
      if (inRing(point, area) && fits(point)) spots.push({ id: `${point}`, point, canopyHeightM });
    }
  const months = growingMonths(site.latitudeDeg);
  return yardLight(spots, elements, site, year, 20)
    .map((light, i) => ({
      middle: spots[i].point,
      hours: months.reduce((t, m) => t + light.hours[m], 0) / months.length,
    }))
    .sort((a, b) => b.hours - a.hours);
}

/** Shade that faces throw on the ground in one step of the sun, as quadrilaterals to draw. */
export function shadows(
  faces: readonly Face[],
  step: Pick<SunStep, 'east' | 'north' | 'tanAltitude'>,
  longestM = 200,
): Point[][] {
  return faces.map(({ from, to, heightM }) => {
    const reach = Math.min(longestM, heightM / step.tanAltitude);
    const [de, dn] = [-step.east * reach, -step.north * reach];
    return [from, to, [to[0] + de, to[1] + dn], [from[0] + de, from[1] + dn]];
  });
}
