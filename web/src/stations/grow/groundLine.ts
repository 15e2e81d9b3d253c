import {
  BOUND_FILL,
  READY_FILL,
  SCORE_FILL,
  type Band,
  type EpochDay,
  type LotFacts,
  type LotForecast,
  type Standing,
  say,
} from '@kauri/core';

/** A point of a course: day, middle, and the band's edges. */
export interface CoursePoint {
  day: EpochDay;
  low: number;
  middle: number;
  high: number;
}

export interface Mark {
  day: EpochDay;
  value: number;
  /** Spread to either side, where there is one. */
  spread: number;
  words: string;
}

interface ChartWindow {
  words: string;
  from: EpochDay;
  to: EpochDay;
  /** A risk rather than a window to use. */
  risk: boolean;
}

export interface GroundLine {
  from: EpochDay;
  to: EpochDay;
  asOf: EpochDay;
  view: EpochDay;
  /** Heights are in cm, fill is a share. */
  height: CoursePoint[];
  fill: CoursePoint[];
  samples: Mark[];
  pulls: Mark[];
  windows: ChartWindow[];
  lines: { value: number; words: string; side: 'height' | 'fill'; firm: boolean }[];
  tallest: number;
  deepest: number;
}

/** All that the chart of a lot draws, from its forecast; nothing later than the date looked at is shown as seen. */
export function groundLine(facts: LotFacts, forecast: LotForecast, standing: Standing): GroundLine | null {
  const { course, state, asOf } = forecast;
  if (!course) return null;
  const emerged = forecast.emergence.seen ?? forecast.emergence.band.p50;
  const points = (bands: Band[]) =>
    course.days.flatMap((day, i) =>
      day < emerged ? [] : [{ day, low: bands[i].p10, middle: bands[i].p50, high: bands[i].p90 }],
    );
  const container = facts.home.kind === 'container';
  const samples = facts.sizes
    .filter((s) => s.what === 'height' && s.day <= state.day)
    .map((s) => ({ day: s.day, value: s.mean, spread: s.sd, words: say`sample of ${s.n}` }));
  const pulls = facts.pulls
    .filter((p) => p.day <= state.day)
    .map((p) => ({
      day: p.day,
      value: p.scores.reduce((sum, score) => sum + SCORE_FILL[score], 0) / p.scores.length,
      spread: 0,
      words: say`scores ${p.scores.join(', ')}`,
    }));
  const height = points(course.heightCm);
  const fill = points(course.fill);
  const lines: GroundLine['lines'] = [];
  if (facts.targetHeightCm !== null)
    lines.push({ value: facts.targetHeightCm, words: say`wanted`, side: 'height', firm: false });
  if (facts.home.kind === 'bed' && facts.home.headroomCm !== null) {
    lines.push({ value: facts.home.headroomCm, words: say`lid`, side: 'height', firm: true });
  }
  if (container) {
    lines.push({ value: READY_FILL, words: say`plug holds ${READY_FILL}`, side: 'fill', firm: false });
    lines.push({ value: BOUND_FILL, words: say`full 1.0`, side: 'fill', firm: true });
  }
  const highest = Math.max(0, ...height.map((p) => p.high), ...samples.map((s) => s.value + s.spread));
  const highLine = Math.max(0, ...lines.filter((l) => l.side === 'height').map((l) => l.value));
  const deepest = container ? 1.3 : Math.max(0.25, ...fill.map((p) => p.high)) * 1.1;
  return {
    from: facts.sownOn,
    to: course.days[course.days.length - 1],
    asOf,
    view: state.day,
    height,
    fill,
    samples,
    pulls,
    windows: windowsOf(forecast, standing, container),
    lines,
    // A lid far above everything would flatten the rest: it is drawn only where it matters.
    tallest: Math.max(highest, highLine < 2.2 * highest ? highLine : 0, 10) * 1.12,
    deepest,
  };
}

function windowsOf(forecast: LotForecast, standing: Standing, container: boolean): ChartWindow[] {
  if (['lifted', 'ended', 'failed', 'waiting'].includes(standing.status)) return [];
  const { ready, bound, lifting } = forecast;
  return container
    ? [
        { words: say`plug holds`, from: ready.p50, to: bound.p10, risk: false },
        { words: say`root-bound risk`, from: Math.max(ready.p50, bound.p10), to: bound.p90, risk: true },
      ]
    : [{ words: say`lift`, from: lifting.from, to: lifting.until, risk: false }];
}
