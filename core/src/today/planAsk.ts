import type { EpochDay } from '../calendar/day';

/** A sowing that is planned, as Today asks for it. */
export interface PlanAsk {
  sowingId: string;
  /** What it is of, and by which route. */
  name: string;
  route: string;
  isStuck: boolean;
  /** Monday of its week. */
  from: EpochDay;
  /** Plants that must stand after it, and trees it is for. */
  plants: number;
  trees: number;
  /** Share of forecasts in which it was in time, when it was planned. */
  chance: number;
}
