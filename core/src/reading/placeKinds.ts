import { bedGeometry } from '../bed/geometry';
import type { EpochDay } from '../calendar/day';
import type { Place, PlannedSowing } from '../contract';
import { boardRow, type Stay } from './board';
import type { Lookup } from './factsFrom';

/** Places that take the same things and treat them alike: one kind of place, cover, depth and light. */
export interface PlaceKind {
  places: Place[];
  /** All their room, m²: a bed's inside, a bench's top. */
  m2: number;
}

/** Beds differ in kind by depth, and all places by light, in steps of this: mm, and a share of the open sky's. */
const DEPTH_STEP_MM = 100;
const LIGHT_STEP = 0.25;

/** Names the kind of a place: places of one name take the same things. */
export function kindOfPlace(place: Place, { covers, light }: Lookup): string {
  const cover = covers?.get(place.id);
  const sky = Math.round((light?.get(place.id) ?? 1) / LIGHT_STEP);
  const depth =
    place.place.kind === 'bed'
      ? Math.round(bedGeometry(place.place.design).value.settledDepthMm / DEPTH_STEP_MM)
      : 0;
  return [place.place.kind, cover?.lowC ?? '', cover?.highC ?? '', sky, depth].join(' ');
}

/** Whether places of two kinds take the same under the same cover, of whatever depth and light. */
export const isUnderTheSame = (kind: string, other: string): boolean =>
  kind.split(' ').slice(0, 3).join(' ') === other.split(' ').slice(0, 3).join(' ');

/** The kinds of places of a yard, and which each place is. */
export function placeKinds(lookup: Lookup): { kinds: PlaceKind[]; kindOf: ReadonlyMap<string, number> } {
  const kinds: PlaceKind[] = [];
  const byName = new Map<string, number>();
  const kindOf = new Map<string, number>();
  for (const place of lookup.places.values()) {
    const name = kindOfPlace(place, lookup);
    const kind = byName.get(name) ?? kinds.push({ places: [], m2: 0 }) - 1;
    byName.set(name, kind);
    kindOf.set(place.id, kind);
    kinds[kind].places.push(place);
    kinds[kind].m2 += roomOfPlace(place);
  }
  return { kinds, kindOf };
}

/** All the room of a place: a bed's inside, a bench's top, m². */
export const roomOfPlace = ({ place }: Place): number =>
  place.kind === 'bed'
    ? bedGeometry(place.design).value.insideAreaM2
    : (place.design.lengthMm * place.design.widthMm) / 1e6;

/** Room free of a kind beside what stays, day by day, m². What is over-full in one place takes nothing from another. */
export function freeOfKind(
  { places, m2 }: PlaceKind,
  stays: readonly Stay[],
  lookup: Lookup,
  from: EpochDay,
  days: number,
): Float64Array {
  const free = new Float64Array(days).fill(m2);
  for (const place of places) {
    const room = roomOfPlace(place);
    for (const span of boardRow(place, stays, lookup, from, from + days)) {
      if (span.share === 0) continue;
      const used = Math.min(1, span.share) * room;
      for (let day = span.from; day < span.until; day++) free[day - from] -= used;
    }
  }
  return free;
}

/**
 * Room that a planned stage takes at least in places of a kind, m²: in a bed its ground; on benches the ranks its trays make on
 * whichever bench wastes least. No place of the kind takes it with less.
 */
export function roomOfStage(
  {
    containerTypeId,
    trays,
    areaM2,
  }: Pick<PlannedSowing['stages'][number], 'containerTypeId' | 'trays' | 'areaM2'>,
  { places }: PlaceKind,
  lookup: Lookup,
): number {
  if (containerTypeId === null) return areaM2 ?? 0;
  const { trayLengthMm, trayWidthMm } = lookup.containers.get(containerTypeId)!.values;
  const isOneWidth =
    new Set(places.map(({ place }) => (place.kind === 'bed' ? 0 : place.design.widthMm))).size === 1;
  let least = Infinity;
  for (const { place } of places) {
    if (place.kind === 'bed') continue;
    const { widthMm } = place.design;
    for (const [along, across] of [
      [trayLengthMm, trayWidthMm],
      [trayWidthMm, trayLengthMm],
    ]) {
      const abreast = Math.floor(widthMm / across);
      if (abreast < 1) continue;
      // Parted over benches of several widths it may fill ranks better than on any one of them.
      const ranks = isOneWidth ? Math.ceil((trays ?? 0) / abreast) : (trays ?? 0) / abreast;
      least = Math.min(least, (ranks * along * widthMm) / 1e6);
    }
  }
  return least;
}
