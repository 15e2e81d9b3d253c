import { dayOf, isoOf, type EpochDay } from '../calendar/day';
import type { ContainerType, Place, PlannedSowing, RaisingRoute, RouteStage } from '../contract';
import { plantsByStage } from '../plan/route';
import type { RoutePoint, TreesWanted } from '../plan/routeSowing';
import { Unfit } from '../working/unfit';
import type { Lookup } from './factsFrom';
import { occupancyOf, type Occupant } from './occupancy';

/** Something standing in a place from a day until the day before another, or planned to. */
export interface Stay {
  id: string;
  placeId: string;
  from: EpochDay;
  until: EpochDay;
  isPlanned: boolean;
  occupant: Occupant;
  /** Day from which it could leave; Infinity where it cannot before its end. */
  mayLeaveFrom: EpochDay;
}

/** A stretch of days on which a place holds the same. */
export interface BoardSpan {
  from: EpochDay;
  until: EpochDay;
  stays: readonly Stay[];
  /** Share of the place that is filled; above 1 it is over-full. */
  share: number;
  /** By how much it is over-full: m² of a bed, mm of a bench's length; 0 where it is not. */
  over: number;
  /** Why what stands there cannot be laid out at all. */
  fault: string | null;
}

/** What is filled to this share of itself is full: figures of areas are rounded. */
export const FULL = 1 + 1e-6;

/**
 * What a place holds from a day until another: a stretch for every change of what stands there, filled as `occupancyOf`
 * says of any of its days.
 */
export function boardRow(
  place: Place,
  stays: readonly Stay[],
  lookup: Lookup,
  from: EpochDay,
  until: EpochDay,
): BoardSpan[] {
  const here = stays.filter((stay) => stay.placeId === place.id && stay.from < until && stay.until > from);
  const changes = new Set([from]);
  for (const stay of here) {
    if (stay.from > from) changes.add(stay.from);
    if (stay.until < until) changes.add(stay.until);
  }
  const days = [...changes].sort((a, b) => a - b);
  return days.map((day, i) => {
    const standing = here.filter((stay) => stay.from <= day && day < stay.until);
    return { from: day, until: days[i + 1] ?? until, stays: standing, ...filled(place, standing, lookup) };
  });
}

function filled(
  place: Place,
  stays: readonly Stay[],
  lookup: Lookup,
): Pick<BoardSpan, 'share' | 'over' | 'fault'> {
  if (!stays.length) return { share: 0, over: 0, fault: null };
  try {
    const occupancy = occupancyOf(
      place,
      stays.map(({ occupant }) => occupant),
      lookup,
    );
    const [used, all] =
      occupancy.kind === 'bed'
        ? [occupancy.usedM2, occupancy.insideAreaM2]
        : [occupancy.layout.usedLengthMm, occupancy.layout.usedLengthMm + occupancy.layout.freeLengthMm];
    const share = used / all;
    return { share, over: share > FULL ? used - all : 0, fault: null };
  } catch (error) {
    if (!(error instanceof Unfit)) throw error;
    return { share: Infinity, over: Infinity, fault: error.message };
  }
}

/**
 * How full some places are together, week by week on its first day: share of all their room. What is over-full in one of them is
 * full, and fills no other.
 * @param places rows of the board from the same day, with the room of each, m²
 */
export function fillTogether(
  places: readonly { m2: number; spans: readonly BoardSpan[] }[],
  from: EpochDay,
  weeks: number,
): Float64Array {
  const used = new Float64Array(weeks);
  for (const { m2, spans } of places)
    for (const { from: begins, until, share } of spans) {
      if (share === 0) continue;
      const end = Math.min(weeks, Math.ceil((until - from) / 7));
      for (let week = Math.max(0, Math.ceil((begins - from) / 7)); week < end; week++)
        used[week] += Math.min(1, share) * m2;
    }
  const all = places.reduce((sum, { m2 }) => sum + m2, 0);
  return all > 0 ? used.map((m2) => m2 / all) : used;
}

/** Stretches in which a place holds more than it can, each with what stands there when it is worst; the worst first. */
export function overFull(spans: readonly BoardSpan[]): BoardSpan[] {
  const stretches: BoardSpan[] = [];
  for (const span of spans.filter(({ share }) => share > FULL)) {
    const last = stretches.at(-1);
    if (last?.until !== span.from) stretches.push({ ...span });
    else
      Object.assign(last, { ...(span.share > last.share ? span : last), from: last.from, until: span.until });
  }
  return stretches.sort((a, b) => b.share - a.share);
}

/** What of an over-full stretch could leave by its first day, the soonest ready first. */
export const couldGive = ({ stays, from }: BoardSpan): Stay[] =>
  stays.filter((stay) => stay.mayLeaveFrom <= from).sort((a, b) => a.mayLeaveFrom - b.mayLeaveFrom);

/** Room that plants take in a stage: whole trays, or ground of a bed. */
export function roomFor(
  { containerTypeId, densityPerM2 }: Pick<RouteStage, 'containerTypeId' | 'densityPerM2'>,
  plants: number,
  containers: ReadonlyMap<string, ContainerType>,
): { trays: number | null; areaM2: number | null } {
  if (containerTypeId === null)
    return { trays: null, areaM2: Math.ceil((plants / densityPerM2!) * 1e3 - 1e-6) / 1e3 };
  const { cellsPerTray, kind } = containers.get(containerTypeId)!.values;
  return { trays: Math.ceil(plants / (kind === 'flat' ? SEEDLINGS_A_FLAT : cellsPerTray)), areaM2: null };
}

/** Seedlings that come up in an open flat before they are pricked out; a rule of thumb. */
const SEEDLINGS_A_FLAT = 200;

/** Where a planned sowing stands in turn, and until when. */
export function staysOf({ id, stages, until }: PlannedSowing): Stay[] {
  return stages.map((stage, i) => ({
    id,
    placeId: stage.placeId,
    from: dayOf(stage.from),
    until: i + 1 < stages.length ? dayOf(stages[i + 1].from) : dayOf(until),
    isPlanned: true,
    occupant: { lotId: id, stage },
    mayLeaveFrom: Infinity,
  }));
}

/** What a sowing is planned for. */
export interface SowingAim {
  lineId: string | null;
  wanted: TreesWanted;
  trees: number;
}

/** A sowing as it is planned: its stages from the days they begin, with plants and room enough for the trees wanted. */
export function planSowing(
  id: string,
  route: Pick<RaisingRoute, 'speciesId' | 'name' | 'start' | 'cutting' | 'stages'>,
  point: RoutePoint,
  { lineId, wanted, trees }: SowingAim,
  containers: ReadonlyMap<string, ContainerType>,
  today: EpochDay,
): PlannedSowing {
  const plants = plantsByStage(Math.ceil(trees / Math.max(0.01, point.serves)), route.stages);
  const last = Math.max(point.on, ...point.begins);
  return {
    id,
    speciesId: route.speciesId,
    lineId,
    route: route.name,
    start: route.start,
    cutting: route.cutting,
    wanted: {
      on: isoOf(wanted.on),
      until: isoOf(wanted.until),
      fromCm: wanted.fromCm,
      toCm: wanted.toCm,
      trees,
      chance: wanted.chance,
    },
    stages: point.begins.map((from, i) => ({
      ...route.stages[i],
      from: isoOf(from),
      plants: plants[i],
      ...roomFor(route.stages[i], plants[i], containers),
    })),
    until: isoOf(Math.max(last + 1, wanted.until)),
    chance: point.chance,
    workedOn: isoOf(today),
    pinned: false,
  };
}
