import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { sum, type Worked } from '../working/working';

export interface Lateral {
  emitters: number;
  emitterSpacingM: number;
  nominalFlowLph: number;
  /** Pressure head at which the emitter gives its nominal flow, m of water. */
  nominalPressureM: number;
  /** Of flow on pressure: 0.5 turbulent, 0 pressure-compensating. */
  exponent: number;
  insideDiameterMm: number;
  inletPressureM: number;
  /** Coefficient of variation between emitters as made, for example 0.05. */
  manufacturingCv: number;
}

export interface LateralFlow {
  /** Flow of each emitter, from the inlet on, L/h. */
  flowsLph: number[];
  totalFlowLph: number;
  emissionUniformityPct: number;
  endPressureM: number;
}

/** Below this emission uniformity some plants are drowned or starved. */
export const LEAST_UNIFORMITY_PCT = 85;

/**
 * Flow at each emitter of a drip line by back-stepping from its far end: head lost in each stretch is
 * J = 7.89·10⁷·Q^1.75/D^4.75 m per 100 m (Q in L/s, D in mm), the end pressure found by bisection so that
 * the inlet has the pressure given.
 * @returns flows and the emission uniformity EU = 100(1 − 1.27·CV)·q_min/q_mean
 * @throws Unfit when there is no pressure, or a size is not above 0
 * @see Keller & Bliesner 1990, Sprinkle and Trickle Irrigation
 */
export function lateralUniformity(lateral: Lateral): Worked<LateralFlow> {
  const { emitters, emitterSpacingM, nominalFlowLph, nominalPressureM, insideDiameterMm } = lateral;
  if (!(lateral.inletPressureM > 0))
    throw new Unfit(say`Without pressure at the inlet no water comes out: measure it, or raise the tank.`);
  if (!(Number.isInteger(emitters) && emitters >= 1 && emitters <= 5000))
    throw new Unfit(say`A line has from 1 to 5000 emitters.`);
  if (!(emitterSpacingM > 0 && nominalFlowLph > 0 && nominalPressureM > 0 && insideDiameterMm > 0))
    throw new Unfit(say`Spacing, emitter flow, its pressure and the pipe must all be above 0.`);
  let low = 0;
  let high = lateral.inletPressureM;
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (inletFor(lateral, middle) > lateral.inletPressureM) high = middle;
    else low = middle;
  }
  const flowsLph: number[] = [];
  inletFor(lateral, low, flowsLph);
  flowsLph.reverse();
  const totalFlowLph = flowsLph.reduce((a, b) => a + b, 0);
  const mean = totalFlowLph / emitters;
  const least = Math.min(...flowsLph);
  const emissionUniformityPct = 100 * (1 - 1.27 * lateral.manufacturingCv) * (least / mean);
  return {
    value: { flowsLph, totalFlowLph, emissionUniformityPct, endPressureM: low },
    working: [
      {
        what: say`Pressure at the far end`,
        how: say`Stretch by stretch from the far end: each loses 7.89·10⁷·Q^1.75/D^4.75 m per 100 m in a ${insideDiameterMm} mm pipe.`,
        result: low,
        unit: 'm',
        source: 'Keller & Bliesner 1990',
      },
      {
        what: say`Emission uniformity`,
        expression: sum`100 × (1 − 1.27 × ${lateral.manufacturingCv}) × ${least} ÷ ${mean}`,
        result: emissionUniformityPct,
        unit: '%',
        inputs: [
          { name: say`least flow`, value: least, unit: 'L/h', origin: 'choice' },
          { name: say`mean flow`, value: mean, unit: 'L/h', origin: 'choice' },
        ],
        source: 'Keller & Bliesner 1990',
      },
    ],
  };
}

/** Inlet pressure that an end pressure calls for; flows are noted from the far end on. */
function inletFor(lateral: Lateral, endPressureM: number, flows?: number[]): number {
  let pressure = endPressureM;
  let carried = 0;
  for (let i = 0; i < lateral.emitters; i++) {
    const flow = lateral.nominalFlowLph * (pressure / lateral.nominalPressureM) ** lateral.exponent;
    flows?.push(flow);
    carried += flow;
    const lossPer100 = (7.89e7 * (carried / 3600) ** 1.75) / lateral.insideDiameterMm ** 4.75;
    pressure += (lossPer100 * lateral.emitterSpacingM) / 100;
    if (pressure > 1e6) return Infinity;
  }
  return pressure;
}

/** The most emitters a line of this kind carries with its uniformity at or above a limit; 0 for none. */
export function longestLateral(lateral: Omit<Lateral, 'emitters'>, leastPct = LEAST_UNIFORMITY_PCT): number {
  const good = (emitters: number) =>
    lateralUniformity({ ...lateral, emitters }).value.emissionUniformityPct >= leastPct;
  if (!good(1)) return 0;
  let least = 1;
  let most = 2;
  while (most < 4096 && good(most)) [least, most] = [most, most * 2];
  while (most - least > 1) {
    const middle = (least + most) >> 1;
    if (good(middle)) least = middle;
    else most = middle;
  }
  return least;
}
