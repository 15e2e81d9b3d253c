import { say } from '../speech/say';
import type { EpochDay } from '../calendar/day';
import type { Warmth } from '../weather/sums';
import { put, type Worked } from '../working/working';
import { emergedShare, fitEmergence, isLate, type EmergenceFit, type EmergencePrior } from './emergenceCurve';

/** All ever up of a lot by a day. */
export interface UpBy {
  day: EpochDay;
  up: number;
}

export interface EmergenceOutlook {
  /** The day its warmth is counted from. */
  since: EpochDay;
  fit: EmergenceFit;
  /** Seedlings up in the end, in one case of ten fewer, in the middle, in one of ten more. */
  final: { p10: number; p50: number; p90: number };
  upNow: number;
  expectedNow: number;
  late: boolean;
  /** When half and nearly all of those that come have come; Infinity beyond the forecast. */
  halfOn: EpochDay;
  countLastOn: EpochDay;
  /** Seedlings up by day: the middle curve. */
  course: UpBy[];
}

/** Warmth since a day by each day of a run, past as recorded, ahead the mean of the weather years, °C·d. */
export function meanWarmth(warmth: Warmth, since: EpochDay, until: EpochDay): Float64Array {
  const sums = new Float64Array(Math.max(0, until - since + 1));
  let sum = 0;
  for (let day = since; day <= until; day++) {
    if (day <= warmth.asOf) sum += warmth.past[day - warmth.pastStart] ?? 0;
    else {
      const i = day - warmth.asOf - 1;
      sum += warmth.years.reduce((t, year) => t + (year[i] ?? 0), 0) / warmth.years.length;
    }
    sums[day - since] = sum;
  }
  return sums;
}

/**
 * How a lot comes up: forecast of the final number, when to count last, and whether it is late against its kind.
 * @param since day its warmth counts from: sowing, or the end of the winter that wakes it
 * @throws Unfit for more up than were sown
 */
export function emergenceOutlook(
  counts: readonly UpBy[],
  sown: number,
  since: EpochDay,
  prior: EmergencePrior,
  warmth: Warmth,
): Worked<EmergenceOutlook> {
  const until = warmth.asOf + 200;
  const sums = meanWarmth(warmth, since, Math.max(until, since));
  const at = (day: EpochDay) => (day < since ? 0 : sums[Math.min(sums.length - 1, day - since)]);
  const known = counts.filter((c) => c.day <= warmth.asOf).sort((a, b) => a.day - b.day);
  const fit = fitEmergence(
    known.map(({ day, up }) => ({ warmth: at(day), up })),
    sown,
    prior,
  );
  const upNow = known.at(-1)?.up ?? 0;
  const { late, expected } = isLate({ warmth: at(warmth.asOf), up: upNow }, sown, prior);
  const dayAt = (target: number) => {
    const i = sums.findIndex((sum) => sum >= target);
    return i < 0 ? Infinity : since + i;
  };
  const countLastOn = dayAt(fit.last.p50);
  const end = Math.min(until, Number.isFinite(countLastOn) ? countLastOn + 14 : until);
  const course: UpBy[] = [];
  for (let day = since; day <= end; day += 2)
    course.push({ day, up: sown * emergedShare(fit.middle, at(day)) });
  const final = { p10: sown * fit.final.p10, p50: sown * fit.final.p50, p90: sown * fit.final.p90 };
  final.p10 = Math.max(upNow, final.p10);
  final.p90 = Math.max(final.p50, final.p90);
  return {
    value: {
      since,
      fit,
      final,
      upNow,
      expectedNow: expected,
      late,
      halfOn: dayAt(fit.half.p50),
      countLastOn,
      course,
    },
    working: [
      {
        what: say`Share known before the first count`,
        expression: `${put(prior.final.alpha)} ÷ (${put(prior.final.alpha)} + ${put(prior.final.beta)})`,
        result: prior.final.alpha / (prior.final.alpha + prior.final.beta),
        inputs: [
          { name: say`warmth to half up`, value: prior.half.median, unit: '°C·d', origin: 'starting' },
        ],
      },
      {
        what: say`Counts so far`,
        how: known.length
          ? known.map((c) => say`${c.up} up at ${put(Math.round(at(c.day)))} °C·d`).join('; ')
          : say`None yet.`,
        result: upNow,
        unit: 'up',
        inputs: known.length ? [{ name: say`own counts`, value: known.length, origin: 'record' }] : [],
      },
      {
        what: say`Up in the end`,
        how: say`A Weibull curve in warmth above 5 °C, over all finals, halves and shapes by their odds.`,
        result: Math.round(final.p50),
        unit: 'seedlings',
        source: 'Brown & Mayer 1988',
      },
      {
        what: say`Expected up by now`,
        how: say`What ordinary seed of its kind would show at ${put(Math.round(at(warmth.asOf)))} °C·d.`,
        result: Math.round(expected),
        unit: 'seedlings',
      },
    ],
  };
}
