import { dayOf, type EpochDay } from '../calendar/day';
import { containerVolume } from '../container/container';
import type { PlannedSowing } from '../contract';
import type { Lookup } from './factsFrom';
import { workOf } from './planSeason';

/** A step of the plan: what is sown, stuck or moved on, and where to. */
export interface PlanStep {
  sowing: PlannedSowing;
  /** Of its stages, the first at 0. */
  stage: number;
  on: EpochDay;
  plants: number;
  trays: number | null;
  areaM2: number | null;
  placeId: string;
  containerTypeId: string | null;
  hours: number;
}

/** What a plan asks for besides its steps. */
export interface PlanNeeds {
  /** Hours of sowing and moving, by the Monday of the week. */
  hours: { week: EpochDay; hours: number }[];
  /** Containers: trays filled over all, the most in use on one day, and what fills them, litres. */
  trays: { containerTypeId: string; filled: number; most: number; on: EpochDay; litres: number }[];
  /** Ground of beds, the most on one day, m². */
  beds: { most: number; on: EpochDay } | null;
  /** One for each lot and each place it stands in. */
  labels: number;
}

/** The steps of a plan in the order they come. */
export const stepsOf = (sowings: readonly PlannedSowing[]): PlanStep[] =>
  sowings
    .flatMap((sowing) =>
      sowing.stages.map(({ from, plants, trays, areaM2, placeId, containerTypeId, hoursPer100 }, stage) => ({
        sowing,
        stage,
        on: dayOf(from),
        plants,
        trays,
        areaM2,
        placeId,
        containerTypeId,
        hours: (plants * hoursPer100) / 100,
      })),
    )
    .sort((a, b) => a.on - b.on || a.sowing.speciesId.localeCompare(b.sowing.speciesId));

/** What must be on hand for a plan. Containers no longer in the list are left out. */
export function needsOf(
  sowings: readonly PlannedSowing[],
  { containers }: Pick<Lookup, 'containers'>,
): PlanNeeds {
  const hours = new Map<EpochDay, number>();
  for (const { week, hours: of } of sowings.flatMap(workOf)) hours.set(week, (hours.get(week) ?? 0) + of);
  const stands = sowings.flatMap(({ stages, until }) =>
    stages.map((stage, i) => ({
      ...stage,
      begins: dayOf(stage.from),
      ends: dayOf(i + 1 < stages.length ? stages[i + 1].from : until),
    })),
  );
  type Stand = (typeof stands)[number];
  const peak = (of: readonly Stand[], amount: (stand: Stand) => number) => {
    let most = { most: 0, on: 0 };
    for (const { begins } of of) {
      const now = of.reduce((sum, s) => sum + (s.begins <= begins && begins < s.ends ? amount(s) : 0), 0);
      if (now > most.most + 1e-9) most = { most: now, on: begins };
    }
    return most;
  };
  const byContainer = new Map<string, Stand[]>();
  for (const stand of stands)
    if (stand.containerTypeId !== null && containers.has(stand.containerTypeId))
      byContainer.set(stand.containerTypeId, [...(byContainer.get(stand.containerTypeId) ?? []), stand]);
  const inBeds = stands.filter(({ containerTypeId }) => containerTypeId === null);
  return {
    hours: [...hours].map(([week, of]) => ({ week, hours: of })).sort((a, b) => a.week - b.week),
    trays: [...byContainer].map(([containerTypeId, of]) => {
      const { values } = containers.get(containerTypeId)!;
      const filled = of.reduce((sum, { trays }) => sum + (trays ?? 0), 0);
      return {
        containerTypeId,
        filled,
        litres: (filled * values.cellsPerTray * containerVolume(values).value) / 1000,
        ...peak(of, ({ trays }) => trays ?? 0),
      };
    }),
    beds: inBeds.length ? peak(inBeds, ({ areaM2 }) => areaM2 ?? 0) : null,
    labels: stands.length,
  };
}
