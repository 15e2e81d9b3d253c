import { describe, expect, it } from 'vitest';
import { readHead } from './tablePreview';

const file = (content: BlobPart, name = 'table.csv') => new File([content], name);

describe('the head of a table', () => {
  it('is read whatever parts its cells, without its byte-order mark', async () => {
    expect(await readHead(file('\uFEFFday;low;high\n1;2,5;3\n\n2;3;4\n'))).toEqual({
      header: ['day', 'low', 'high'],
      rows: [
        ['1', '2,5', '3'],
        ['2', '3', '4'],
      ],
    });
    expect((await readHead(file('a\tb\n1\t2'))).header).toEqual(['a', 'b']);
    expect((await readHead(file('a,b\n"1,5",2'))).rows).toEqual([['1,5', '2']]);
  });
  it('of a long file is read from its first part, without a line cut in two', async () => {
    const rows = Array.from({ length: 50_000 }, (_, i) => `2026-01-01,${i},${i}`);
    const head = await readHead(file(`date,low,high\n${rows.join('\n')}`));
    expect(head.rows.length).toBeGreaterThan(100);
    for (const row of head.rows) expect(row).toHaveLength(3);
  });
  it.each([
    ['', /is empty/],
    [new Uint8Array([80, 75, 3, 4, 0, 0]), /not a text table/],
    ['just words', /no table of two columns/],
    ['a,b\n', /no table of two columns/],
  ])('of what is no table is refused in a sentence', async (content, sentence) => {
    await expect(readHead(file(content))).rejects.toThrow(sentence);
  });
});
