import { say } from '../speech/say';
import { survivalGroups, type SurvivalGroup } from '../survival/survivalGroups';
import { Unfit } from '../working/unfit';

/** What is bought in, or dug elsewhere. */
export const arrivalKinds = [
  'liner',
  'bare-root',
  'rooted cutting',
  'graft',
  'dug plant',
  'seedling',
] as const;
export type ArrivalKind = (typeof arrivalKinds)[number];

/** Faults for which a plant that came is not taken. */
export const arrivalFaults = [
  'j-root',
  'one-sided',
  'circling',
  'dry',
  'mouldy',
  'broken',
  'pests',
  'wrong plant',
] as const;
export type ArrivalFault = (typeof arrivalFaults)[number];

/** Plants that came, and what became of them at the door. */
export interface ArrivalCounts {
  count: number;
  accepted: number;
  looked: number;
  failing: number;
}

/**
 * What is wrong with the counts of an arrival.
 * @throws Unfit with a sentence and its field
 */
export function mustAddUp({ count, accepted, looked, failing }: ArrivalCounts): void {
  if (looked > count) throw new Unfit(say`${looked} looked at, but only ${count} came.`, 'looked');
  if (failing > looked) throw new Unfit(say`${failing} with faults, but only ${looked} looked at.`, 'looked');
  if (accepted > count - failing)
    throw new Unfit(
      say`${accepted} taken, but of ${count} that came ${failing} were found with faults.`,
      'accepted',
    );
}

/** What one supplier's plants did, beside the others'. */
export interface SupplierRecord {
  supplier: string;
  arrivals: number;
  /** Share of what came that was taken. */
  taken: SurvivalGroup;
  /** Share that lived once planted; null where none was walked. */
  lived: SurvivalGroup | null;
}

/**
 * Suppliers compared by what of their plants was taken, and what of those lived once planted.
 * @param lived of planted trees, by the lot they came as
 */
export function supplierRecords(
  arrivals: readonly { supplier: string; count: number; accepted: number; lotId: string | null }[],
  lived: readonly { lotId: string; alive: number; dead: number }[],
): SupplierRecord[] {
  const supplierOf = new Map(
    arrivals.flatMap(({ lotId, supplier }) => (lotId === null ? [] : [[lotId, supplier] as const])),
  );
  const walked = survivalGroups(
    lived.flatMap(({ lotId, alive, dead }) => {
      const supplier = supplierOf.get(lotId);
      return supplier === undefined ? [] : [{ group: supplier, alive, dead }];
    }),
  ).groups;
  return survivalGroups(
    arrivals.map(({ supplier, count, accepted }) => ({
      group: supplier,
      alive: accepted,
      dead: count - accepted,
    })),
  ).groups.map((taken) => ({
    supplier: taken.group,
    arrivals: taken.plantings,
    taken,
    lived: walked.find(({ group }) => group === taken.group) ?? null,
  }));
}
