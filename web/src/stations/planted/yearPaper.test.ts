import { survivalGroups, yearSums, yearWorth } from '@kauri/core';
import { describe, expect, it } from 'vitest';
import type { OrdersSeen } from './useYear';
import { barsSvg, ordersSay, sharesSvg, sumRows, yearPaper } from './yearPaper';

const flow = (from: string, to: string, count: number) => ({
  speciesId: 'a',
  origin: 'seed' as const,
  from,
  to,
  count,
});
const sums = yearSums({
  opening: [],
  culls: [{ speciesId: 'a', why: 'roots', count: 3 }],
  flows: [
    flow('standing', 'out:culled', 8),
    flow('seed', 'sown', 400),
    flow('sown', 'standing', 200),
    flow('standing', 'out:frost', 20),
    flow('standing', 'lifted', 100),
    flow('lifted', 'sent', 60),
  ],
});
const orders: OrdersSeen = {
  met: 2,
  part: 1,
  missed: 0,
  open: 1,
  wanted: 500,
  sent: 310,
  fetched: 250,
  unpriced: 10,
};
const pounds = (amount: number) => `£ ${amount.toFixed(2)}`;
const [lived] = survivalGroups([
  { group: 'alder', alive: 80, dead: 20 },
  { group: 'oak', alive: 30, dead: 30 },
]).groups;
const widths = (svg: string) =>
  [...svg.matchAll(/<rect x="[^"]*" y="[^"]*" width="([\d.]+)"/g)].map(([, w]) => Number(w));

describe('a year on paper', () => {
  it('shows what happened, and nothing that did not', () => {
    expect(sumRows(sums).map(({ words, count }) => [words, count])).toEqual([
      ['Sown or stuck', 400],
      ['Came up or rooted', 200],
      ['Lifted', 100],
      ['Sent', 60],
      ['Standing at the end', 72],
      ['Lifted, still here', 40],
    ]);
  });
  it('draws bars to one scale, and words as they are', () => {
    const svg = barsSvg([
      { words: 'A <b> & "c"', count: 50 },
      { words: 'none', count: 0 },
      { words: 'all', count: 200 },
    ]);
    const [a, none, all] = widths(svg);
    expect(none).toBe(0);
    expect(a / all).toBeCloseTo(0.25, 2);
    expect(svg).not.toContain('<b>');
    expect(widths(barsSvg([{ words: 'nothing', count: 0 }]))).toEqual([0]);
  });
  it('draws shares from their lower to their upper end', () => {
    const svg = sharesSvg([{ words: 'Alder', share: lived }]);
    const [, from, to] = /M([\d.]+) 10H([\d.]+)/.exec(svg)!;
    const at = (share: number) => 170 + share * 315;
    expect(Number(from)).toBeCloseTo(at(lived.lower), 0);
    expect(Number(to)).toBeCloseTo(at(lived.upper), 0);
  });
  it('says how orders were met, and where no price is written', () => {
    expect(ordersSay(orders, pounds)).toBe(
      '2 lines met, 1 in part, 1 still open: 310 of 500 trees sent, for £ 250.00; of 10 trees no price is written.',
    );
    const none: OrdersSeen = {
      met: 0,
      part: 0,
      missed: 0,
      open: 0,
      wanted: 0,
      sent: 0,
      fetched: 0,
      unpriced: 0,
    };
    expect(ordersSay(none, pounds)).toBe('No order was wanted in these days.');
  });
  it('is four pages, with or without orders, losses and walks', () => {
    const paper = (more: object) =>
      yearPaper({
        nursery: 'N',
        from: '1 Jan',
        until: '31 Dec',
        sums,
        species: [{ name: 'Alder', sums, lived }],
        orders,
        lines: [{ on: '1 Feb', buyer: 'Moor', what: '60 Alder', sent: '60', worth: '£ 54' }],
        suppliers: [{ supplier: 'Dale', taken: 80, came: 100, paid: 0.4, lived }],
        money: pounds,
        worth: yearWorth(sums, { priced: 300, fetched: 270 })!.value,
        ...more,
      }).content as { pageBreak?: string }[];
    const breaks = (content: { pageBreak?: string }[]) => content.filter(({ pageBreak }) => pageBreak).length;
    expect(breaks(paper({}))).toBe(3);
    const bare = paper({
      sums: yearSums({ opening: [], flows: [], culls: [] }),
      species: [],
      lines: [],
      suppliers: [],
      worth: null,
    });
    expect(breaks(bare)).toBe(3);
    expect(JSON.stringify(bare)).toContain('what lives is not known');
    const whole = JSON.stringify(paper({}));
    expect(whole).toMatch(/paid for a living one/);
    expect(whole).toContain('Culled: 3 roots, 5 for what was not said.');
    expect(whole).toMatch(/the 20 lost .* £ 18.00 and the 8 culled £ 7.20/);
  });
});
