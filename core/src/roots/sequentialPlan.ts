import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { betaCdf, jeffreys } from '../chance/betaCdf';
import { sum, type Step, type Worked } from '../working/working';

/** What a lot may fail, and how often the plan may be wrong. Shares and risks, 0–1. */
export interface SequentialTerms {
  /** Share of failing plants a good lot may have. */
  acceptable: number;
  /** Share at which a lot is bad. */
  rejectable: number;
  /** Risk of rejecting a good lot. */
  producerRisk: number;
  /** Risk of accepting a bad one. */
  consumerRisk: number;
}

/** Two parallel lines on "plants pulled, plants failing": at or below the lower accept, at or above the upper reject. */
export interface SequentialPlan {
  slope: number;
  acceptIntercept: number;
  rejectIntercept: number;
}

/**
 * Wald’s sequential test of a share: pull one plant after another until a line is crossed.
 * @throws Unfit when acceptable is not below rejectable, or a share or risk is not between 0 and 1
 * @see Wald 1947, Sequential Analysis, ch. 5
 */
export function sequentialPlan(terms: SequentialTerms): Worked<SequentialPlan> {
  const { acceptable: p0, rejectable: p1, producerRisk: a, consumerRisk: b } = terms;
  if (![p0, p1, a, b].every((x) => x > 0 && x < 1))
    throw new Unfit(say`Shares and risks lie between 0 and 1.`);
  if (!(p0 < p1)) throw new Unfit(say`The share a good lot may fail must be below that of a bad one.`);
  if (!(a + b < 1)) throw new Unfit(say`The two risks together must be below 1.`);
  const spread = Math.log((p1 * (1 - p0)) / (p0 * (1 - p1)));
  const slope = Math.log((1 - p0) / (1 - p1)) / spread;
  const acceptIntercept = -Math.log((1 - a) / b) / spread;
  const rejectIntercept = Math.log((1 - b) / a) / spread;
  const source = say`Wald 1947`;
  const g = sum`ln(${p1} × (1 − ${p0}) ÷ (${p0} × (1 − ${p1})))`;
  return {
    value: { slope, acceptIntercept, rejectIntercept },
    working: [
      {
        what: say`Failing plants a pulled plant adds to both lines`,
        expression: `${sum`ln((1 − ${p0}) ÷ (1 − ${p1}))`} ÷ ${g}`,
        result: slope,
        inputs: [
          { name: say`a good lot may fail`, value: p0, origin: 'choice' },
          { name: say`a bad lot fails`, value: p1, origin: 'choice' },
        ],
        source,
      },
      {
        what: say`Where the accept line starts`,
        expression: `0 − ${sum`ln((1 − ${a}) ÷ ${b})`} ÷ ${g}`,
        result: acceptIntercept,
        inputs: [
          { name: say`risk of rejecting a good lot`, value: a, origin: 'choice' },
          { name: say`risk of accepting a bad lot`, value: b, origin: 'choice' },
        ],
        source,
      },
      {
        what: say`Where the reject line starts`,
        expression: `${sum`ln((1 − ${b}) ÷ ${a})`} ÷ ${g}`,
        result: rejectIntercept,
        source,
      },
    ],
  };
}

export type SequentialCall = 'accept' | 'reject' | 'pull';

export interface SequentialVerdict {
  call: SequentialCall;
  pulled: number;
  failing: number;
  /** Whether a line was crossed, or the cap reached and the odds taken. */
  by: 'line' | 'cap' | null;
  /** Fewest more plants after which it could be accepted (all good) or rejected (all failing); 0 once called. */
  soonestAccept: number;
  soonestReject: number;
  /** Chance that the lot’s failing share lies at or below the acceptable, and at or above the rejectable. */
  chanceGood: number;
  chanceBad: number;
}

/**
 * What to do after some plants. Once a line is crossed the call stands, so plants are given in the order they
 * were pulled. At the cap the likelier side of the middle between the two shares decides.
 * @param fails whether each plant failed, in the order pulled
 * @param cap most plants to pull, ≥ 1
 * @throws Unfit as {@link sequentialPlan}, or when the cap is below 1
 */
export function sequentialVerdict(
  terms: SequentialTerms,
  fails: readonly boolean[],
  cap: number,
): Worked<SequentialVerdict> {
  if (!(cap >= 1)) throw new Unfit(say`At least one plant must be pulled before a lot is judged.`);
  const { value: plan, working } = sequentialPlan(terms);
  // A count that lies on a line has crossed it, whatever rounding says.
  const acceptLine = (n: number) => plan.acceptIntercept + plan.slope * n + 1e-9;
  const rejectLine = (n: number) => plan.rejectIntercept + plan.slope * n - 1e-9;
  let failing = 0;
  let call: SequentialCall = 'pull';
  let by: SequentialVerdict['by'] = null;
  let at = 0;
  for (const fail of fails) {
    at++;
    if (fail) failing++;
    if (call !== 'pull') continue;
    if (failing <= acceptLine(at)) [call, by] = ['accept', 'line'];
    else if (failing >= rejectLine(at)) [call, by] = ['reject', 'line'];
    else if (at >= cap) {
      const middle = (terms.acceptable + terms.rejectable) / 2;
      [call, by] = [betaCdf(middle, jeffreys(failing, at)) >= 0.5 ? 'accept' : 'reject', 'cap'];
    }
  }
  const pulled = fails.length;
  const share = jeffreys(failing, pulled);
  const chanceGood = betaCdf(terms.acceptable, share);
  const chanceBad = 1 - betaCdf(terms.rejectable, share);
  const ahead = (reached: (more: number) => boolean) => {
    if (call !== 'pull') return 0;
    for (let more = 1; pulled + more < cap; more++) if (reached(more)) return more;
    return Math.max(1, cap - pulled);
  };
  const odds: Step[] = [
    {
      what: say`Chance that no more fail than a good lot may`,
      how: say`Share of Beta(${failing} + ½, ${pulled - failing} + ½) at or below ${terms.acceptable}.`,
      result: chanceGood,
      inputs: [
        { name: 'pulled', value: pulled, origin: 'record' },
        { name: 'failing', value: failing, origin: 'record' },
      ],
      source: 'Jeffreys’ prior',
    },
    {
      what: say`Chance that as many fail as in a bad lot`,
      how: say`The same, at or above ${terms.rejectable}.`,
      result: chanceBad,
    },
  ];
  return {
    value: {
      call,
      by,
      pulled,
      failing,
      soonestAccept: ahead((m) => failing <= acceptLine(pulled + m)),
      soonestReject: ahead((m) => failing + m >= rejectLine(pulled + m)),
      chanceGood,
      chanceBad,
    },
    working: [...working, ...odds],
  };
}
