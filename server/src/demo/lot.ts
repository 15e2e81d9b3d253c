import type { RootsMoving, School } from '@kauri/core';
import type { DemoRoots } from './roots';

/** A demo lot: what was sown where. Days are in the season year counted from `season` 0, this one. */
export interface DemoLot {
  code: string;
  species: string;
  place: string;
  /** Container and trays, or density and area. */
  in: { container: string; trays: number } | { density: number; area: number };
  season: number;
  /** Day sown, as month and day of the northern calendar; the south is half a year on. */
  sown: readonly [month: number, day: number];
  fresh?: true;
  seeds: number;
  target: number;
  vigour?: number;
  /** Nothing came up. */
  fails?: true;
  /** Lifted last winter: all of it, or a share. */
  lifted?: number;
  note?: string;
  /** Share of the seed that comes up, where it is not left to the models. */
  share?: number;
  /** Sown from a bag: after a treatment of its own, if it has one, and in a patch of the bed. */
  from?: {
    bag: string;
    arm?: { name: string; school: School; phases: string; days: number };
    patch?: readonly [fromMm: number, toMm: number, rows: number];
    /** Share of seedlings with several stems. */
    multi?: number;
  };
  /** Plants pulled and looked at, root by root. */
  roots?: DemoRoots;
  /** Moved on as a whole, so many days after it came up. */
  moved?: { after: number; container: string; trays: number; roots: RootsMoving };
  /** Stuck as hardwood cuttings of a stock bed. */
  stuck?: string;
  /** Pricked out of it once up: code, container, trays, seedlings. */
  pricked?: readonly {
    code: string;
    container: string;
    trays: number;
    count: number;
    size: string;
    place: string;
  }[];
}
