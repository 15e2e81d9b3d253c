import type { BoardSpan, Stay } from '@kauri/core';
import type { Place, PlannedSowing } from '@kauri/core/contract';
import { describe, expect, it } from 'vitest';
import { boardSheets, boardTable } from './boardFiles';
import type { BoardPlace } from './useBoard';

const FROM = 20_000;
const stay = (id: string, isPlanned: boolean): Stay => ({
  id,
  placeId: 'p',
  from: FROM,
  until: FROM + 70,
  isPlanned,
  occupant: { lotId: id, stage: { containerTypeId: 'c', trays: 1, areaM2: null } },
  mayLeaveFrom: Infinity,
});
const span = (from: number, until: number, share: number, ...stays: Stay[]): BoardSpan => ({
  from,
  until,
  share,
  over: 0,
  fault: null,
  stays,
});
const row = (name: string, more: Partial<BoardPlace> = {}): BoardPlace => ({
  place: { id: name, version: 1, place: { kind: 'bench', name } } as Place,
  standing: [span(FROM, FROM + 7, 0.5, stay('lot', false)), span(FROM + 7, FROM + 700, 0)],
  all: [
    span(FROM, FROM + 7, 0.5, stay('lot', false)),
    span(FROM + 7, FROM + 30, 1.25, stay('lot', false), stay('sown', true)),
    span(FROM + 30, FROM + 700, 0),
  ],
  over: [span(FROM + 7, FROM + 30, 1.25)],
  planned: [{ stay: stay('sown', true), sowing: { speciesId: 'alder' } as PlannedSowing }],
  ...more,
});
const words = {
  title: 'Board',
  nameOf: (id: string) => id.toUpperCase(),
  speciesName: () => 'Alder & <birch>',
};

describe('the board in files', () => {
  it('is a line for every stretch in which something stands or is planned', () => {
    const lines = boardTable([row('Bench 1'), row('Bench, 2', { all: [] })], words).split('\r\n');
    expect(lines).toEqual([
      'place,kind,from,until,filled_percent,stands,planned',
      'Bench 1,bench,2024-10-04,2024-10-10,50,LOT,',
      'Bench 1,bench,2024-10-11,2024-11-02,125,LOT,SOWN',
    ]);
  });
  it('is on as many sheets as it takes, names safely written, what is over-full crossed', () => {
    const rows = Array.from({ length: 70 }, (_, i) => row(`Place ${i}`));
    const { content, pageSize } = boardSheets(rows, [FROM + 20], [FROM, FROM + 728], words);
    expect(pageSize).toBe('A3');
    const sheets = content as { stack: [unknown, unknown, { svg: string }]; pageBreak?: string }[];
    expect(sheets.length).toBe(3);
    expect(sheets.map(({ pageBreak }) => pageBreak)).toEqual(['after', 'after', undefined]);
    const all = sheets.map(({ stack }) => stack[2].svg).join('');
    for (const { place } of rows) expect(all).toContain(`>${place.place.name}<`);
    expect(all).not.toContain('<birch>');
    expect(all.match(/#9b2c1f/g)).toHaveLength(70);
  });
});
