import type { Place, PlannedSowing } from '../contract';
import { boardRow, FULL, roomFor, staysOf, type Stay } from './board';
import type { Lookup } from './factsFrom';
import { isUnderTheSame, kindOfPlace } from './placeKinds';

/** Most of a stage's room that a place takes beside what else stands there meanwhile: whole trays, or m² to a tenth. */
function roomIn(
  place: Place,
  stay: Stay,
  stays: readonly Stay[],
  wanted: { trays: number | null; areaM2: number | null },
  lookup: Lookup,
): number {
  const step = wanted.trays === null ? 0.1 : 1;
  const fits = (steps: number) => {
    const amount = steps * step;
    const stage = {
      ...stay.occupant.stage,
      ...(wanted.trays === null ? { areaM2: amount } : { trays: amount }),
    };
    const there = { ...stay, placeId: place.id, occupant: { ...stay.occupant, stage } };
    return boardRow(place, [...stays, there], lookup, stay.from, stay.until).every(
      ({ share, stays: held }) => share <= FULL || !held.includes(there),
    );
  };
  let [low, high] = [0, Math.ceil((wanted.trays ?? wanted.areaM2!) / step - 1e-9)];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (fits(middle)) low = middle;
    else high = middle - 1;
  }
  return low * step;
}

/** A part of a planned sowing: so many of its first plants, and of all that comes of them. */
function partOf(sowing: PlannedSowing, id: string, plants: number, { containers }: Lookup): PlannedSowing {
  const share = plants / sowing.stages[0].plants;
  return {
    ...sowing,
    id,
    wanted: { ...sowing.wanted, trees: Math.max(1, Math.round(sowing.wanted.trees * share)) },
    stages: sowing.stages.map((stage, i) => {
      const of = i === 0 ? plants : Math.max(1, Math.ceil(stage.plants * share));
      return { ...stage, plants: of, ...roomFor(stage, of, containers) };
    }),
  };
}

/** A part is no smaller than this share of the whole: crumbs are not worth a label. */
const LEAST_PART = 0.1;
/** Times a sowing of several stages is parted in two at most. */
const HALVINGS = 3;

/**
 * Finds places for a planned sowing beside all that stands and is planned: where it is like first, then others of the kind,
 * then any that take the same under the same cover, of another depth or light. What no place takes whole is parted over
 * several; what finds no room stays in the last part, where it is over-full.
 * @param newId for each part after the first
 */
export function findPlaces(
  sowing: PlannedSowing,
  stays: readonly Stay[],
  lookup: Lookup,
  newId: () => string,
): PlannedSowing[] {
  const { found, left } = foundIn(sowing, stays, lookup, isUnderTheSame);
  const parts = left > 0 ? [...found, restOf(sowing, found, left, lookup)] : found;
  return parts.map((part, i) => ({ ...part, id: i === 0 ? sowing.id : newId() }));
}

/** What found no place, with the trees that the parts that did leave to it. */
function restOf(
  sowing: PlannedSowing,
  found: readonly PlannedSowing[],
  left: number,
  lookup: Lookup,
): PlannedSowing {
  const rest = partOf(sowing, sowing.id, left, lookup);
  const trees = sowing.wanted.trees - found.reduce((sum, { wanted }) => sum + wanted.trees, 0);
  return { ...rest, wanted: { ...rest.wanted, trees: Math.max(1, trees) } };
}

/**
 * The parts of a planned sowing that find places of the kind it was worked out for, under names of their own, and first plants
 * that find none.
 */
export const roomFound = (sowing: PlannedSowing, stays: readonly Stay[], lookup: Lookup): Found =>
  foundIn(sowing, stays, lookup, (name, of) => name === of);

/** Where it is like, then places of its kind, then others that are close enough to it. */
function foundIn(
  sowing: PlannedSowing,
  stays: readonly Stay[],
  lookup: Lookup,
  isClose: (kind: string, of: string) => boolean,
): Found {
  const choices = (placeId: string) => {
    const like = lookup.places.get(placeId);
    if (!like) return [];
    const kind = kindOfPlace(like, lookup);
    const rank = (place: Place) => (place === like ? 0 : kindOfPlace(place, lookup) === kind ? 1 : 2);
    return [...lookup.places.values()]
      .filter((place) => isClose(kindOfPlace(place, lookup), kind))
      .sort((a, b) => rank(a) - rank(b));
  };
  const { found, left } =
    sowing.stages.length > 1
      ? overStages(sowing, stays, lookup, choices)
      : overPlaces(sowing, stays, lookup, choices);
  // Trees of the parts add up to those of the whole.
  const { plants } = sowing.stages[0];
  const served = Math.floor((sowing.wanted.trees * (plants - left)) / plants + 1e-9);
  const [first, ...rest] = found;
  if (!first) return { found, left };
  const others = rest.reduce((sum, { wanted }) => sum + wanted.trees, 0);
  const trees = Math.max(1, served - others);
  return { found: [{ ...first, wanted: { ...first.wanted, trees } }, ...rest], left };
}

type Choices = (placeId: string) => readonly Place[];
/** Parts that have their places, and first plants that have none. */
export interface Found {
  found: PlannedSowing[];
  left: number;
}

/** One stage: whole where a place takes it, else over the emptiest places first. */
function overPlaces(sowing: PlannedSowing, stays: readonly Stay[], lookup: Lookup, choices: Choices): Found {
  const [stage] = sowing.stages;
  const [stay] = staysOf(sowing);
  const whole = stage.trays ?? stage.areaM2!;
  const perUnit = stage.plants / whole;
  const rooms = choices(stage.placeId).map((place) => ({
    place,
    room: roomIn(place, stay, stays, stage, lookup),
  }));
  const at = (part: PlannedSowing, placeId: string) => ({
    ...part,
    stages: [{ ...part.stages[0], placeId }],
  });
  const one = rooms.find(({ room }) => room >= whole - 1e-6);
  if (one) return { found: [at(sowing, one.place.id)], left: 0 };
  const found: PlannedSowing[] = [];
  const least = Math.max(1, Math.floor(LEAST_PART * stage.plants));
  let left = stage.plants;
  for (const { place, room } of [...rooms].sort((a, b) => b.room - a.room)) {
    const most = Math.floor(room * perUnit + 1e-6);
    if (most < least) continue;
    const rest = left - most;
    const plants = rest <= 0 ? left : rest < least ? left - least : most;
    found.push(at(partOf(sowing, `${sowing.id} ${found.length}`, plants, lookup), place.id));
    left -= plants;
    if (left === 0) break;
  }
  return { found, left };
}

/** Several stages: whole where each finds a place, else in halves, and their halves. */
function overStages(
  sowing: PlannedSowing,
  stays: readonly Stay[],
  lookup: Lookup,
  choices: Choices,
  halvings = HALVINGS,
): Found {
  const placed = sowing.stages.map((stage, i) => {
    const stay = staysOf(sowing)[i];
    const whole = stage.trays ?? stage.areaM2!;
    return choices(stage.placeId).find(
      (choice) => roomIn(choice, stay, stays, stage, lookup) >= whole - 1e-6,
    );
  });
  if (placed.every((place) => place !== undefined))
    return {
      found: [{ ...sowing, stages: sowing.stages.map((stage, i) => ({ ...stage, placeId: placed[i]!.id })) }],
      left: 0,
    };
  const { plants } = sowing.stages[0];
  if (halvings === 0 || plants < 2) return { found: [], left: plants };
  const half = Math.ceil(plants / 2);
  const first = overStages(
    partOf(sowing, `${sowing.id} a`, half, lookup),
    stays,
    lookup,
    choices,
    halvings - 1,
  );
  const second = overStages(
    partOf(sowing, `${sowing.id} b`, plants - half, lookup),
    [...stays, ...first.found.flatMap(staysOf)],
    lookup,
    choices,
    halvings - 1,
  );
  return { found: [...first.found, ...second.found], left: first.left + second.left };
}
