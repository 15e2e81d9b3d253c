import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { normalCdf, normalQuantile } from '../chance/normal';
import { sum, type Worked } from '../working/working';

export interface StoredSeed {
  /** Share alive at the start, between 0 and 1. */
  initial: number;
  /** Days in which the probit of viability falls by one. */
  sigmaDays: number;
}

/**
 * Share of seed still alive after some days in store: probit(v) = Ki − days/σ.
 * @throws Unfit when the share is not between 0 and 1, σ not above 0 or the days below 0
 * @see Ellis & Roberts 1980, Ann. Bot. 45:13
 */
export function viabilityAfter({ initial, sigmaDays }: StoredSeed, days: number): Worked<number> {
  if (!(initial > 0 && initial < 1))
    throw new Unfit(say`The share alive at the start lies between 0 and 100 %.`);
  if (!(sigmaDays > 0)) throw new Unfit(say`The days in which seed loses one probit are above 0.`);
  if (!(days >= 0)) throw new Unfit(say`Days in store are 0 or more: check the dates.`);
  const ki = normalQuantile(initial);
  const probit = ki - days / sigmaDays;
  return {
    value: normalCdf(probit),
    working: [
      {
        what: say`Probit of viability`,
        expression: sum`${ki} − ${days} ÷ ${sigmaDays}`,
        result: probit,
        source: 'Ellis & Roberts 1980',
        inputs: [
          { name: say`days to lose one probit`, value: sigmaDays, unit: 'd', origin: 'starting' },
          { name: say`alive at the start`, value: initial, origin: 'starting' },
        ],
      },
      { what: say`Share alive`, how: say`The normal share below that probit.`, result: normalCdf(probit) },
    ],
  };
}
