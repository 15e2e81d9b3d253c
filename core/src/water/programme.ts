import { say } from '../speech/say';
import { sum, type Worked } from '../working/working';

/** How one place wants to be watered in a week. */
export interface Thirst {
  name: string;
  /** Days between waterings; Infinity where rain does it. */
  everyDays: number;
  /** Minutes that fill it from its dry-down. */
  runMinutes: number;
}

export interface ZoneRun {
  /** 0 when nothing in the zone needs water. */
  minutes: number;
  everyDays: number;
}

/** Longest interval a timer is set to, days. */
const LONGEST_DAYS = 60;

/**
 * One run time and interval for places on one valve: as often as the thirstiest wants it, as long as the one
 * that lost most by then needs.
 */
export function zoneRun(places: readonly Thirst[]): Worked<ZoneRun> {
  const thirsty = places.filter((p) => p.everyDays < LONGEST_DAYS && p.runMinutes > 0);
  if (!thirsty.length)
    return {
      value: { minutes: 0, everyDays: LONGEST_DAYS },
      working: [
        {
          what: say`Run time`,
          how: say`Rain is enough for every place of the zone.`,
          result: 0,
          unit: 'min',
        },
      ],
    };
  const everyDays = Math.max(1, Math.floor(Math.min(...thirsty.map((p) => p.everyDays))));
  const need = (p: Thirst) => p.runMinutes * Math.min(1, everyDays / p.everyDays);
  const most = thirsty.reduce((a, b) => (need(b) > need(a) ? b : a));
  const minutes = Math.ceil(need(most) - 1e-9);
  return {
    value: { minutes, everyDays },
    working: [
      {
        what: say`Days between runs, whole, of the thirstiest`,
        expression: `max(1, floor(min(${thirsty.map((p) => sum`${p.everyDays}`).join(', ')})))`,
        result: everyDays,
        unit: 'd',
      },
      {
        what: say`Run time that ${most.name} needs by then`,
        expression: sum`${most.runMinutes} × min(1, ${everyDays} ÷ ${most.everyDays})`,
        result: need(most),
        unit: 'min',
      },
    ],
  };
}

/** What to buy for the drip of one bed. */
export interface DripParts {
  lineM: number;
  manifoldM: number;
  emitters: number;
  /** One where each line leaves the manifold. */
  connectors: number;
  /** One at each line's end; none where ends are joined to a loop. */
  endPlugs: number;
}

/** Parts of a bed's drip: lines to its far end, a manifold across its head, a loop across its foot if wanted. */
export function dripParts(
  insideLengthMm: number,
  insideWidthMm: number,
  lines: number,
  emitters: number,
  looped: boolean,
): DripParts {
  const across = insideWidthMm / 1000;
  return {
    lineM: (lines * insideLengthMm) / 1000,
    manifoldM: across * (looped ? 2 : 1),
    emitters,
    connectors: lines * (looped ? 2 : 1),
    endPlugs: looped ? 0 : lines,
  };
}
