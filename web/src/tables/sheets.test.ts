import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { csvOf } from './csv';
import { cellText, rowsOf, trimmed, typedCell } from './cells';
import { tableFile, type TableFormat } from './tableFile';
import { sheetsOf } from './sheets';

const fileOf = (parts: BlobPart, name: string) => new File([parts], name);
/** An OpenDocument file as another program writes it, from the rows' XML. */
const ods = (...tables: { name: string; rows: string }[]) =>
  fileOf(
    new Uint8Array(
      zipSync({
        mimetype: strToU8('application/vnd.oasis.opendocument.spreadsheet'),
        'content.xml': strToU8(
          `<office:document-content xmlns:office="o" xmlns:table="t" xmlns:text="x"><office:body><office:spreadsheet>${tables
            .map(({ name, rows }) => `<table:table table:name="${name}">${rows}</table:table>`)
            .join('')}</office:spreadsheet></office:body></office:document-content>`,
        ),
      }),
    ),
    'there.ods',
  );

describe.each(['xlsx', 'ods'] as TableFormat[])('a table as %s', (format) => {
  const back = async (rows: Record<string, unknown>[]) => {
    const blob = tableFile(csvOf(rows), 'lots', format);
    return (await sheetsOf(new File([blob], `lots.${format}`)))!;
  };
  it('comes back cell for cell: numbers, days, texts that look like either', async () => {
    const [sheet] = await back([
      { code: '26-ALN-07', on: '2026-04-03', trees: 1200, height: 42.5, note: 'two & <three>', label: '007' },
      { code: '26-QPE-01', on: '2026-13-40', trees: -3, height: '', note: '=1+1', label: '1e5' },
    ]);
    expect(sheet.name).toBe('lots');
    expect(sheet.rows).toEqual([
      ['code', 'on', 'trees', 'height', 'note', 'label'],
      ['26-ALN-07', '2026-04-03', '1200', '42.5', 'two & <three>', '007'],
      ['26-QPE-01', '2026-13-40', '-3', '', '=1+1', '1e5'],
    ]);
  });
  it('keeps every text', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.stringMatching(/^[A-Za-z0-9é°“=+,;"'& <>.\-]{1,12}$/), { minLength: 1, maxLength: 5 }),
        async (texts) => {
          // A text that begins as a guarded formula does cannot be told from one.
          const whole = texts.map((text) => text.trim()).filter((text) => text && !/^'[=+\-@]/.test(text));
          const [sheet] = await back([{ head: 'x' }, ...whole.map((head) => ({ head }))]);
          expect(sheet.rows.slice(2).map(([cell]) => cell)).toEqual(
            whole.map((text) => cellText(typedCell(text))),
          );
        },
      ),
      { numRuns: 25 },
    );
  });
});

describe('cells', () => {
  it('are numbers or days only where a spreadsheet would give the same text back', () => {
    const near = fc.oneof(fc.string(), fc.double().map(String), fc.stringMatching(/^-?[0-9]{1,17}$/));
    fc.assert(
      fc.property(near, (text) => {
        const value = typedCell(text);
        if (typeof value !== 'string') expect(Number(cellText(value))).toBe(Number(text));
        else expect(cellText(value)).toBe(text);
      }),
    );
    for (const text of ['007', '1,5', '1e5', '2026-02-30', '12345678901234567890', '-0', '-0.0'])
      expect(typedCell(text)).toBe(text);
    expect(typedCell('12.50')).toBe(12.5);
    expect(cellText(typedCell('2026-02-28'))).toBe('2026-02-28');
  });
  it('read a guarded text as it was typed', () => {
    expect(rowsOf(csvOf([{ a: '=sum(a1)', b: '’tis', c: "'quoted" }]))[1]).toEqual([
      '=sum(a1)',
      '’tis',
      "'quoted",
    ]);
  });
  it('leave out the emptiness at a sheet’s end', () => {
    expect(trimmed([['a', 'b', '', ''], ['1', '', '', ''], ['', ''], []])).toEqual([
      ['a', 'b'],
      ['1', ''],
    ]);
  });
});

describe('spreadsheets of others', () => {
  const cell = (text: string, more = '') =>
    `<table:table-cell office:value-type="string"${more}><text:p>${text}</text:p></table:table-cell>`;
  it('with merged cells, formulas, decimal commas, notes, two sheets and a million empty rows', async () => {
    const file = ods(
      {
        name: 'Heights',
        rows: `<table:table-row>${cell('species', ' table:number-columns-spanned="2"')}<table:covered-table-cell/>${cell('cm')}</table:table-row>
          <table:table-row>${cell('alder')}<table:table-cell/><table:table-cell table:formula="of:=SUM([.A1])" office:value-type="float" office:value="42.5"><text:p>42,50</text:p></table:table-cell></table:table-row>
          <table:table-row table:number-rows-repeated="2">${cell('oak')}<table:table-cell table:number-columns-repeated="1"/><table:table-cell office:value-type="string"><office:annotation><text:p>by eye</text:p></office:annotation><text:p>31,5</text:p></table:table-cell></table:table-row>
          <table:table-row table:number-rows-repeated="1048570"><table:table-cell table:number-columns-repeated="16384"/></table:table-row>`,
      },
      { name: 'Empty', rows: '<table:table-row><table:table-cell/></table:table-row>' },
      {
        name: 'Days &amp; notes',
        rows: `<table:table-row><table:table-cell office:value-type="date" office:date-value="2026-03-15T00:00:00"><text:p>15/03/26</text:p></table:table-cell>${cell('late<text:s text:c="2"/>frost')}</table:table-row>`,
      },
    );
    const sheets = (await sheetsOf(file))!;
    expect(sheets.map(({ name }) => name)).toEqual(['Heights', 'Days & notes']);
    expect(sheets[0].rows).toEqual([
      ['species', '', 'cm'],
      ['alder', '', '42.5'],
      ['oak', '', '31,5'],
      ['oak', '', '31,5'],
    ]);
    expect(sheets[1].rows).toEqual([['2026-03-15', 'late  frost']]);
  });
  it('are told from text, and refused in a sentence where they cannot be read', async () => {
    expect(await sheetsOf(fileOf('code,cm\n1,2\n', 'a.csv'))).toBeNull();
    await expect(sheetsOf(fileOf(new Uint8Array([0xd0, 0xcf, 0x11, 0xe0]), 'old.xls'))).rejects.toThrow(
      /XLSX/,
    );
    const broken = fileOf(new Uint8Array([0x50, 0x4b, 3, 4, 9, 9, 9]), 'broken.xlsx');
    await expect(sheetsOf(broken)).rejects.toThrow(/broken.xlsx cannot be read/);
    const other = new Uint8Array(zipSync({ 'photo.jpg': new Uint8Array(3) }));
    await expect(sheetsOf(fileOf(other, 'photos.zip'))).rejects.toThrow(/photos.zip cannot be read/);
    await expect(sheetsOf(ods({ name: 'a', rows: '' }))).rejects.toThrow(/holds no rows/);
  });
  it('that would unpack to more than there is room for are refused before they do', async () => {
    const bomb = new Uint8Array(zipSync({ 'content.xml': new Uint8Array(9) }));
    // Its list of contents says how large a file becomes.
    const entry = bomb.findIndex((_, i) => [0x50, 0x4b, 1, 2].every((byte, k) => bomb[i + k] === byte));
    new DataView(bomb.buffer).setUint32(entry + 24, 1e9, true);
    await expect(sheetsOf(fileOf(bomb, 'bomb.ods'))).rejects.toThrow(/cannot be read/);
  });
});
