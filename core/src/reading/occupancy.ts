import { say } from '../speech/say';
import { bedGeometry } from '../bed/geometry';
import { liftedOf, type Tally } from '../ledger/ledger';
import type { Place, Stage } from '../contract';
import type { Lookup } from './factsFrom';
import { put, sum, type Step } from '../working/working';
import { benchLayout, type BenchLayout } from '../capacity/benchLayout';

/** A lot standing somewhere. */
export interface Occupant {
  lotId: string;
  stage: Pick<Stage, 'containerTypeId' | 'trays' | 'areaM2'>;
  /** Times the room its trays have packed tight, where they were set apart. */
  apart?: number;
  /** Share of its ground it still takes, 0–1: what was lifted gives its room back. */
  share?: number;
}

/** Share of a bed lot's ground that still has something on it, by what it holds. */
export function shareLeft(held: Pick<Tally, 'sown' | 'standing' | 'lifted' | 'sent' | 'planted'>): number {
  const left = held.sown + held.standing;
  const gone = liftedOf(held);
  return gone > 0 ? left / (left + gone) : 1;
}

/** A stretch of a bed one lot stands on, mm along its inside. */
export interface BedStretch {
  lotId: string;
  fromMm: number;
  toMm: number;
}

/** What stands in a place and what room is left. */
export type Occupancy =
  | {
      kind: 'bed';
      insideAreaM2: number;
      usedM2: number;
      freeM2: number;
      stretches: BedStretch[];
      working: Step[];
    }
  | { kind: 'bench'; layout: BenchLayout; working: Step[] };

/**
 * Room taken and left in a place by the lots standing in it: area of a bed, whole trays on a bench.
 * @throws Unfit when the place's design cannot be built
 */
export function occupancyOf({ place }: Place, occupants: readonly Occupant[], lookup: Lookup): Occupancy {
  if (place.kind !== 'bed') {
    const loads = occupants.flatMap(({ lotId, stage, apart = 1 }) => {
      const container =
        stage.containerTypeId === null ? undefined : lookup.containers.get(stage.containerTypeId);
      if (!container || stage.trays === null) return [];
      const { trayLengthMm, trayWidthMm } = container.values;
      // Set apart, a lot's cells take more trays than they came in.
      const trays = Math.ceil(stage.trays * apart - 1e-9);
      return [{ lotId, trays, tray: { lengthMm: trayLengthMm, widthMm: trayWidthMm } }];
    });
    const { value, working } = benchLayout(place.design, loads);
    return { kind: 'bench', layout: value, working };
  }
  const { insideAreaM2, insideWidthMm } = bedGeometry(place.design).value;
  let along = 0;
  const areaOf = ({ stage, share = 1 }: Occupant) => (stage.areaM2 ?? 0) * share;
  const stretches = occupants.map((occupant) => {
    const fromMm = along;
    along += (areaOf(occupant) * 1e6) / insideWidthMm;
    return { lotId: occupant.lotId, fromMm, toMm: along };
  });
  const usedM2 = occupants.reduce((total, occupant) => total + areaOf(occupant), 0);
  return {
    kind: 'bed',
    insideAreaM2,
    usedM2,
    freeM2: insideAreaM2 - usedM2,
    stretches,
    working: [
      {
        what: say`Area taken by the lots standing`,
        expression: occupants.length
          ? occupants
              .map(({ stage, share = 1 }) =>
                share < 1 ? sum`${stage.areaM2 ?? 0} × ${share}` : put(stage.areaM2 ?? 0),
              )
              .join(' + ')
          : '0',
        result: usedM2,
        unit: 'm²',
      },
      {
        what: say`Area left`,
        expression: sum`${insideAreaM2} − ${usedM2}`,
        result: insideAreaM2 - usedM2,
        unit: 'm²',
      },
    ],
  };
}
