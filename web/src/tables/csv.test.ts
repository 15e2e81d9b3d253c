import { describe, expect, it } from 'vitest';
import { csvOf } from './csv';

describe('CSV', () => {
  it.each(['=1+1', '+1+1', '-1+1', '@sum(a1)', '\tx'])(
    'never begins a cell as a formula would: %j',
    (typed) => {
      const [, cell] = csvOf([{ note: typed }]).split('\r\n');
      expect(cell.replace(/^"/, '')).toMatch(/^'/);
    },
  );
  it('leaves figures alone, below zero and as text too', () => {
    expect(csvOf([{ a: -2.5, b: '-2.5', c: '−2' }]).split('\r\n')[1]).toBe('-2.5,-2.5,−2');
  });
  it('has the columns that are asked for, in their order', () => {
    expect(csvOf([{ a: 1, b: 2, c: 3 }], ['c', 'a'])).toBe('c,a\r\n3,1');
  });
});
