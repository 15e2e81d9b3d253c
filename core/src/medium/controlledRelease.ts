import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { put, type Worked } from '../working/working';

const RATED_AT_C = 21;
export const DAYS_PER_MONTH = 30.4;
/** ln 5: the rating is the time to 80 % released. */
export const TO_80_PERCENT = 1.609;

/** How far a controlled-release feed has run. */
export interface Release {
  /** 1 at the rated life. */
  progress: number;
  /** Share of the nutrients let go, 0–1. */
  released: number;
}

/**
 * Nutrients released by coated prills rated in months at 21 °C; the rate doubles with every 10 °C.
 * @param meanTempsC mean temperature of the medium, day by day
 * @param ratedMonths above 0
 * @throws Unfit when the rating is not above 0
 */
export function controlledRelease({
  meanTempsC,
  ratedMonths,
}: {
  meanTempsC: readonly number[];
  ratedMonths: number;
}): Worked<Release> {
  if (!(ratedMonths > 0)) throw new Unfit(say`A feed is rated in months above 0.`);
  const days = meanTempsC.reduce((total, t) => total + dayAt21(t), 0);
  const progress = days / (DAYS_PER_MONTH * ratedMonths);
  const released = 1 - Math.exp(-TO_80_PERCENT * progress);
  return {
    value: { progress, released },
    working: [
      {
        what: say`Days at 21 °C that the days so far are worth`,
        how: say`Each day counts 2^((mean − 21) ÷ 10).`,
        result: days,
        unit: 'd',
      },
      {
        what: say`Share of the rated life run`,
        expression: `${put(days)} ÷ (${DAYS_PER_MONTH} × ${put(ratedMonths)})`,
        result: progress,
      },
      {
        what: say`Share of the feed released`,
        expression: say`1 − exp(−${TO_80_PERCENT} × ${put(progress)})`,
        result: released,
        source: 'First order, 80 % at the rated life at 21 °C; rate doubling per 10 °C',
      },
    ],
  };
}

/** What one day at a temperature counts for in days at 21 °C. */
export function dayAt21(meanC: number): number {
  return 2 ** ((meanC - RATED_AT_C) / 10);
}
