import type { EChartsCoreOption } from 'echarts/core';
import { toldAt, type Axis, type Chart, type Ink, type Line, type Marks, type Rule } from './chart';

/** A colour of the house as it is in the scheme chosen. */
export type InkOf = (name: Ink | 'card' | 'paper') => string;

const still = { animation: false, silent: true } as const;
/** Crosses and the like as drawn with a pen, in a box of ten. */
const shapes: Record<Marks['shape'], string> = {
  ring: 'circle',
  dot: 'circle',
  cross: 'path://M0 0L10 10M10 0L0 10',
  plus: 'path://M5 0V10M0 5H10',
  arrow: 'path://M5 0V10M1 6L5 10L9 6',
};

/** The drawing interface for shapes of one's own; only what is used here is named. */
interface Drawing {
  coord: (point: number[]) => number[];
}

/** The house's look of a chart, for Apache ECharts. */
export function chartOption(chart: Chart, ink: InkOf): EChartsCoreOption {
  const { x, y, lines, marks = [], rules = [], stretches = [] } = chart;
  const text = { color: ink('ink'), fontFamily: 'Atkinson Hyperlegible', fontSize: 13 };
  const quiet = { ...text, color: ink('muted') };
  const labels = ({ ticks }: Chart['x']) => ({
    ...quiet,
    hideOverlap: true,
    customValues: ticks.map(({ at }) => at),
    formatter: (value: number) => ticks.find(({ at }) => at === value)?.words ?? '',
  });
  return {
    animation: false,
    textStyle: text,
    grid: {
      left: 8,
      right: lines.some(({ ends }) => ends) ? 70 : 14,
      top: 14,
      bottom: 6,
      outerBoundsMode: 'same',
      outerBoundsContain: 'axisLabel',
    },
    xAxis: {
      type: 'value',
      min: x.from,
      max: x.to,
      axisLabel: labels(x),
      axisTick: { show: false },
      axisLine: { onZero: false, lineStyle: { color: ink('soil-deep'), width: 2 } },
      splitLine: { show: false },
    },
    yAxis: {
      type: 'value',
      min: y.from,
      max: y.to,
      axisLabel: labels(y),
      axisTick: { show: false },
      axisLine: { show: false },
      splitLine: { show: false },
    },
    tooltip: {
      trigger: 'axis',
      renderMode: 'richText',
      confine: true,
      backgroundColor: ink('card'),
      borderColor: ink('ink'),
      textStyle: text,
      axisPointer: { type: 'line', lineStyle: { color: ink('muted'), type: 'dotted' } },
      formatter: (items: { axisValue: number }[]) =>
        [
          x.tell(items[0].axisValue),
          ...toldAt(chart, items[0].axisValue).map(({ name, value }) => `${name}: ${value}`),
        ].join('\n'),
    },
    series: [
      {
        type: 'line',
        data: [],
        ...still,
        z: 1,
        markLine: {
          symbol: 'none',
          ...still,
          data: [
            ...y.ticks.map(({ at }) => ({
              yAxis: at,
              label: { show: false },
              lineStyle: { color: ink('rule'), width: 1, type: 'solid' },
            })),
            ...rules.map((rule) => ruleOf(rule, y, text, ink)),
          ],
        },
        markArea: {
          ...still,
          data: stretches.map((one) => [
            {
              itemStyle: { color: ink(one.ink) },
              ...(one.x && { xAxis: one.x[0] }),
              ...(one.y && { yAxis: one.y[0] }),
            },
            { ...(one.x && { xAxis: one.x[1] }), ...(one.y && { yAxis: one.y[1] }) },
          ]),
        },
      },
      ...lines.filter(({ band }) => band).map((line) => bandOf(line, ink(line.band!))),
      ...lines.map((line) => ({
        type: 'line',
        name: line.name,
        symbol: 'none',
        animation: false,
        silent: true,
        z: 3,
        endLabel: {
          ...text,
          show: line.ends !== undefined,
          formatter: () => line.ends ?? '',
          color: ink(line.ink),
        },
        data: line.points.map((p) => [p.x, p.y]),
        lineStyle: { color: ink(line.ink), width: line.width ?? 2.5, type: line.dashed ? [6, 4] : 'solid' },
      })),
      ...marks.flatMap((one) => [
        ...(one.stems ? [stemsOf(one, y.from, ink)] : []),
        {
          type: 'scatter',
          name: one.name,
          ...still,
          z: 5,
          symbol: shapes[one.shape],
          symbolSize: one.shape === 'ring' ? 10 : 9,
          ...(one.shape === 'arrow' && { symbolOffset: [0, '-60%'] }),
          itemStyle:
            one.shape === 'dot'
              ? { color: ink(one.ink), opacity: 1 }
              : {
                  color: one.shape === 'ring' ? ink('card') : 'transparent',
                  borderColor: ink(one.ink),
                  borderWidth: 2.4,
                  opacity: 1,
                },
          data: one.points.map((p) => [p.x, p.y]),
        },
      ]),
    ],
  };
}

/** A line across the chart, with its words at its end. */
function ruleOf({ words, dashed, upTo, ...at }: Rule, y: Axis, text: object, ink: InkOf): object {
  const look = {
    label: {
      ...text,
      show: words !== undefined,
      formatter: words,
      color: ink(at.ink),
      textBorderColor: ink('paper'),
      textBorderWidth: 4,
      position: at.x === undefined ? 'insideEndTop' : 'end',
    },
    lineStyle: { color: ink(at.ink), width: 1.6, type: dashed ? [4, 4] : 'solid' },
  };
  if (at.x === undefined) return { ...look, yAxis: at.y };
  return [{ ...look, coord: [at.x, y.from] }, { coord: [at.x, upTo ?? y.to] }];
}

function bandOf({ points }: Line, colour: string) {
  const within = points.filter((p) => p.low !== undefined && p.high !== undefined);
  const outline = [...within.map((p) => [p.x, p.high!]), ...[...within].reverse().map((p) => [p.x, p.low!])];
  return {
    type: 'custom',
    ...still,
    clip: true,
    z: 2,
    data: within.length > 1 ? [outline[0]] : [],
    renderItem: (_: unknown, api: Drawing) => ({
      type: 'polygon',
      shape: { points: outline.map((point) => api.coord(point)) },
      style: { fill: colour, opacity: 0.65 },
    }),
  };
}

function stemsOf({ points, ink: colour }: Marks, floor: number, ink: InkOf) {
  return {
    type: 'custom',
    ...still,
    data: points.map((p) => [p.x, p.y]),
    renderItem: ({ dataIndex }: { dataIndex: number }, api: Drawing) => {
      const { x, y } = points[dataIndex];
      const [[x1, y1], [x2, y2]] = [api.coord([x, y]), api.coord([x, floor])];
      return {
        type: 'line',
        shape: { x1, y1, x2, y2 },
        style: { stroke: ink(colour), lineWidth: 1.6, opacity: 0.6 },
      };
    },
  };
}
