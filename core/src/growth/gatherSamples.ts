import type { EpochDay } from '../calendar/day';

/** A sample as it was taken: mean, standard deviation (0 for one plant) and number of plants, on a day. */
export interface TakenSample {
  day: EpochDay;
  n: number;
  mean: number;
  sd: number;
}

/** So few samples are taken as they are. */
const FEW = 6;
/** Growing days back from the last sample at which one group ends and the next begins: the older, the wider. */
const AGES = [5, 19, 56, 130, 330];

/**
 * Many samples of a lot as few: those of a time are gathered into one, since what a lot departs from its curve by lasts
 * for weeks and hardly another figure is learnt from the next. Each is carried to the day of the group's middle along the
 * curve; plants add up. The last few weeks stay apart.
 * @param samples ascending by day
 * @param grownBy growing days it had had by a day
 * @param sizeOn size of the middle curve on a day
 */
export function gatherSamples(
  samples: readonly TakenSample[],
  grownBy: (day: EpochDay) => number,
  sizeOn: (day: EpochDay) => number,
): readonly TakenSample[] {
  if (samples.length <= FEW) return samples;
  const last = grownBy(samples[samples.length - 1].day);
  const groups = new Map<number, TakenSample[]>();
  for (const sample of samples) {
    const age = AGES.findIndex((days) => last - grownBy(sample.day) < days);
    const group = groups.get(age);
    if (group) group.push(sample);
    else groups.set(age, [sample]);
  }
  return [...groups.values()].map((group) => asOne(group, sizeOn));
}

function asOne(group: readonly TakenSample[], sizeOn: (day: EpochDay) => number): TakenSample {
  const { day } = group[group.length >> 1];
  const there = sizeOn(day);
  let n = 0;
  let log = 0;
  let squares = 0;
  let free = 0;
  for (const sample of group) {
    n += sample.n;
    log += sample.n * Math.log((sample.mean * there) / sizeOn(sample.day));
    squares += (sample.n - 1) * (sample.sd / sample.mean) ** 2;
    free += sample.n - 1;
  }
  const mean = Math.exp(log / n);
  return { day, n, mean, sd: free > 0 ? mean * Math.sqrt(squares / free) : 0 };
}
