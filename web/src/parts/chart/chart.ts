/** A colour of the house, by its name in the style sheet. */
export type Ink =
  | 'ink'
  | 'muted'
  | 'rule'
  | 'leaf'
  | 'leaf-mid'
  | 'leaf-pale'
  | 'root'
  | 'soil'
  | 'soil-deep'
  | 'water'
  | 'frost'
  | 'wrong';

interface Point {
  x: number;
  y: number;
}

/** A line over the chart, with its band where it has one. Points rise in x. */
export interface Line {
  name: string;
  ink: Ink;
  points: readonly (Point & { low?: number; high?: number })[];
  dashed?: boolean;
  /** px */
  width?: number;
  band?: Ink;
  /** Its values in words, where they are not of the upright axis. */
  tell?: (value: number) => string;
  /** Words at its right end. */
  ends?: string;
  /** Told under the pointer and in the table; left out for a line that goes on another. */
  told?: boolean;
}

/** Things seen or done, each drawn at its place. */
export interface Marks {
  name: string;
  ink: Ink;
  shape: 'ring' | 'dot' | 'cross' | 'plus' | 'arrow';
  points: readonly Point[];
  tell?: (value: number) => string;
  /** A stem down to the axis. */
  stems?: boolean;
}

/** A line across the whole chart: the date looked at, a target. */
export interface Rule {
  x?: number;
  y?: number;
  ink: Ink;
  dashed?: boolean;
  words?: string;
  /** Up to this height only. */
  upTo?: number;
}

/** A stretch of the chart laid out in colour: a window in x, or a range in y. */
interface Stretch {
  ink: Ink;
  x?: readonly [from: number, to: number];
  y?: readonly [from: number, to: number];
}

export interface Axis {
  from: number;
  to: number;
  /** Where it is labelled. */
  ticks: readonly { at: number; words: string }[];
  /** A value of it in words, with its unit. */
  tell: (value: number) => string;
  /** What it is, for the table. */
  name: string;
}

/** What a chart tells, in the values it is about. */
export interface Series {
  x: Axis;
  y: Axis;
  lines: readonly Line[];
  marks?: readonly Marks[];
}

/** A chart whose look is the house's. */
export interface Chart extends Series {
  rules?: readonly Rule[];
  stretches?: readonly Stretch[];
}

/** What stands at a place across: a line's value there, with its band; marks near it. */
export interface Told {
  name: string;
  value: string;
}

/** A line's point nearest to a place across; null beyond its ends. */
function nearest<P extends Point>(points: readonly P[], x: number): P | null {
  if (points.length === 0) return null;
  const best = points.reduce((a, b) => (Math.abs(b.x - x) < Math.abs(a.x - x) ? b : a));
  const [first, last] = [points[0].x, points[points.length - 1].x];
  const step = points.length > 1 ? (last - first) / (points.length - 1) : Infinity;
  return x < first - step / 2 || x > last + step / 2 ? null : best;
}

/** Everything the chart tells at a place across. */
export function toldAt({ x: across, y, lines, marks = [] }: Series, x: number): Told[] {
  const near = (across.to - across.from) / 100;
  return [
    ...lines
      .filter(({ told }) => told !== false)
      .flatMap(({ name, points, tell = y.tell }) => {
        const point = nearest(points, x);
        if (!point) return [];
        const { low, high } = point;
        const band = low === undefined || high === undefined ? '' : ` (${tell(low)} – ${tell(high)})`;
        return [{ name, value: `${tell(point.y)}${band}` }];
      }),
    ...marks.flatMap(({ name, points, tell = y.tell }) =>
      points.filter((p) => Math.abs(p.x - x) <= near).map((p) => ({ name, value: tell(p.y) })),
    ),
  ];
}

/** Places across at which there is something to tell, in order: those of every line and mark, thinned to what a person steps through. */
export function stopsOf({ lines, marks = [] }: Series, most = 60): number[] {
  const seen = [...new Set(marks.flatMap(({ points }) => points.map((p) => p.x)))];
  const all = [
    ...new Set(lines.filter(({ told }) => told !== false).flatMap(({ points }) => points.map((p) => p.x))),
  ].sort((a, b) => a - b);
  const every = Math.max(1, Math.ceil(all.length / most));
  const thinned = all.filter((_, i) => i % every === 0 || i === all.length - 1);
  return [...new Set([...thinned, ...seen])].sort((a, b) => a - b);
}

/** The chart's series as a table: a column each, a row for each stop. */
export function chartTable(chart: Series): { head: string[]; rows: string[][] } {
  const names = [
    ...new Set([
      ...chart.lines.filter(({ told }) => told !== false).map(({ name }) => name),
      ...(chart.marks ?? []).filter(({ points }) => points.length > 0).map(({ name }) => name),
    ]),
  ];
  return {
    head: [chart.x.name, ...names],
    rows: stopsOf(chart).map((x) => {
      const told = toldAt(chart, x);
      return [
        chart.x.tell(x),
        ...names.map((name) =>
          told
            .filter((one) => one.name === name)
            .map(({ value }) => value)
            .join(', '),
        ),
      ];
    }),
  };
}
