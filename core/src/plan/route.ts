import type { Home } from '../home/home';
import { formOf, type TreeForm } from './orderLine';

/** How a route begins: seed treated so that it is ready to grow, fresh seed that winters wake, or cuttings. */
export const routeStarts = ['treated seed', 'fresh seed', 'cuttings'] as const;
export type RouteStart = (typeof routeStarts)[number];

/**
 * What ends a stage before the last: first true leaves (pricked out), a plug that holds (shifted), or the end of the
 * growing season (lined out or moved up while at rest).
 */
export const stageEnds = ['true leaves', 'plug holds', 'end of season'] as const;
export type StageEnd = (typeof stageEnds)[number];

/** What of a stage of a route its plan rests on. */
export interface StagePlan {
  /** What ends it; null for the last, from which trees leave. */
  ends: StageEnd | null;
  /** Share of its plants that go on, or leave, 0–1. */
  goesOn: number;
  /** Work for a hundred plants at its beginning, hours. */
  hoursPer100: number;
}

/** Form in which a route's trees leave: of its last home. */
export const formOfRoute = (homes: readonly Home[]): TreeForm => formOf(homes[homes.length - 1]);

/**
 * Plants that must stand at the beginning of each stage, so that enough leave the last.
 * @param leave trees that must leave
 * @param stages shares that go on, first stage first
 * @returns whole plants, first stage first
 */
export function plantsByStage(leave: number, stages: readonly Pick<StagePlan, 'goesOn'>[]): number[] {
  const plants: number[] = [];
  let after = leave;
  for (let i = stages.length - 1; i >= 0; i--) {
    after = Math.ceil(after / stages[i].goesOn - 1e-9);
    plants[i] = after;
  }
  return plants;
}
