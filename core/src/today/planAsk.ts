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
  /**
   * The day its seed's treatment must begin, how long that takes, and the plants that are to stand of it; null where it needs none,
   * has begun, or is asked for with another sowing.
   */
  treat: { on: EpochDay; days: number; plants: number } | null;
  /** Plants that must stand after it, and trees it is for. */
  plants: number;
  trees: number;
  /** Share of forecasts in which it was in time, when it was planned. */
  chance: number;
}
