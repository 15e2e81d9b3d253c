import { dayFrom } from '@kauri/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayAxis, shareAxis } from './axes';
import { chartTable, stopsOf, toldAt, type Chart } from './chart';
import { chartOption } from './chartOption';

const tell = (value: number) => value.toFixed(1);
const chart = (more: Partial<Chart> = {}): Chart => ({
  x: { from: 0, to: 100, name: 'Day', tell: (x) => `day ${x}`, ticks: [{ at: 0, words: 'start' }] },
  y: { from: 0, to: 10, name: 'Up', tell, ticks: [{ at: 5, words: 'half' }] },
  lines: [
    { name: 'up', ink: 'leaf', points: [0, 10, 20].map((x) => ({ x, y: x / 10, low: x / 20, high: x / 5 })) },
    { name: 'up', ink: 'leaf', dashed: true, points: [20, 30, 40].map((x) => ({ x, y: x / 10 })) },
    { name: 'between', ink: 'soil', told: false, points: [{ x: 95, y: 1 }] },
  ],
  marks: [{ name: 'counted', ink: 'leaf', shape: 'ring', points: [{ x: 12, y: 2 }] }],
  ...more,
});

describe('what a chart tells', () => {
  it('is the nearest of each line with its band, and the marks close by; nothing beyond a line’s ends', () => {
    expect(toldAt(chart(), 11)).toEqual([
      { name: 'up', value: '1.0 (0.5 – 2.0)' },
      { name: 'counted', value: '2.0' },
    ]);
    expect(toldAt(chart(), 36)).toEqual([{ name: 'up', value: '4.0' }]);
    expect(toldAt(chart(), 90)).toEqual([]);
  });
  it('is told at every mark, and at so many places of a long line that a person steps through', () => {
    expect(stopsOf(chart())).toEqual([0, 10, 12, 20, 30, 40]);
    const long = chart({
      lines: [{ name: 'up', ink: 'leaf', points: Array.from({ length: 500 }, (_, x) => ({ x, y: 0 })) }],
    });
    expect(stopsOf(long).length).toBeLessThanOrEqual(62);
    expect(stopsOf(long)).toContain(12);
    expect(stopsOf(long).at(-1)).toBe(499);
  });
  it('stands in its table, a column a name', () => {
    expect(chartTable(chart())).toEqual({
      head: ['Day', 'up', 'counted'],
      rows: [
        ['day 0', '0.0 (0.0 – 0.0)', ''],
        ['day 10', '1.0 (0.5 – 2.0)', ''],
        ['day 12', '1.0 (0.5 – 2.0)', '2.0'],
        ['day 20', '2.0 (1.0 – 4.0), 2.0', ''],
        ['day 30', '3.0', ''],
        ['day 40', '4.0', ''],
      ],
    });
  });
});

describe('days across', () => {
  it('are labelled by date where they are few and by month where they are many, not too often and within', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 15_000, max: 25_000 }),
        fc.integer({ min: 2, max: 9000 }),
        (from, long) => {
          const { ticks } = dayAxis(from, from + long, from);
          expect(ticks.length).toBeLessThanOrEqual(15);
          for (const { at, words } of ticks) {
            expect(at).toBeGreaterThanOrEqual(from);
            expect(at).toBeLessThanOrEqual(from + long);
            expect(words).not.toBe('');
          }
        },
      ),
    );
  });
  it('name each January by its year', () => {
    const { ticks } = dayAxis(dayFrom(2025, 3, 10), dayFrom(2027, 2, 1), dayFrom(2026, 1, 1));
    expect(ticks.map(({ words }) => words)).toContain('2026');
    expect(ticks.map(({ words }) => words)).toContain('Jul');
  });
});

describe('the house’s look', () => {
  it('draws every line, band, mark and stem in the colours of the scheme, and labels only where it is asked to', () => {
    const option = chartOption(
      chart({
        y: shareAxis('Share', [0, 0.5], tell),
        rules: [
          { x: 5, ink: 'ink', words: 'today' },
          { y: 4, ink: 'root' },
        ],
        marks: [{ name: 'counted', ink: 'leaf', shape: 'ring', stems: true, points: [{ x: 12, y: 2 }] }],
        lines: [{ name: 'up', ink: 'leaf', band: 'soil', points: chart().lines[0].points }],
      }),
      (name) => `<${name}>`,
    ) as unknown as {
      series: { type: string; lineStyle?: { color: string }; markLine?: { data: unknown[] } }[];
      yAxis: { axisLabel: { customValues: number[]; formatter: (v: number) => string } };
    };
    expect(option.series.map(({ type }) => type)).toEqual(['line', 'custom', 'line', 'custom', 'scatter']);
    expect(option.series[2].lineStyle!.color).toBe('<leaf>');
    expect(option.series[0].markLine!.data).toHaveLength(4);
    expect(option.yAxis.axisLabel.customValues).toEqual([0, 0.5]);
    expect(option.yAxis.axisLabel.formatter(0.25)).toBe('');
  });
});
