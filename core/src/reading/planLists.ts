import { dayFrom, dayOf, mondayOf, partsOf, type EpochDay } from '../calendar/day';
import { containerVolume } from '../container/container';
import type { PlannedSowing, Species } from '../contract';
import type { EvaporationAhead } from '../water/evaporationAhead';
import type { Lookup } from './factsFrom';
import { workOf } from './planSeason';
import { treatmentDays } from './routeLot';
import { waterInWeek } from './sowingCost';

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

/** Seed of a species that must be put under treatment for planned sowings of one day. */
export interface TreatmentToBegin {
  speciesId: string;
  /** The day, at the pace of a cold store and a warm room. */
  on: EpochDay;
  days: number;
  sowings: PlannedSowing[];
}

/** Treatments that planned sowings ask for, the first to begin first. */
export function treatmentsOf(
  sowings: readonly PlannedSowing[],
  species: ReadonlyMap<string, Species>,
): TreatmentToBegin[] {
  const treatments = new Map<string, TreatmentToBegin>();
  for (const sowing of sowings) {
    const { speciesId, start, stages } = sowing;
    const kind = species.get(speciesId);
    const days = kind && start === 'treated seed' ? treatmentDays(kind) : 0;
    if (days === 0) continue;
    const key = `${speciesId} ${stages[0].from}`;
    const same = treatments.get(key);
    if (same) same.sowings.push(sowing);
    else treatments.set(key, { speciesId, on: dayOf(stages[0].from) - days, days, sowings: [sowing] });
  }
  return [...treatments.values()].sort((a, b) => a.on - b.on);
}

/** Money paid out, by the first day of the month. */
export function cashByMonth(
  payments: readonly { on: EpochDay; money: number }[],
): { month: EpochDay; money: number }[] {
  const months = new Map<EpochDay, number>();
  for (const { on, money } of payments) {
    const { year, month } = partsOf(on);
    const first = dayFrom(year, month, 1);
    months.set(first, (months.get(first) ?? 0) + money);
  }
  return [...months].map(([month, money]) => ({ month, money })).sort((a, b) => a.month - b.month);
}

/** The week in which planned sowings drink most, and how much, litres; null where they drink nothing. */
export function waterPeak(
  sowings: readonly PlannedSowing[],
  lookup: Pick<Lookup, 'containers'>,
  evaporation: EvaporationAhead,
): { week: EpochDay; litres: number } | null {
  const days = sowings.flatMap(({ stages, until }) => [dayOf(stages[0].from), dayOf(until)]);
  let peak: { week: EpochDay; litres: number } | null = null;
  for (let week = mondayOf(Math.min(...days)); week <= Math.max(...days); week += 7) {
    const litres = waterInWeek(sowings, week, lookup, evaporation);
    if (litres > (peak?.litres ?? 0)) peak = { week, litres };
  }
  return peak;
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
