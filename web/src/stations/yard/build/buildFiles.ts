import {
  cutFromRolls,
  put,
  type BoardBuying,
  type BuildSheet,
  type PriceList,
  type Step,
  say,
  inWords,
  inSentence,
} from '@kauri/core';
import { csvOf } from '../../../tables/csv';
import type { Content, TDocumentDefinitions } from '../../../print/pdf';
import { money } from '../../../words/money';

export interface BuildFile {
  title: string;
  sheet: BuildSheet;
  buying: readonly BoardBuying[];
  prices: PriceList;
  /** A timber length in the grower's units. */
  length: (mm: number) => string;
  litres: (l: number) => string;
  area: (m2: number) => string;
}

const feetWords = inWords({ bricks: 'bricks', blocks: 'blocks', legs: 'legs', pallet: 'pallets' } as const);

/** Everything to buy, by line: what it is, its size, how many, its price. */
export function buyLines({ sheet, buying, prices, length, litres, area }: BuildFile) {
  const lines: { what: string; size: string; count: number; each: number | null }[] = [];
  for (const { board, plan } of buying)
    for (const b of plan.buy)
      lines.push({ what: say`Board ${board}`, size: length(b.lengthMm), count: b.count, each: b.price });
  for (const s of sheet.sheets) {
    const perM2 = { mesh: prices.meshPerM2, grid: prices.gridPerM2, cloth: prices.clothPerM2 }[s.what];
    lines.push({
      what: `${s.name}, ${s.bed}`,
      size: say`${s.cut.strips > 1 ? say`${s.cut.strips} strips of ` : ''}${length(s.cut.stripMm)} off a ${length(s.cut.rollWidthMm)} roll${s.cut.wasteM2 > 0.005 ? say`, waste ${area(s.cut.wasteM2)}` : ''}`,
      count: s.count,
      each: s.cut.boughtM2 * perM2,
    });
  }
  const { fixings } = sheet;
  if (fixings.brackets)
    lines.push({ what: say`Corner brackets`, size: '', count: fixings.brackets, each: prices.bracket });
  lines.push({ what: say`Screws`, size: '', count: fixings.screws, each: prices.screw });
  lines.push({ what: say`Staples`, size: '', count: fixings.staples, each: prices.staple });
  for (const f of sheet.feet)
    lines.push({
      what: say`Feet: ${feetWords[f.kind]}`,
      size: '',
      count: f.count,
      each: prices.foot[f.kind],
    });
  for (const m of sheet.mediumL)
    lines.push({ what: say`Medium: ${m.name}`, size: litres(m.litres), count: 1, each: null });
  return lines;
}

/** The cut list and what to buy, as a table for a spreadsheet. */
export function buildCsv(file: BuildFile): string {
  const cuts = file.sheet.timber.map((t) => ({
    list: 'cut',
    bed: t.bed,
    what: t.name,
    size: t.board,
    length_mm: t.lengthMm,
    count: t.count,
    each: '',
  }));
  const buys = buyLines(file).map((l) => ({
    list: 'buy',
    bed: '',
    what: l.what,
    size: l.size.replace(/\u00a0|\u202f/g, ' '),
    length_mm: '',
    count: l.count,
    each: l.each === null ? '' : l.each.toFixed(2),
  }));
  return csvOf([...cuts, ...buys]);
}

/** The build sheet on paper: what to buy, what to cut and how, and the order of the work with its cautions. */
export function buildPdf(file: BuildFile): TDocumentDefinitions {
  const { title, sheet, buying, prices, length } = file;
  const plain = (text: string) => text.replace(/[\u00a0\u202f]/g, ' ');
  const cash = (amount: number) => plain(money(amount, prices.currency));
  const head = (text: string): Content => ({ text, bold: true, fontSize: 13, margin: [0, 12, 0, 4] });
  const table = (heads: string[], rows: (string | number)[][], widths: (string | number)[]): Content => ({
    layout: 'lightHorizontalLines',
    table: {
      headerRows: 1,
      widths,
      body: [
        heads.map((text) => ({ text, color: '#5a6055' })),
        ...rows.map((row) => row.map((cell) => plain(String(cell)))),
      ],
    },
  });
  const timber = buying.reduce((t, b) => t + b.plan.cost, 0);
  return {
    pageSize: 'A4',
    pageMargins: [40, 40, 40, 46],
    footer: (page, pages) => ({
      text: say`${title}, page ${page} of ${pages}`,
      alignment: 'center',
      color: '#5a6055',
      margin: [0, 14, 0, 0],
    }),
    content: [
      { text: title, bold: true, fontSize: 18 },
      {
        text: say`Timber ${cash(timber)}, the rest ${cash(sheet.sundriesCost)}, without medium: ${cash(timber + sheet.sundriesCost)}.`,
        margin: [0, 4, 0, 0],
      },
      head(say`Buy`),
      table(
        [say`What`, say`Size`, say`Number`, say`Each`, say`Together`],
        buyLines(file).map((l) => [
          l.what,
          l.size,
          l.count,
          l.each === null ? '' : cash(l.each),
          l.each === null ? '' : cash(l.each * l.count),
        ]),
        ['*', '*', 'auto', 'auto', 'auto'],
      ),
      head(say`Cut`),
      table(
        [say`Bed`, say`Piece`, say`Board`, say`Length`, say`Number`],
        sheet.timber.map((t) => [t.bed, t.name, t.board, length(t.lengthMm), t.count]),
        ['*', '*', 'auto', 'auto', 'auto'],
      ),
      head(say`Cutting diagram`),
      ...buying.map(({ board, plan }): Content => ({
        unbreakable: true,
        stack: [
          {
            text: plain(
              say`${board}: ${plan.boards.reduce((t, b) => t + b.count, 0)} boards, ${cash(plan.cost)}, waste ${length(plan.wasteMm)}; ${plan.optimal ? say`no cheaper way exists` : say`at most ${cash(plan.cost - plan.bound)} above the cheapest`}`,
            ),
            margin: [0, 6, 0, 2],
          },
          { svg: diagramSvg(plan.boards, prices.kerfMm, (mm) => plain(length(mm))), width: 510 },
        ],
      })),
      head(say`Tools`),
      { ul: sheet.tools },
      head(say`Build`),
      {
        ol: sheet.steps.map((step) => ({
          stack: [
            { text: step.what },
            ...(step.caution
              ? [
                  {
                    text: say`Caution: ${step.caution}`,
                    bold: true,
                    margin: [0, 1, 0, 2] as [number, number, number, number],
                  },
                ]
              : []),
          ],
        })),
      },
    ],
  };
}

function diagramSvg(
  boards: readonly { stockMm: number; count: number; cutsMm: number[] }[],
  kerfMm: number,
  length: (mm: number) => string,
): string {
  const longest = Math.max(...boards.map((b) => b.stockMm));
  const scale = 450 / longest;
  const rows = boards.map((b, i) => {
    const y = i * 22;
    let at = 0;
    const cuts = b.cutsMm.map((mm) => {
      const [x, w] = [40 + at * scale, mm * scale];
      at += mm + kerfMm;
      const words =
        w > 24
          ? `<text x="${x + w / 2}" y="${y + 11.5}" font-size="${w > 34 ? 7.5 : 5.8}" text-anchor="middle">${length(mm)}</text>`
          : '';
      return `<rect x="${x.toFixed(2)}" y="${y}" width="${w.toFixed(2)}" height="16" fill="#fffcf5" stroke="#1f261e" stroke-width="0.7"/>${words}`;
    });
    return `<text x="0" y="${y + 11.5}" font-size="9">${b.count} x</text><rect x="40" y="${y}" width="${(b.stockMm * scale).toFixed(2)}" height="16" fill="#d9d0bd" stroke="#1f261e" stroke-width="0.7"/>${cuts.join('')}`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 510 ${boards.length * 22}" font-family="Atkinson">${rows.join('')}</svg>`;
}

/** How the sums of a build sheet come about. */
export function buildWorking({ sheet, buying, prices }: BuildFile): Step[] {
  const { currency } = prices;
  const steps: Step[] = buying.flatMap(({ board, plan }) => [
    {
      what: say`Boards ${board}`,
      expression: plan.buy.map((b) => `${b.count} × ${put(b.price)}`).join(' + '),
      result: plan.cost,
      unit: currency,
      inputs: plan.buy.map((b) => ({
        name: say`a board of ${b.lengthMm} mm`,
        value: b.price,
        unit: currency,
        origin: 'choice' as const,
      })),
    },
    {
      what: say`No set of boards ${board} can cost less than`,
      how: plan.optimal
        ? say`Proven by the mixed-integer programme over every way of cutting a board.`
        : say`The linear relaxation by column generation, raised to what prices can add up to.`,
      result: plan.bound,
      unit: currency,
      source: 'Gilmore & Gomory 1961; Farley 1990; solved by HiGHS',
    },
  ]);
  for (const s of sheet.sheets)
    steps.push(
      ...cutFromRolls(s.lengthMm, s.widthMm, prices.rollWidthsMm).working.map((step) => ({
        ...step,
        what: `${s.name}, ${s.bed}: ${inSentence(step.what)}`,
      })),
    );
  const f = sheet.fixings;
  const fixings = f.brackets * prices.bracket + f.screws * prices.screw + f.staples * prices.staple;
  steps.push({
    what: say`Brackets, screws and staples`,
    expression: `${f.brackets} × ${put(prices.bracket)} + ${f.screws} × ${put(prices.screw)} + ${f.staples} × ${put(prices.staple)}`,
    result: fixings,
    unit: currency,
  });
  return steps;
}
