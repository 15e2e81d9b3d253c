import { say } from '@kauri/core';
import type { AgendaLine } from '@kauri/core';
import type { Content, TDocumentDefinitions } from '../../print/pdf';
import { minutesWords } from './todayWords';
import type { TodayItem } from '@kauri/core';

export interface SheetGroup {
  words: string;
  lines: readonly AgendaLine<TodayItem>[];
}

/** Today on paper: a box to tick, what, why, where, how long, and room to write the time it took. */
export function todaySheet(
  title: string,
  groups: readonly SheetGroup[],
  whereOf: (line: AgendaLine<TodayItem>) => string,
  whose: (line: AgendaLine<TodayItem>) => string,
): TDocumentDefinitions {
  const box = () => ({ canvas: [{ type: 'rect' as const, x: 0, y: 1, w: 10, h: 10, lineWidth: 0.8 }] });
  const row = (line: AgendaLine<TodayItem>): Content[] => [
    box(),
    {
      stack: [
        { text: line.item.words.title, bold: true },
        line.item.words.reason,
        ...(line.item.words.waiting ? [{ text: line.item.words.waiting, color: '#5a6055' }] : []),
      ],
    },
    whereOf(line),
    `${minutesWords(line.minutes)}${whose(line) ? `\n${whose(line)}` : ''}`,
    { text: '\n________ min' },
  ];
  return {
    pageSize: 'A4',
    pageMargins: [36, 36, 36, 40],
    content: [
      { text: title, fontSize: 16, bold: true, margin: [0, 0, 0, 8] },
      ...groups.flatMap(({ words, lines }): Content[] => [
        { text: `${words} (${lines.length})`, fontSize: 12, bold: true, margin: [0, 8, 0, 4] },
        {
          table: { widths: [14, '*', 110, 70, 60], body: lines.map(row), dontBreakRows: true },
          layout: 'lightHorizontalLines',
        },
      ]),
    ],
    footer: (page: number, pages: number) => ({
      text: say`${page} of ${pages}`,
      alignment: 'right',
      margin: [0, 8, 36, 0],
      color: '#5a6055',
    }),
  };
}
