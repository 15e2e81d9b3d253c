import { dayOf, type EpochDay } from '../calendar/day';
import type { PlantedPart, Planting, Plantings, Walk, WalkSheet } from '../contract';
import type { TreeForm } from '../plan/orderLine';
import { guardHeat, heatRisk, type GuardHeat, type HeatDay } from '../survival/collarHeat';
import { livingNow, walkDue, type LivingNow } from '../survival/livingNow';
import { placeInRows } from '../survival/drawWalk';
import { guardNames, livingOf, treeStates, type Guard } from '../survival/trees';
import type { PlantingAsk } from '../today/plantingAsk';
import type { WeatherSeries } from '../weather/series';

/** A planting as it is known on a day. */
export interface PlantingSeen {
  planting: Planting;
  parts: PlantedPart[];
  trees: number;
  /** First day on which anything was planted; null while nothing is. */
  since: EpochDay | null;
  /** Walks ended by that day, the last first; and one that is under way. */
  walks: Walk[];
  underWay: Walk | null;
  /** Living trees by its last walk, of those it was about. */
  living: LivingNow | null;
  /** Trees found dead or missing on the last walk. */
  gone: number;
  due: { due: EpochDay; autumn: number } | null;
  /** The hottest of the last days in a guard that stands there now, where it is a risk. */
  heat: (GuardHeat & { on: EpochDay; guard: Guard; trees: number; risk: 'scorch' | 'near' }) | null;
}

/** Heat is told of for so many days after it was measured. */
export const HEAT_DAYS = 3;

/** The days measured last up to one, as {@link plantingSeen} needs them. */
export function lastHeatDays({ start, tMinC, tMaxC }: WeatherSeries, day: EpochDay): HeatDay[] {
  return Array.from({ length: HEAT_DAYS }, (_, i) => day - i)
    .map((one) => ({ day: one, tMinC: tMinC[one - start], tMaxC: tMaxC[one - start] }))
    .filter((one) => one.tMinC <= one.tMaxC);
}

/**
 * A planting on a day: what stands there, how it fares by its walks, and what it asks for.
 * @param weather days measured up to that one; others are left out
 */
export function plantingSeen(
  planting: Planting,
  walks: readonly Walk[],
  weather: readonly HeatDay[],
  latitudeDeg: number,
  day: EpochDay,
): PlantingSeen {
  const parts = planting.parts.filter(({ on }) => dayOf(on) <= day);
  const trees = parts.reduce((sum, { count }) => sum + count, 0);
  const since = parts.length ? Math.min(...parts.map(({ on }) => dayOf(on))) : null;
  const mine = walks.filter(({ plantingId, on }) => plantingId === planting.id && dayOf(on) <= day);
  const ended = mine
    .filter(({ endedAt }) => endedAt !== null)
    .sort((a, b) => b.on.localeCompare(a.on) || b.endedAt!.localeCompare(a.endedAt!));
  const last = ended.find(({ found }) => found.length) ?? null;
  const found = last ? totalOf(last) : { alive: 0, dead: 0 };
  const about = last
    ? parts.filter(({ on }) => on < last.on).reduce((sum, { count }) => sum + count, 0)
    : trees;
  return {
    planting,
    parts,
    trees,
    since,
    walks: ended,
    underWay: mine.find(({ endedAt }) => endedAt === null) ?? null,
    living: last ? livingNow(about, found) : null,
    gone: found.dead,
    due:
      since === null
        ? null
        : walkDue(
            since,
            ended.map(({ on }) => dayOf(on)),
            latitudeDeg,
            day,
          ),
    heat: heatOf(parts, weather, latitudeDeg, day),
  };
}

function totalOf({ found }: Walk): { alive: number; dead: number } {
  let [alive, dead] = [0, 0];
  for (const part of found) {
    const of = livingOf(part.found);
    alive += of.alive;
    dead += of.dead;
  }
  return { alive, dead };
}

/** Conifers and broad-leaved alike: the hottest hour of the last days in the guards that stand there. */
function heatOf(
  parts: readonly PlantedPart[],
  weather: readonly HeatDay[],
  latitudeDeg: number,
  day: EpochDay,
): PlantingSeen['heat'] {
  const recent = weather.filter((one) => one.day <= day && one.day > day - HEAT_DAYS);
  let hottest: PlantingSeen['heat'] = null;
  for (const guard of guardNames) {
    if (guard === 'none') continue;
    const trees = parts.reduce((sum, part) => sum + (part.guardNow === guard ? part.count : 0), 0);
    if (trees === 0) continue;
    for (const one of recent) {
      // Still air, as on the hot days that matter: the nursery's wind is not the planting's.
      const heat = guardHeat({ ...one, windMs: undefined }, latitudeDeg, guard);
      const risk = heatRisk(heat);
      if (risk && heat.highestC > (hottest?.highestC ?? -Infinity))
        hottest = { ...heat, on: one.day, guard, trees, risk };
    }
  }
  return hottest;
}

/** What plantings ask for on a day: a walk that is due, guards that overheat. */
export function plantingAsks(
  { plantings, walks }: Plantings,
  weather: readonly HeatDay[],
  latitudeDeg: number,
  day: EpochDay,
): PlantingAsk[] {
  return plantings.flatMap((planting): PlantingAsk[] => {
    const { trees, due, heat, underWay } = plantingSeen(planting, walks, weather, latitudeDeg, day);
    const of = { plantingId: planting.id, name: planting.name };
    return [
      ...(heat && heat.guard !== 'none'
        ? [
            {
              ...of,
              kind: 'heat' as const,
              trees: heat.trees,
              on: heat.on,
              guard: heat.guard,
              insideC: heat.highestC,
              airC: heat.airC,
              scorch: heat.risk === 'scorch',
            },
          ]
        : []),
      ...(due && due.due - day <= WALK_LEAD_DAYS && !underWay
        ? [{ ...of, kind: 'walk' as const, trees, due: due.due, autumn: due.autumn }]
        : []),
    ];
  });
}

/** A walk is asked for so long before it is due, days. */
const WALK_LEAD_DAYS = 14;

/** Trees of one part as the last walk that looked at them found them, with all they may be compared by. */
export interface PlantedCase {
  partId: string;
  plantingId: string;
  planting: string;
  lotId: string;
  code: string;
  speciesId: string;
  form: TreeForm;
  raisedIn: string;
  fromCm: number | null;
  toCm: number | null;
  ground: Planting['ground'];
  guard: Guard;
  planter: string;
  on: EpochDay;
  walkedOn: EpochDay;
  alive: number;
  dead: number;
}

/** Every part of every planting that was walked, by its last walk up to a day. */
export function plantedCases({ plantings, walks }: Plantings, day: EpochDay): PlantedCase[] {
  const last = new Map<string, { walk: Walk; alive: number; dead: number }>();
  const ended = walks
    .filter(({ endedAt, on }) => endedAt !== null && dayOf(on) <= day)
    .sort((a, b) => a.on.localeCompare(b.on) || a.endedAt!.localeCompare(b.endedAt!));
  for (const walk of ended)
    for (const { partId, found } of walk.found) last.set(partId, { walk, ...livingOf(found) });
  return plantings.flatMap(({ id: plantingId, name: planting, ground, parts }) =>
    parts.flatMap((part): PlantedCase[] => {
      const seen = last.get(part.id);
      if (!seen) return [];
      const { lotId, code, speciesId, form, raisedIn, fromCm, toCm, guard, planter, on } = part;
      return [
        {
          ...{ partId: part.id, plantingId, planting, lotId, code, speciesId, form, raisedIn, fromCm, toCm },
          ...{ ground, guard, planter, on: dayOf(on), walkedOn: dayOf(seen.walk.on) },
          ...{ alive: seen.alive, dead: seen.dead },
        },
      ];
    }),
  );
}

/** Trees of each part before its first, in planting order: tree n of a part stands at that place plus n. */
export function placesBefore({ parts }: Pick<Planting, 'parts'>): ReadonlyMap<string, number> {
  const before = new Map<string, number>();
  let trees = 0;
  for (const { id, count } of parts) {
    before.set(id, trees);
    trees += count;
  }
  return before;
}

/** Places in rows where a walk found a tree dead or missing: where one is to be replaced, row by row. */
export function placesToReplace(
  planting: Planting,
  marks: WalkSheet['marks'],
): { row: number; at: number[] }[] {
  if (planting.layout.kind !== 'rows') return [];
  const before = placesBefore(planting);
  const rows = new Map<number, number[]>();
  for (const { partId, number, state } of marks) {
    const begin = before.get(partId);
    if (begin === undefined || treeStates[state].lives) continue;
    const { row, at } = placeInRows(begin + number, planting.layout)!;
    rows.set(row, [...(rows.get(row) ?? []), at]);
  }
  return [...rows].map(([row, at]) => ({ row, at: at.sort((a, b) => a - b) })).sort((a, b) => a.row - b.row);
}

/** What planted trees may be compared by. */
export const comparedBy = [
  'species',
  'raised',
  'size',
  'ground',
  'guard',
  'planter',
  'planting',
  'lot',
  'roots',
  'supplier',
  'season',
] as const;
export type ComparedBy = (typeof comparedBy)[number];

/** Trees up to these heights, cm, are compared with one another; the last class has no end. */
const SIZE_CLASSES_CM = [20, 40, 60, 90, 120];

/** Class of a grade's heights by their middle, cm; null where it was not graded by height. */
export function sizeClassOf({ fromCm, toCm }: Pick<PlantedCase, 'fromCm' | 'toCm'>): {
  fromCm: number | null;
  toCm: number | null;
} | null {
  if (fromCm === null && toCm === null) return null;
  const middle = fromCm === null ? toCm! - 1 : toCm === null ? fromCm + 1 : (fromCm + toCm) / 2;
  const at = SIZE_CLASSES_CM.findIndex((limit) => middle < limit);
  const end = at < 0 ? SIZE_CLASSES_CM.length : at;
  return { fromCm: SIZE_CLASSES_CM[end - 1] ?? null, toCm: SIZE_CLASSES_CM[end] ?? null };
}

/** Trees of a species that a planting has lost, as far as is known, and the part to replace them like. */
export interface Gone {
  speciesId: string;
  gone: number;
  part: PlantedPart;
}

/**
 * Trees to replace, by species: those found dead or missing on the last walk, reckoned up to all it was about where it looked
 * at some, less what was planted of the species since.
 */
export function goneOf({ parts, walks }: Pick<PlantingSeen, 'parts' | 'walks'>): Gone[] {
  const last = walks.find(({ found }) => found.length);
  if (!last) return [];
  const bySpecies = new Map<string, PlantedPart[]>();
  for (const part of parts) bySpecies.set(part.speciesId, [...(bySpecies.get(part.speciesId) ?? []), part]);
  return [...bySpecies].flatMap(([speciesId, of]): Gone[] => {
    const before = of.filter(({ on }) => on < last.on);
    const trees = (these: readonly PlantedPart[]) => these.reduce((sum, { count }) => sum + count, 0);
    const seen = last.found.filter(({ partId }) => before.some(({ id }) => id === partId));
    let [alive, dead] = [0, 0];
    for (const { found } of seen) {
      const counts = livingOf(found);
      alive += counts.alive;
      dead += counts.dead;
    }
    const living = livingNow(trees(before), { alive, dead });
    if (!living || dead === 0) return [];
    // On a walk of every tree that was ended early, what nobody looked at is not taken for dead.
    const lost = last.kind === 'sample' ? living.trees - living.alive : dead;
    const gone = lost - (trees(of) - trees(before));
    return gone > 0 ? [{ speciesId, gone, part: before[0] }] : [];
  });
}
