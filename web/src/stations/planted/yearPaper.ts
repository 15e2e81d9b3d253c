import { paidForLiving, type SurvivalGroup, type YearSums, type YearWorth, say } from '@kauri/core';
import { plain, type Content, type TDocumentDefinitions } from '../../print/pdf';
import { causeWords } from '../../words/causes';
import { cullWords } from '../../words/grades';
import { count, percent, several } from '../../words/numbers';
import type { OrdersSeen, SupplierSeen } from './useYear';

/** The steps of a year as bars: what came in pale, what left and is there dark. */
export const sumRows = (sums: YearSums): { words: string; count: number; pale?: boolean }[] =>
  [
    { words: say`Sown or stuck`, count: sums.sown, pale: true },
    { words: say`Came up or rooted`, count: sums.up },
    { words: say`Came as plants`, count: sums.came, pale: true },
    { words: say`Lifted`, count: sums.lifted },
    { words: say`Sent`, count: sums.sent },
    { words: say`Came back`, count: sums.cameBack.living + sums.cameBack.dead, pale: true },
    { words: say`Planted`, count: sums.planted },
    { words: say`Standing at the end`, count: sums.standing },
    { words: say`Lifted, still here`, count: sums.lying },
  ].filter((row) => row.count > 0);

/** What was gone by cause, the most first; no more of them than one takes in. */
export const lossRows = (sums: YearSums): YearSums['gone'] => sums.gone.slice(0, 8);

/** How orders were met, in words. */
export function ordersSay(
  { met, part, missed, open, wanted, sent, fetched, unpriced }: OrdersSeen,
  money: (amount: number) => string,
): string {
  if (met + part + missed + open === 0) return say`No order was wanted in these days.`;
  const lines = [
    met && say`${several(met, 'line')} met`,
    part && say`${count(part)} in part`,
    missed && say`${count(missed)} missed`,
    open && say`${count(open)} still open`,
  ].filter(Boolean);
  return say`${lines.join(', ')}: ${count(sent)} of ${several(wanted, 'tree')} sent${fetched ? say`, for ${money(fetched)}` : ''}${unpriced ? say`; of ${several(unpriced, 'tree')} no price is written` : ''}.`;
}

/** Why trees were culled, as far as it was said. */
export function cullsSay({ gone, culledFor }: Pick<YearSums, 'gone' | 'culledFor'>): string {
  const culled = gone.find(({ cause }) => cause === 'culled')?.count ?? 0;
  const unsaid = culled - culledFor.reduce((t, one) => t + one.count, 0);
  const parts = culledFor.map(({ why, count: trees }) => `${count(trees)} ${cullWords(why)}`);
  return say`Culled: ${[...parts, ...(unsaid > 0 ? [say`${count(unsaid)} for what was not said`] : [])].join(', ')}.`;
}

/** What lost and culled trees would have fetched, in words. */
export const worthSay = ({ price, lost, culled }: YearWorth, money: (amount: number) => string): string =>
  say`At what trees sent fetched on average, ${money(price)}, the ${count(lost.trees)} lost while they grew or lay would have made ${money(lost.worth)} and the ${count(culled.trees)} culled ${money(culled.worth)}: a rough measure, since not all would have found a buyer.`;

/** How bought plants of a supplier live, and what was paid for one that does; null where none was planted and walked. */
export function livingSay(
  { paid, lived }: Pick<SupplierSeen, 'paid' | 'lived'>,
  money: (amount: number) => string,
): string | null {
  if (!lived) return null;
  const cost = paid === null ? null : paidForLiving(paid, lived);
  return say`${percent(lived.lower)} to ${percent(lived.upper)} live once planted, nine times in ten${cost ? say`: ${money(cost.from)} to ${money(cost.to)} paid for a living one` : ''}.`;
}

/** What a report on paper is made of. */
export interface YearPaper {
  nursery: string;
  from: string;
  until: string;
  sums: YearSums;
  species: readonly { name: string; sums: YearSums; lived: SurvivalGroup | null }[];
  orders: OrdersSeen;
  lines: readonly { on: string; buyer: string; what: string; sent: string; worth: string }[];
  suppliers: readonly SupplierSeen[];
  money: (amount: number) => string;
  /** What lost trees would have fetched; null where none was sent at a price. */
  worth: YearWorth | null;
}

const INK = '#1f261e';
const LEAF = '#3d6b3b';
const PALE = '#dce7cf';
const WIDTH = 515;
const escape = (text: string) => plain(text).replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);

/** Bars under one another, drawn to one scale. */
export function barsSvg(rows: readonly { words: string; count: number; pale?: boolean }[]): string {
  const most = Math.max(1, ...rows.map((row) => row.count));
  const bars = rows.map(({ words, count: n, pale }, i) => {
    const y = i * 22;
    const width = (n / most) * (WIDTH - 230);
    return [
      `<text x="150" y="${y + 14}" font-size="10" text-anchor="end" fill="${INK}">${escape(words)}</text>`,
      `<rect x="158" y="${y + 3}" width="${width.toFixed(1)}" height="15" fill="${pale ? PALE : LEAF}" stroke="${LEAF}" stroke-width="0.6"/>`,
      `<text x="${(164 + width).toFixed(1)}" y="${y + 14}" font-size="10" fill="${INK}">${escape(count(n))}</text>`,
    ].join('');
  });
  const height = Math.max(1, rows.length) * 22 + 4;
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${height}" width="${WIDTH}" height="${height}">${bars.join('')}</svg>`;
}

/** Shares with what is not known of them: a line from the lower to the upper end, nine times in ten, a mark at the middle. */
export function sharesSvg(rows: readonly { words: string; share: SurvivalGroup }[]): string {
  const x = (share: number) => (170 + share * (WIDTH - 200)).toFixed(1);
  const height = rows.length * 22 + 20;
  const grid = [0, 0.25, 0.5, 0.75, 1].map(
    (at) =>
      `<path d="M${x(at)} 0V${height - 16}" stroke="#d9d0bd" stroke-width="0.6"/><text x="${x(at)}" y="${height - 4}" font-size="8" text-anchor="middle" fill="#5a6055">${at * 100} %</text>`,
  );
  const lines = rows.map(({ words, share }, i) => {
    const y = i * 22 + 10;
    return [
      `<text x="160" y="${y + 4}" font-size="10" text-anchor="end" fill="${INK}">${escape(words)}</text>`,
      `<path d="M${x(share.lower)} ${y}H${x(share.upper)}" stroke="${LEAF}" stroke-width="5"/>`,
      `<path d="M${x(share.mean)} ${y - 6}V${y + 6}" stroke="${INK}" stroke-width="1.6"/>`,
    ].join('');
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${height}" width="${WIDTH}" height="${height}">${grid.join('')}${lines.join('')}</svg>`;
}

/** A year on four pages: in short, by species, orders and what was lost, what lived. */
export function yearPaper(year: YearPaper): TDocumentDefinitions {
  const { nursery, from, until, sums, species, orders, lines, suppliers, money, worth } = year;
  const title = (text: string, first = false): Content => ({
    text,
    fontSize: 16,
    bold: true,
    margin: [0, 0, 0, 8],
    ...(first ? {} : { pageBreak: 'before' }),
  });
  const passage = (text: string): Content => ({ text: plain(text), margin: [0, 4, 0, 6], fontSize: 10.5 });
  const right = (text: string, bold = false): Content => ({ text: plain(text), alignment: 'right', bold });
  const table = (widths: (string | number)[], heads: string[], rows: Content[][]): Content => ({
    table: {
      headerRows: 1,
      dontBreakRows: true,
      widths,
      body: [heads.map((text, i) => (i ? right(text, true) : { text, bold: true })), ...rows],
    },
    layout: 'lightHorizontalLines',
    fontSize: 9,
  });
  const livedRows = species.flatMap(({ name, lived }) => (lived ? [{ words: name, share: lived }] : []));
  return {
    pageSize: 'A4',
    pageMargins: [40, 44, 40, 44],
    footer: (page, pages) => ({
      text: plain(say`${nursery} · ${from} to ${until} · ${page} of ${pages}`),
      alignment: 'center',
      fontSize: 8.5,
      color: '#5a6055',
      margin: [0, 12, 0, 0],
    }),
    content: [
      { text: plain(nursery), fontSize: 20, bold: true },
      { text: plain(say`${from} to ${until}`), fontSize: 12, margin: [0, 2, 0, 16] },
      title(say`In short`, true),
      { svg: barsSvg(sumRows(sums)) },
      passage(
        say`${count(sums.standingBefore)} trees stood and ${count(sums.lyingBefore)} lay lifted when the year began; ${count(sums.standing)} stand and ${count(sums.lying)} lie lifted at its end.`,
      ),
      passage(ordersSay(orders, money)),
      title(say`By species`),
      table(
        ['*', 46, 46, 46, 46, 46, 46, 46],
        [say`Species`, say`Sown`, say`Came up`, say`Lifted`, say`Sent`, say`Planted`, say`Lost`, say`Stand`],
        species.map(({ name, sums: of }) => [
          plain(name),
          ...[
            of.sown,
            of.up,
            of.lifted,
            of.sent,
            of.planted,
            of.gone.reduce((t, one) => t + one.count, 0),
            of.standing,
          ].map((n) => right(count(n))),
        ]),
      ),
      title(say`Orders, and what was lost`),
      ...(lines.length
        ? [
            table(
              [74, '*', 150, 54, 70],
              [say`Wanted from`, say`Buyer`, say`Trees`, say`Sent`, say`Fetched`],
              lines.map(({ on, buyer, what, sent, worth }) => [
                plain(on),
                right(buyer),
                right(what),
                right(sent, true),
                right(worth),
              ]),
            ),
          ]
        : []),
      { text: say`Gone otherwise, by cause`, fontSize: 12, bold: true, margin: [0, 16, 0, 6] },
      sums.gone.length
        ? {
            svg: barsSvg(
              lossRows(sums).map(({ cause, count: n }) => ({ words: causeWords(cause), count: n })),
            ),
          }
        : passage(say`Nothing was lost.`),
      ...(sums.culledFor.length ? [passage(cullsSay(sums))] : []),
      ...(worth && worth.lost.trees + worth.culled.trees > 0 ? [passage(worthSay(worth, money))] : []),
      title(say`What lived`),
      livedRows.length
        ? { svg: sharesSvg(livedRows) }
        : passage(say`No planting was walked yet: what lives is not known.`),
      passage(
        say`Shares of planted trees that the last walks found alive, nine times in ten between the ends of the line; small groups are read beside the others.`,
      ),
      ...suppliers.map((one) =>
        passage(
          say`${one.supplier}: ${count(one.taken)} of ${count(one.came)} taken${one.paid === null ? '' : say`, ${money(one.paid)} each`}. ${livingSay(one, money) ?? say`None of theirs was planted and walked yet.`}`,
        ),
      ),
    ],
  };
}
