import {
  cornersOf,
  footprintOf,
  freeSpot,
  nextSpot,
  placeTableLine,
  readPlaceLine,
  Unfit,
  say,
  type BedDesign,
  type PlaceLine,
  type SiteElement,
} from '@kauri/core';
import type { Catalogue, PlaceBody } from '@kauri/core/contract';

type BedBody = Extract<PlaceBody, { kind: 'bed' }>;

/** What the lines of a table are read against. */
export interface PlacesKnown {
  places: Catalogue['places'];
  designs: Catalogue['designs'];
  media: Catalogue['media'];
  elements: readonly SiteElement[];
  /** The carpentry of an ordinary bed of a size. */
  usual: (lengthMm: number, widthMm: number) => BedDesign;
}

/** What a table of places holds: places to add, names that stand already and are left as they are, and what cannot be read. */
export interface PlacesRead {
  added: PlaceBody[];
  there: string[];
  faults: string[];
}

/** Places as lines of a table. */
export function placeLines({ places, media }: Pick<PlacesKnown, 'places' | 'media'>) {
  const mediumNames = new Map(media.map(({ id, values }) => [id, values.name]));
  return places.map(({ place }) => {
    const { name, kind, design, eastM, northM, angleDeg, mediumId } = place;
    const line: PlaceLine = {
      ...{ name, kind, angleDeg, like: '', spot: { eastM, northM } },
      lengthM: design.lengthMm / 1000,
      widthM: design.widthMm / 1000,
      boards: place.kind === 'bed' ? [...place.design.tiers] : [],
      medium: (mediumId !== null && mediumNames.get(mediumId)) || '',
    };
    return placeTableLine(line);
  });
}

/**
 * Places of the lines of a table. Each without a spot is put on free ground, one after another; what has the name of a place
 * that stands is not added again.
 */
export function placesFrom(rows: readonly Record<string, string>[], known: PlacesKnown): PlacesRead {
  const named = (name: string) => name.trim().toLowerCase();
  const standing = new Set(known.places.map(({ place }) => named(place.name)));
  const taken = new Set<string>();
  const [added, there, faults]: [PlaceBody[], string[], string[]] = [[], [], []];
  rows.forEach((row, i) => {
    try {
      const line = readPlaceLine(row);
      if (standing.has(named(line.name))) return void there.push(line.name);
      if (taken.has(named(line.name))) throw new Unfit(say`${line.name} stands in the table twice.`);
      added.push(placeOf(line, known, added));
      taken.add(named(line.name));
    } catch (error) {
      if (!(error instanceof Unfit)) throw error;
      // The header is line 1.
      faults.push(say`Line ${i + 2}: ${error.message}`);
    }
  });
  return { added, there, faults };
}

function placeOf(line: PlaceLine, known: PlacesKnown, before: readonly PlaceBody[]): PlaceBody {
  const [lengthMm, widthMm] = [Math.round(line.lengthM * 1000), Math.round(line.widthM * 1000)];
  const { name, kind, angleDeg } = line;
  const spot =
    line.spot ?? spotFor(line, [...known.places.map(({ place }) => place), ...before], known.elements);
  const at = { name, angleDeg, ...spot, mediumId: mediumOf(line, known.media) };
  if (kind !== 'bed') return { ...at, kind, design: { schema: 1, lengthMm, widthMm, ratedKg: null } };
  const design = designOf(line, lengthMm, widthMm, known) as BedBody['design'];
  return { ...at, kind, design, builtOn: null, builtFrom: null };
}

function designOf(line: PlaceLine, lengthMm: number, widthMm: number, known: PlacesKnown): BedDesign {
  const usual = known.usual(lengthMm, widthMm);
  const design = line.like ? { ...likeness(line.like, known), lengthMm, widthMm } : usual;
  if (!line.boards.length) return design;
  if (design.found) throw new Unfit(say`boards: ${line.like} is not built of boards.`);
  return { ...design, tiers: line.boards };
}

/** The carpentry of a bed that stands, or of a kept design, by its name. */
function likeness(name: string, { places, designs }: PlacesKnown): BedDesign {
  const same = (other: string) => other.trim().toLowerCase() === name.toLowerCase();
  const bed = places.find(({ place }) => place.kind === 'bed' && same(place.name));
  const found = bed ? (bed.place as BedBody).design : designs.find((one) => same(one.name))?.design;
  if (!found) throw new Unfit(say`like: there is no bed or kept design called ${name}.`);
  return found as BedDesign;
}

/** Beds and bays begin with the first medium, benches with one for containers. */
function mediumOf({ kind, medium }: PlaceLine, media: Catalogue['media']): string {
  if (medium === '') {
    const forPots = media.find(({ values }) => values.note.includes('container')) ?? media[media.length - 1];
    return (kind === 'bed' || kind === 'bay' ? media[0] : forPots).id;
  }
  const found = media.find(({ values }) => values.name.toLowerCase() === medium.toLowerCase());
  if (!found) throw new Unfit(say`medium: there is none called ${medium}. Add it under Yard, Media.`);
  return found.id;
}

function spotFor(
  { lengthM, widthM }: PlaceLine,
  places: readonly PlaceBody[],
  elements: readonly SiteElement[],
): { eastM: number; northM: number } {
  const grounds = places.map((place, i) => ({ id: String(i), name: place.name, corners: cornersOf(place) }));
  return freeSpot(lengthM, widthM, grounds, elements) ?? nextSpot(places.map(footprintOf), widthM);
}
