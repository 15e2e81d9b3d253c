import { say } from '@kauri/core';
import type { EpochDay, Quantity } from '@kauri/core';
import type { EChartsCoreOption } from 'echarts/core';
import { longDate, monthName, yearOf } from '../../words/dates';
import type { CoursePoint, GroundLine, Mark } from './groundLine';

const DAY = 86_400_000;
export const at = (day: EpochDay) => day * DAY;
export const dayAt = (ms: number): EpochDay => Math.round(ms / DAY);

export interface ChartInk {
  (name: string): string;
}

interface Show {
  shown: (value: number, quantity: Quantity) => number;
  unit: (quantity: Quantity) => string;
}

/** Room beside the drawing, px. */
const MARGINS = { left: 46, right: 14 };
export const DRAWN_FROM_PX = 18;
export const DRAWN_TO_PX = 26;

/** Where a day lies across a chart of a width, px. */
export const acrossPx = (line: GroundLine, day: EpochDay, width: number): number =>
  MARGINS.left + ((day - line.from) / (line.to - line.from)) * (width - MARGINS.left - MARGINS.right);

/** The chart of a lot: time across, height up from the ground line, root fill down from it. */
export function groundLineOption(
  line: GroundLine,
  ink: ChartInk,
  { shown, unit }: Show,
  wide: boolean,
): EChartsCoreOption {
  const cm = (value: number) => shown(value, 'height');
  const text = { color: ink('--ink'), fontFamily: 'Atkinson Hyperlegible', fontSize: 13 };
  const { left, right } = MARGINS;
  const times = {
    type: 'time',
    min: at(line.from),
    max: at(line.to),
    axisTick: { show: false },
    splitLine: { show: false },
  } as const;
  const monthLabel = (ms: number) => {
    const date = new Date(ms);
    if (date.getUTCDate() !== 1) return '';
    const month = date.getUTCMonth();
    return month === 0 ? `{year|${date.getUTCFullYear()}}` : monthName(month);
  };
  const past = (points: CoursePoint[]) => points.filter((p) => p.day <= line.asOf);
  const ahead = (points: CoursePoint[]) => {
    const before = past(points).at(-1);
    return [...(before ? [before] : []), ...points.filter((p) => p.day > line.asOf)];
  };
  const course = (side: 'height' | 'fill') => {
    const axis = side === 'height' ? 0 : 1;
    const scale = side === 'height' ? cm : (value: number) => value;
    const points = line[side];
    const colour = ink(side === 'height' ? '--leaf' : '--root');
    const band = ink(side === 'height' ? '--leaf-mid' : '--root-mid');
    const base = {
      type: 'line',
      xAxisIndex: axis,
      yAxisIndex: axis,
      symbol: 'none',
      silent: true,
      animation: false,
    };
    return [
      bandSeries(axis, ahead(points), scale, band),
      {
        ...base,
        data: past(points).map((p) => [at(p.day), scale(p.middle)]),
        lineStyle: { color: colour, width: 3 },
      },
      {
        ...base,
        data: ahead(points).map((p) => [at(p.day), scale(p.middle)]),
        lineStyle: { color: colour, width: 2.5, type: [6, 4] },
      },
    ];
  };
  /** A line of height with another just above it is named beneath, where there is room for its words. */
  const closeUnder = (l: GroundLine['lines'][number]) =>
    l.side === 'height' &&
    line.lines.some(
      (o) => o.side === 'height' && o.value > l.value && o.value - l.value < 0.12 * line.tallest,
    );
  const guides = (side: 'height' | 'fill') => ({
    type: 'line',
    xAxisIndex: side === 'height' ? 0 : 1,
    yAxisIndex: side === 'height' ? 0 : 1,
    data: [],
    silent: true,
    animation: false,
    markLine: {
      symbol: 'none',
      silent: true,
      animation: false,
      data: [
        ...line.lines
          .filter((l) => l.side === side && (side === 'fill' || l.value <= line.tallest))
          .map((l) => ({
            yAxis: side === 'height' ? cm(l.value) : l.value,
            lineStyle: {
              color: ink(side === 'height' ? (l.firm ? '--ink' : '--leaf') : '--root'),
              type: l.firm ? 'solid' : [2, 4],
              width: l.firm ? 1.2 : 1.8,
            },
            label: {
              ...text,
              color: ink(side === 'height' ? (l.firm ? '--ink' : '--leaf') : '--root'),
              position: closeUnder(l) ? 'insideStartBottom' : 'insideStartTop',
              textBorderColor: ink(side === 'height' ? '--paper' : '--soil'),
              textBorderWidth: 4,
              formatter:
                side === 'height' ? `${l.words} ${cm(l.value).toFixed(0)} ${unit('height')}` : l.words,
            },
          })),
      ],
    },
    markArea: {
      silent: true,
      animation: false,
      data: line.windows
        .filter((w) => w.from < line.to && w.to > line.from && w.from < w.to)
        .map((w, i) => [
          {
            xAxis: at(Math.max(w.from, line.from)),
            itemStyle: {
              color: ink('--ink'),
              opacity: w.risk ? 0.11 : 0.05,
              borderColor: ink('--ink'),
              borderWidth: w.risk ? 1 : 0,
              borderType: 'dashed',
            },
            label: {
              ...text,
              show: side === 'height',
              fontWeight: 'bold',
              textBorderColor: ink('--paper'),
              textBorderWidth: 4,
              // One that begins near the right edge has its words to its left.
              position:
                w.from > line.from + 0.72 * (line.to - line.from) ? 'insideTopRight' : 'insideTopLeft',
              distance: 4,
              offset: [0, i * 17],
              formatter: w.words,
            },
          },
          { xAxis: at(Math.min(w.to, line.to)) },
        ]),
    },
  });
  return {
    useUTC: true,
    animation: false,
    textStyle: text,
    grid: [
      { left, right, top: DRAWN_FROM_PX, height: '52%', outerBoundsMode: 'none' },
      {
        left,
        right,
        top: '57%',
        bottom: DRAWN_TO_PX,
        outerBoundsMode: 'none',
        show: true,
        backgroundColor: ink('--soil'),
        borderWidth: 0,
      },
    ],
    xAxis: [
      {
        ...times,
        gridIndex: 0,
        axisLabel: { show: false },
        axisLine: { onZero: false, lineStyle: { color: ink('--ink'), width: 2.5 } },
      },
      {
        ...times,
        gridIndex: 1,
        position: 'bottom',
        minInterval: DAY * (wide ? 27 : 58),
        axisLine: { show: false },
        axisLabel: {
          ...text,
          formatter: monthLabel,
          hideOverlap: true,
          rich: { year: { fontWeight: 'bold', color: ink('--ink') } },
        },
      },
    ],
    yAxis: [
      {
        gridIndex: 0,
        min: 0,
        max: cm(line.tallest),
        name: unit('height'),
        nameGap: 4,
        nameTextStyle: {
          ...text,
          align: 'right',
          padding: [0, 6, 0, 0],
          verticalAlign: 'middle',
          color: ink('--leaf'),
        },
        axisLabel: { ...text, color: ink('--leaf'), showMaxLabel: false },
        splitLine: { show: false },
        splitNumber: 4,
      },
      {
        gridIndex: 1,
        inverse: true,
        min: 0,
        max: line.deepest,
        interval: line.deepest > 1 ? 0.5 : line.deepest > 0.4 ? 0.2 : 0.1,
        axisLabel: {
          ...text,
          color: ink('--root'),
          showMinLabel: false,
          showMaxLabel: false,
          formatter: (v: number) => String(Number(v.toFixed(2))),
        },
        splitLine: { show: false },
      },
    ],
    tooltip: {
      trigger: 'axis',
      renderMode: 'richText',
      confine: true,
      backgroundColor: ink('--card'),
      borderColor: ink('--ink'),
      textStyle: text,
      axisPointer: { type: 'line', lineStyle: { color: ink('--muted'), type: 'dotted' } },
      formatter: (items: { axisValue: number }[]) =>
        tooltip(line, dayAt(items[0].axisValue), cm, unit('height')),
    },
    axisPointer: { link: [{ xAxisIndex: 'all' }] },
    series: [
      ...course('height'),
      ...course('fill'),
      guides('height'),
      guides('fill'),
      markSeries(0, line.samples, cm, 'circle', ink('--leaf'), ink('--card')),
      markSeries(1, line.pulls, (v) => v, 'rect', ink('--root'), ink('--card')),
    ],
  };
}

function tooltip(line: GroundLine, day: EpochDay, cm: (v: number) => number, unit: string): string {
  const nearest = (points: readonly { day: EpochDay }[]) =>
    points.reduce((best, p, i) => (Math.abs(p.day - day) < Math.abs(points[best].day - day) ? i : best), 0);
  const words = [longDate(day, yearOf(line.view))];
  const h = line.height[nearest(line.height)];
  if (h)
    words.push(
      say`height ${cm(h.middle).toFixed(0)} ${unit} (${cm(h.low).toFixed(0)}–${cm(h.high).toFixed(0)})`,
    );
  const f = line.fill[nearest(line.fill)];
  if (f) words.push(say`root fill ${f.middle.toFixed(2)} (${f.low.toFixed(2)}–${f.high.toFixed(2)})`);
  for (const mark of [...line.samples, ...line.pulls])
    if (Math.abs(mark.day - day) <= 3) words.push(mark.words);
  return words.join('\n');
}

/** Custom shapes get a small drawing interface; only what is used here is named. */
interface Drawing {
  coord: (point: number[]) => number[];
}

function bandSeries(axis: number, points: CoursePoint[], scale: (v: number) => number, colour: string) {
  const outline = [
    ...points.map((p) => [at(p.day), scale(p.high)]),
    ...[...points].reverse().map((p) => [at(p.day), scale(p.low)]),
  ];
  return {
    type: 'custom',
    xAxisIndex: axis,
    yAxisIndex: axis,
    silent: true,
    animation: false,
    clip: true,
    data: points.length > 1 ? [outline[0]] : [],
    renderItem: (_: unknown, api: Drawing) => ({
      type: 'polygon',
      shape: { points: outline.map((point) => api.coord(point)) },
      style: { fill: colour, opacity: 0.45 },
    }),
  };
}

function markSeries(
  axis: number,
  marks: Mark[],
  scale: (v: number) => number,
  symbol: 'circle' | 'rect',
  colour: string,
  inside: string,
) {
  return {
    type: 'custom',
    xAxisIndex: axis,
    yAxisIndex: axis,
    animation: false,
    z: 5,
    data: marks.map((m) => [at(m.day), scale(m.value)]),
    renderItem: ({ dataIndex }: { dataIndex: number }, api: Drawing) => {
      const m = marks[dataIndex];
      const [x, y] = api.coord([at(m.day), scale(m.value)]);
      const top = api.coord([at(m.day), scale(m.value + m.spread)])[1];
      const bottom = api.coord([at(m.day), scale(Math.max(0, m.value - m.spread))])[1];
      const style = { fill: inside, stroke: colour, lineWidth: 2 };
      return {
        type: 'group',
        children: [
          { type: 'line', shape: { x1: x, x2: x, y1: top, y2: bottom }, style },
          symbol === 'circle'
            ? { type: 'circle', shape: { cx: x, cy: y, r: 5 }, style }
            : { type: 'rect', shape: { x: x - 5, y: y - 5, width: 10, height: 10 }, style },
        ],
      };
    },
  };
}
