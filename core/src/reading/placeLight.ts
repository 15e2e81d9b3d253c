import type { Nursery, Place } from '../contract';
import { growingMonths, yardLight } from '../light/yardLight';
import type { SiteElement } from '../site/elements';
import { middleOfPlace } from '../site/footprint';

/** Height of young canopies over the ground, m: high enough to look over a bed's side. */
const CANOPY_M = 0.5;
/** Sun is followed hour by hour: light enters growth as a share, and minutes do not change it. */
const STEP_MIN = 60;
/** Any year will do: the sun is the same. */
const YEAR = 2026;
/** Of the light of a growing season that comes straight from the sun; the rest comes from the sky. */
const DIRECT_SHARE = 0.55;

/**
 * Light that each place has in the growing season, as a share of the open sky's: direct sun by what stands about it and
 * over it on the plan, and the sky it sees. Places in the open are left out: they have all of it.
 */
export function lightOfPlaces(
  places: readonly Place[],
  elements: readonly SiteElement[],
  site: Pick<Nursery, 'latitudeDeg' | 'longitudeDeg'>,
): ReadonlyMap<string, number> {
  const shading = elements.some((e) => ['tunnel', 'shade'].includes(e.kind) || (e.heightM ?? 0) > 0);
  if (!shading) return new Map();
  const spots = places.map((place) => ({
    id: place.id,
    point: middleOfPlace(place.place),
    canopyHeightM: CANOPY_M,
  }));
  const months = growingMonths(site.latitudeDeg);
  const over = (hours: readonly number[]) => months.reduce((total, month) => total + hours[month], 0);
  return new Map(
    yardLight(spots, elements, site, YEAR, STEP_MIN).flatMap(({ id, hours, openHours, sky }) => {
      const open = over(openHours);
      if (!(open > 0)) return [];
      const share = DIRECT_SHARE * (over(hours) / open) + (1 - DIRECT_SHARE) * sky;
      return share < 0.97 ? [[id, share] as const] : [];
    }),
  );
}
